package page

import (
	"context"
	"crypto/sha256"
	"encoding/hex"

	"brevium/core/style"
	"brevium/core/stylefile"
)

// KnowStyles makes the maker's own styles known in the catalogue, as they are kept now.
func (s *Room) KnowStyles(ctx context.Context) error {
	all, err := s.Store.Of(ctx).Styles(ctx)
	if err != nil {
		return err
	}
	var files []stylefile.Kept
	for _, x := range all {
		files = append(files, stylefile.Kept{File: x.File, Struck: x.Struck})
	}
	style.SetOwn(stylefile.Own(files))
	return nil
}

// Draft is a style that is being filled in as a table, and how it was before each change.
type Draft struct {
	Text   string   `json:"text"`
	Before []string `json:"before,omitempty"`
	// Began is the version of a style of one's own that it was begun from, 0 for none.
	Began int `json:"began,omitempty"`
}

// Mark tells one state of the draft from another.
func (d *Draft) Mark() string {
	sum := sha256.Sum256([]byte(d.Text))
	return hex.EncodeToString(sum[:6])
}

// BeginFrom notes which version of a style the draft is of.
func (s *Room) BeginFrom(ctx context.Context, d *Draft, version int) error {
	d.Began = version
	return s.Store.Of(ctx).Set(ctx, draftKey, d)
}

// draftKey is where it is kept, so that it is there after a reload.
const draftKey = "style-draft"

// mostBefore is how many changes can be taken back.
const mostBefore = 40

// StyleDraft is the table that is being filled in, or an empty sheet.
func (s *Room) StyleDraft(ctx context.Context) (Draft, *stylefile.Table, error) {
	var d Draft
	if err := s.Store.Of(ctx).Setting(ctx, draftKey, &d); err != nil {
		return d, nil, err
	}
	if t, err := stylefile.ReadTable([]byte(d.Text)); err == nil {
		return d, t, nil
	}
	t := stylefile.NewTable()
	return Draft{Text: string(t.Text())}, t, nil
}

// PutDraft keeps a change of the draft.
func (s *Room) PutDraft(ctx context.Context, d *Draft, t *stylefile.Table) error {
	text := string(t.Text())
	if text == d.Text {
		return nil
	}
	d.Before = append(d.Before, d.Text)
	d.Before = d.Before[max(0, len(d.Before)-mostBefore):]
	d.Text = text
	return s.Store.Of(ctx).Set(ctx, draftKey, d)
}

// UndoDraft takes the last change of the draft back.
func (s *Room) UndoDraft(ctx context.Context, d *Draft) error {
	last := len(d.Before) - 1
	d.Text, d.Before = d.Before[last], d.Before[:last]
	return s.Store.Of(ctx).Set(ctx, draftKey, d)
}

// BeginStyle begins a style of one's own anew; what was there can be had back by undo.
func (s *Room) BeginStyle(ctx context.Context, t *stylefile.Table) error {
	d, _, err := s.StyleDraft(ctx)
	if err != nil {
		return err
	}
	return s.PutDraft(ctx, &d, t)
}
