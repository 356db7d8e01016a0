package store

import (
	"bytes"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"brevium/core/contents"
	"brevium/core/logbook"
	"brevium/core/people"
	"brevium/photo"
	"brevium/store/boxshelf"
	"brevium/store/jobbook"
	"brevium/store/roster"
)

// Of one who left, and had everything deleted, no word is left in the data, not even in what the
// file and its log no longer use: names, boxes and what they were before, things, notes, jobs,
// settings, pictures, passkeys, and what others did with their name at the door.
func TestNothingIsLeftOfWhoLeft(t *testing.T) {
	file := filepath.Join(t.TempDir(), "brevium.db")
	s := open(t, file)
	wren := joined(t, s, "Wren", roster.ForSetUp)
	leaver := joined(t, s, "Quillfeather", roster.ForJoining)
	must(t, s.Workshop(t.Context(), people.NewPepper()))
	mark := func(what string) string { return "Marchpane " + what }
	id, err := s.Of(leaver).Add(leaver, trayOf(mark("box"), 90*mm))
	must(t, err)
	b, err := s.Of(leaver).Box(leaver, id)
	must(t, err)
	must(t, s.Of(leaver).Save(leaver, id, trayOf(mark("renamed"), 90*mm), boxshelf.Edit{From: b.Version, What: mark("change")}))
	must(t, s.Of(leaver).KeepThing(leaver, contents.Thing{Name: mark("thing"), Shape: contents.Block, Length: 20 * mm, Width: 20 * mm, Height: 20 * mm, Count: 1}))
	must(t, s.Of(leaver).AddNote(leaver, logbook.Note{Box: id, Name: mark("note"), Style: "tray", Remember: mark("remembered"), Design: trayOf(mark("noted"), 90*mm).Write()}))
	_, err = s.Of(leaver).AddJob(leaver, jobbook.Job{Name: mark("job"), Items: []jobbook.JobItem{{Box: id, Copies: 2}}})
	must(t, err)
	must(t, s.Of(leaver).Set(leaver, "shelf", mark("setting")))
	must(t, s.Of(leaver).PutPhoto(leaver, photo.Picture{ID: fmt.Sprintf("%032x", 7), JPEG: []byte(mark("picture")), Wide: 1, High: 1}, false))
	must(t, s.Of(t.Context()).AddPasskey(t.Context(), roster.Passkey{ID: []byte("key"), Person: people.Of(leaver).ID, Key: []byte(`{"of":"` + mark("passkey") + `"}`)}))
	must(t, s.Of(t.Context()).AddEvent(t.Context(), roster.Event{What: "changed a person", Person: "Wren", Detail: "Quillfeather: a maker"}))
	must(t, s.Of(t.Context()).AddEvent(t.Context(), roster.Event{What: "signed in", Person: "Quillfeather"}))
	_, err = s.Of(t.Context()).NewCode(t.Context(), roster.Code{For: roster.ForRecover, Person: people.Of(leaver).ID, By: people.Of(wren).ID, Until: time.Now().Add(time.Hour)})
	must(t, err)
	in := func() (found []string) {
		for _, part := range []string{"", "-wal"} {
			data, err := os.ReadFile(file + part)
			if err != nil && !os.IsNotExist(err) {
				t.Fatal(err)
			}
			for _, word := range []string{"Marchpane", "Quillfeather"} {
				for rest := data; ; {
					at := bytes.Index(rest, []byte(word))
					if at < 0 {
						break
					}
					found = append(found, fmt.Sprintf("%s in %q: %q", word, part, rest[at:min(at+40, len(rest))]))
					rest = rest[at+1:]
				}
			}
		}
		return found
	}
	if len(in()) < 8 {
		t.Fatalf("only %q stand in the data before", in())
	}
	must(t, s.Of(t.Context()).Leave(t.Context(), people.Of(leaver).ID, 0))
	if left := in(); len(left) > 0 {
		t.Errorf("%d are left, such as %s", len(left), left[0])
	}
	if _, err := s.Of(t.Context()).Person(t.Context(), people.Of(wren).ID); err != nil {
		t.Errorf("Wren: %v", err)
	}
}
