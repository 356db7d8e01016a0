package main

import (
	"fmt"
	"io/fs"
	"slices"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/store/storetest"
)

// The demo boxes show different choices, each dressed in its own way, and all are
// clean but the one kept to show a lid that fails.
func TestDemoBoxes(t *testing.T) {
	names, err := fs.Glob(demoFiles, "demo/*.json")
	if err != nil || len(names) < 6 {
		t.Fatalf("%d demo boxes, %v", len(names), err)
	}
	dressed := map[string]string{}
	for _, name := range names {
		text, err := demoFiles.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		in, err := design.Read(text)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		r, err := design.Make(t.Context(), in)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		dress := fmt.Sprint(in.AllCards(), in.Ribbons, in.Labels, in.Closures, in.Mats)
		if other, same := dressed[dress]; same {
			t.Errorf("%s is dressed like %s", name, other)
		}
		dressed[dress] = name
		want := inspect.OK
		if strings.Contains(name, "too-tight") {
			want = inspect.Fail
		}
		checks := slices.DeleteFunc(r.Checks, func(f inspect.Finding) bool { return f.ID == "magnet" }) // a caution goes with the box
		if got := inspect.Worst(checks); got != want {
			t.Errorf("%s is %s: %v", name, got, r.Checks)
		}
	}
}

func TestDemoIsLoadedOnce(t *testing.T) {
	s := storetest.Open(t)
	for range 2 {
		if err := loadDemo(t.Context(), s); err != nil {
			t.Fatal(err)
		}
	}
	all, err := s.Of(t.Context()).Boxes(t.Context())
	if err != nil || len(all) != 33 || !strings.HasPrefix(all[0].Name, "Four honey jars") {
		t.Errorf("%d boxes, %v", len(all), err)
	}
	lots, err := s.Of(t.Context()).Lots(t.Context())
	if err != nil || len(lots) != 16 {
		t.Errorf("%d piles in the drawer, %v", len(lots), err)
	}
	if jobs, err := s.Of(t.Context()).Jobs(t.Context()); err != nil || len(jobs) != len(demoJobs) {
		t.Errorf("%d jobs, %v", len(jobs), err)
	}
}
