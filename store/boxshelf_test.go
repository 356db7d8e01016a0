package store

import (
	"fmt"
	"slices"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/store/boxshelf"
)

// Boxes are tagged, marked and put into the bin many at once; what was changed is told, so that
// just that can be taken back; tags and marks go along in a zip.
func TestManyBoxesAtOnce(t *testing.T) {
	s := fresh(t)
	ctx := t.Context()
	d := s.Of(ctx)
	var ids []int64
	for i := range 5 {
		id, err := d.Add(ctx, design.New(fmt.Sprint("Box ", i), measure.MM, "tray"))
		if err != nil {
			t.Fatal(err)
		}
		ids = append(ids, id)
	}
	is := func(what string, got []int64, err error, want ...int64) {
		t.Helper()
		if err != nil || !slices.Equal(got, want) {
			t.Errorf("%s: %v, %v; want %v", what, got, err, want)
		}
	}
	got, err := d.SetTag(ctx, "  Winter  Fair ", ids[:2], true)
	is("tagged", got, err, ids[:2]...)
	got, err = d.SetTag(ctx, "winter fair", ids[:3], true)
	is("tagged once more", got, err, ids[2])
	got, err = d.SetTag(ctx, "winter fair", ids[2:4], false)
	is("untagged", got, err, ids[2])
	got, err = d.SetMark(ctx, boxshelf.Favourite, []int64{ids[0], 99}, true)
	is("a favourite", got, err, ids[0])
	got, err = d.SetMark(ctx, boxshelf.Archived, ids[4:], true)
	is("put away", got, err, ids[4])
	list := func(l boxshelf.Listing) (names []string) {
		l.Count = 9
		boxes, _, err := d.List(ctx, l)
		if err != nil {
			t.Fatal(err)
		}
		for _, b := range boxes {
			names = append(names, b.Name)
		}
		return names
	}
	if all := list(boxshelf.Listing{Order: boxshelf.ByName}); !slices.Equal(all, []string{"Box 0", "Box 1", "Box 2", "Box 3"}) {
		t.Errorf("listed: %v", all)
	}
	if all := list(boxshelf.Listing{}); all[0] != "Box 0" {
		t.Errorf("a favourite does not stand first: %v", all)
	}
	if all := list(boxshelf.Listing{Tag: "winter fair", Order: boxshelf.ByName}); !slices.Equal(all, []string{"Box 0", "Box 1"}) {
		t.Errorf("by tag: %v", all)
	}
	if all := list(boxshelf.Listing{Archived: true}); !slices.Equal(all, []string{"Box 4"}) {
		t.Errorf("put away: %v", all)
	}
	if all := list(boxshelf.Listing{Words: []boxshelf.Word{{Text: "fair"}}}); len(all) != 2 {
		t.Errorf("looked for by tag: %v", all)
	}
	if tags, err := d.Tags(ctx); err != nil || len(tags) != 1 || tags[0] != (boxshelf.Tag{Name: "winter fair", Boxes: 2}) {
		t.Errorf("tags: %v, %v", tags, err)
	}
	if n, err := d.CountArchived(ctx); n != 1 || err != nil {
		t.Errorf("%d put away, %v", n, err)
	}
	got, err = d.DeleteBoxes(ctx, ids[:2])
	is("deleted", got, err, ids[:2]...)
	got, err = d.BringBoxes(ctx, ids)
	is("brought back", got, err, ids[:2]...)
	for _, bad := range []string{"", "a, b", "<b>", "a tag that is far longer than any tag is to be"} {
		if got, err := d.SetTag(ctx, bad, ids, true); err == nil || got != nil {
			t.Errorf("%q is taken as a tag", bad)
		}
	}
	if _, err := d.SetTag(ctx, "x", nil, true); err == nil {
		t.Error("no box is tagged")
	}
	for i := range boxshelf.MostTags {
		_, err = d.SetTag(ctx, fmt.Sprint("t", i), ids[:1], true)
	}
	if b, _ := d.Box(ctx, ids[0]); err == nil || len(b.Tags) != boxshelf.MostTags {
		t.Errorf("it has %d tags, %v", len(b.Tags), err)
	}
	if got := boxshelf.KeptTags([]byte(`["B","a","a","x,y"]`)); got != `["a","b"]` || boxshelf.KeptTags([]byte(`{`)) != "[]" {
		t.Errorf("out of a copy: %s", got)
	}
}
