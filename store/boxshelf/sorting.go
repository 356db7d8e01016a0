package boxshelf

import (
	"context"
	"encoding/json"
	"slices"
	"strings"
	"unicode/utf8"

	"brevium/core/fault"
	"brevium/store/scope"
)

// Limits of what boxes are sorted by.
const (
	MostTags   = 12 // of one box
	LongestTag = 30
	MostChosen = 200 // at once
)

// CleanTag is a tag as it is kept: without spaces round it, small letters; a fault where it is none.
func CleanTag(text string) (string, error) {
	tag := strings.ToLower(strings.Join(strings.Fields(text), " "))
	switch {
	case tag == "":
		return "", fault.New(fault.Empty, "tag", "which tag? Type a word, such as a season, a person or a stall")
	case utf8.RuneCountInString(tag) > LongestTag || strings.ContainsAny(tag, ",<>"):
		return "", fault.New(fault.TooLong, "tag", "a tag is one or two words, up to %d letters, without a comma", LongestTag)
	}
	return tag, nil
}

// Listed writes numbers for a statement.
func Listed(ids []int64) string {
	text, err := json.Marshal(append([]int64{}, ids...))
	if err != nil {
		panic(err) // whole numbers
	}
	return string(text)
}

// CheckChosen refuses more boxes than go at once.
func CheckChosen(ids []int64) error {
	if len(ids) == 0 {
		return fault.New(fault.Empty, "box", "no box is chosen; tick one at its picture")
	}
	if len(ids) > MostChosen {
		return fault.New(fault.CountRange, "box", "up to %d boxes go at once", MostChosen)
	}
	return nil
}

// Mark is what a box is marked as.
type Mark string

// A favourite stands first; what is archived is out of the way until it is asked for.
const (
	Favourite Mark = "favourite"
	Archived  Mark = "archived"
)

// marks are the statements that find what is not marked so, and mark it.
var marks = map[Mark][2]scope.Statement{
	Favourite: {
		scope.Seen.SQL(`SELECT id FROM boxes WHERE id IN (SELECT value FROM json_each(?)) AND favourite <> ? AND deleted_at IS NULL AND {whose} ORDER BY id`),
		scope.Seen.SQL(`UPDATE boxes SET favourite = ? WHERE id IN (SELECT value FROM json_each(?)) AND {whose}`),
	},
	Archived: {
		scope.Seen.SQL(`SELECT id FROM boxes WHERE id IN (SELECT value FROM json_each(?)) AND archived <> ? AND deleted_at IS NULL AND {whose} ORDER BY id`),
		scope.Seen.SQL(`UPDATE boxes SET archived = ? WHERE id IN (SELECT value FROM json_each(?)) AND {whose}`),
	},
}

// SetMark marks boxes, or takes the mark away, and gives the numbers of those it changed.
func (d *Shelf) SetMark(ctx context.Context, m Mark, ids []int64, on bool) (changed []int64, err error) {
	if err := CheckChosen(ids); err != nil {
		return nil, err
	}
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		if err := tx.All(ctx, &changed, marks[m][0], Listed(ids), on); err != nil {
			return err
		}
		_, err := tx.Do(ctx, marks[m][1], on, Listed(changed))
		return err
	})
	return changed, err
}

// tagRow is a box's tags as the table has them.
type tagRow struct {
	ID   int64
	Tags string
}

// tags reads a row's tags.
func (r tagRow) tags() []string {
	var out []string
	if json.Unmarshal([]byte(r.Tags), &out) != nil {
		return nil
	}
	return out
}

// SetTag gives boxes a tag, or takes it away, and gives the numbers of those it changed.
func (d *Shelf) SetTag(ctx context.Context, text string, ids []int64, on bool) (changed []int64, err error) {
	tag, err := CleanTag(text)
	if err != nil {
		return nil, err
	}
	if err := CheckChosen(ids); err != nil {
		return nil, err
	}
	err = d.at.In(ctx, func(tx *scope.Tx) error {
		var rows []tagRow
		if err := tx.All(ctx, &rows, scope.Seen.SQL(`SELECT id, tags FROM boxes WHERE id IN (SELECT value FROM json_each(?)) AND deleted_at IS NULL AND {whose} ORDER BY id`), Listed(ids)); err != nil {
			return err
		}
		for _, r := range rows {
			all := r.tags()
			if slices.Contains(all, tag) == on {
				continue
			}
			if on {
				all = append(all, tag)
				slices.Sort(all)
			} else {
				all = slices.DeleteFunc(all, func(t string) bool { return t == tag })
			}
			if len(all) > MostTags {
				return fault.New(fault.CountRange, "tag", "a box has up to %d tags", MostTags)
			}
			text, err := json.Marshal(append([]string{}, all...))
			if err != nil {
				return err
			}
			if _, err := tx.Do(ctx, scope.Seen.SQL(`UPDATE boxes SET tags = ? WHERE id = ? AND {whose}`), string(text), r.ID); err != nil {
				return err
			}
			changed = append(changed, r.ID)
		}
		return nil
	})
	if err != nil {
		changed = nil
	}
	return changed, err
}

// Tag is a tag and how many boxes have it.
type Tag struct {
	Name  string
	Boxes int
}

// Tags lists the tags of the boxes that are not archived, by name.
func (d *Shelf) Tags(ctx context.Context) (out []Tag, err error) {
	err = d.at.All(ctx, &out, scope.Seen.SQL(`SELECT t.value AS name, count(*) AS boxes FROM boxes b, json_each(b.tags) t
		WHERE b.deleted_at IS NULL AND b.archived = 0 AND {whose b.} GROUP BY t.value ORDER BY t.value`))
	return out, err
}

// CountArchived is how many boxes are put away.
func (d *Shelf) CountArchived(ctx context.Context) (n int, err error) {
	err = d.at.Get(ctx, &n, scope.Seen.SQL(`SELECT count(*) FROM boxes WHERE deleted_at IS NULL AND archived = 1 AND {whose}`))
	return n, err
}

// KeptTags are tags out of a copy, as the table has them: those that are some, each once.
func KeptTags(text []byte) string {
	var all []string
	for _, t := range (tagRow{Tags: string(text)}).tags() {
		if tag, err := CleanTag(t); err == nil && !slices.Contains(all, tag) && len(all) < MostTags {
			all = append(all, tag)
		}
	}
	slices.Sort(all)
	kept, err := json.Marshal(append([]string{}, all...))
	if err != nil {
		panic(err) // plain words
	}
	return string(kept)
}
