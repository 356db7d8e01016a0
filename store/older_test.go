package store

import (
	"database/sql"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/store/desk"
	"brevium/store/jobbook"
)

// Databases that earlier versions wrote, with the demo boxes of their day,
// open as they were: every box reads and can be worked out, and every job's
// record can be read.
func TestDatabasesOfEarlierVersionsOpen(t *testing.T) {
	names, err := filepath.Glob("testdata/*.db")
	if err != nil || len(names) < 3 {
		t.Fatalf("%d databases, %v", len(names), err)
	}
	for _, name := range names {
		t.Run(filepath.Base(name), func(t *testing.T) {
			text, err := os.ReadFile(name)
			if err != nil {
				t.Fatal(err)
			}
			path := filepath.Join(t.TempDir(), "brevium.db")
			if err := os.WriteFile(path, text, 0o600); err != nil {
				t.Fatal(err)
			}
			s, err := Open(t.Context(), path)
			if err != nil {
				t.Fatal(err)
			}
			defer s.Close()
			boxes, err := s.Of(t.Context()).Boxes(t.Context())
			if err != nil || len(boxes) < 11 {
				t.Fatalf("%d boxes, %v", len(boxes), err)
			}
			for _, b := range boxes {
				r, err := design.Make(t.Context(), b.Inputs)
				if err != nil {
					t.Errorf("%s: %v", b.Name, err)
					continue
				}
				for i, p := range r.Parts {
					if p.Pattern.Width <= 0 || len(r.Scores) <= i {
						t.Errorf("%s: %s has no blank or no scores", b.Name, p.ID)
					}
				}
			}
			jobs, err := s.Of(t.Context()).Jobs(t.Context())
			if err != nil {
				t.Fatal(err)
			}
			begun := 0
			for _, j := range jobs {
				if j.State == jobbook.Planned {
					continue
				}
				begun++
				stocks, err := batch.ReadStocks(j.Stocks)
				if err != nil {
					t.Errorf("%s: %v", j.Name, err)
				}
				for _, x := range batch.Takes(stocks) {
					if x.Sheet.Name == "" || strings.Contains(x.Sheet.Name, " (") {
						t.Errorf("%s: a sheet is called %q", j.Name, x.Sheet.Name)
					}
				}
			}
			if len(jobs) > 0 && begun == 0 {
				t.Error("no job was begun, so that no record was read")
			}
		})
	}
}

// A box that was kept before something could be chosen of its style stays as it was made, and so
// do the states it can be taken back to; a new one is as is usual now.
func TestBoxesOfBefore(t *testing.T) {
	for _, c := range []struct {
		style, option, was string
		version            int64 // that could not choose
	}{{"tall-box", "seam", "front", 19}, {"arched-box", "base", "sides", 24}} {
		t.Run(c.style, func(t *testing.T) { staysAsItWas(t, c.style, c.option, c.was, c.version) })
	}
}

func staysAsItWas(t *testing.T, kept, option, was string, version int64) {
	path := filepath.Join(t.TempDir(), "brevium.db")
	s, err := Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	ids := map[string]int64{}
	for _, style := range []string{kept, "tray"} {
		if ids[style], err = s.Of(t.Context()).Add(t.Context(), design.New("Kept "+style, measure.In, style)); err != nil {
			t.Fatal(err)
		}
	}
	older(t, s, version)
	if s, err = Open(t.Context(), path); err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	for style, want := range map[string]string{kept: was, "tray": ""} {
		b, err := s.Of(t.Context()).Box(t.Context(), ids[style])
		if got := b.Inputs.Choices[option]; err != nil || b.Broken != nil || got != want {
			t.Errorf("a %s of before is %q: %v %v", style, got, err, b.Broken)
		}
	}
	id, err := s.Of(t.Context()).Add(t.Context(), design.New("New", measure.In, kept))
	if err != nil {
		t.Fatal(err)
	}
	if b, err := s.Of(t.Context()).Box(t.Context(), id); err != nil || b.Inputs.Choices[option] != "" {
		t.Errorf("a new one is %q, not as its style has it: %v", b.Inputs.Choices[option], err)
	}
}

// older closes a store whose tables are made those of an older version.
func older(t *testing.T, s *Store, version int64) {
	t.Helper()
	p, err := migrationsOf(s.write)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := p.DownTo(t.Context(), version); err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
}

// A link that an older version kept in plain leads where it did; the data hold it no more, and
// it cannot be shown.
func TestLinksOfBefore(t *testing.T) {
	path := filepath.Join(t.TempDir(), "brevium.db")
	s, err := Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	id, err := s.Of(t.Context()).Add(t.Context(), design.New("Jars", measure.In, "tray"))
	if err != nil {
		t.Fatal(err)
	}
	older(t, s, 20)
	db, err := sql.Open("sqlite", source(path))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := db.ExecContext(t.Context(), `UPDATE boxes SET link = 'abcdefghijklmnop'`); err != nil {
		t.Fatal(err)
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	s = open(t, path)
	if b, err := s.Of(t.Context()).Linked(t.Context(), "ABCDEFGHijklmnop"); err != nil || b.ID != id {
		t.Errorf("the link leads to %d, %v", b.ID, err)
	}
	if code, is, err := s.Of(t.Context()).Link(t.Context(), id); code != "" || !is || err != nil {
		t.Errorf("its page shows %q, %v, %v", code, is, err)
	}
	for _, nothing := range []string{"", "?", "abcdefghijklmno"} {
		if _, err := s.Of(t.Context()).Linked(t.Context(), nothing); !errors.Is(err, desk.ErrNotFound) {
			t.Errorf("%q leads to a box: %v", nothing, err)
		}
	}
}

// A paper that was kept before papers were rectangles stays cut in the shape of its face; one that
// was a rectangle stays one, and a new one is cut as makers do.
func TestPapersOfBefore(t *testing.T) {
	path := filepath.Join(t.TempDir(), "brevium.db")
	s, err := Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	in := design.New("Kept", measure.In, "wallet-box")
	layers := []dress.Layer{{Card: dress.Patterned, Border: dress.Even(measure.Inch / 8)}}
	in.Mats = []dress.Dressing{{ID: 1, Piece: "body", Faces: []string{"flap"}, Layers: layers}, {ID: 2, Piece: "body", Faces: []string{"front"}, Shape: dress.Square, Layers: layers}}
	id, err := s.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	plain, err := s.Of(t.Context()).Add(t.Context(), design.New("Plain", measure.In, "wallet-box"))
	if err != nil {
		t.Fatal(err)
	}
	older(t, s, 25)
	if s, err = Open(t.Context(), path); err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	b, err := s.Of(t.Context()).Box(t.Context(), id)
	if m := b.Inputs.Mats; err != nil || b.Broken != nil || len(m) != 2 || m[0].Shape != dress.FaceShaped || m[1].Shape != dress.Square {
		t.Errorf("papers of before are %+v: %v %v", m, err, b.Broken)
	}
	if b, err := s.Of(t.Context()).Box(t.Context(), plain); err != nil || b.Broken != nil || b.Inputs.Mats != nil {
		t.Errorf("a box without papers comes to %+v: %v %v", b.Inputs.Mats, err, b.Broken)
	}
}
