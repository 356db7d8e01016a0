package store

import (
	"context"
	"errors"
	"math/rand/v2"
	"testing"
	"time"

	"brevium/core/contents"
	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/core/sample"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/roster"
)

// joined lets somebody in as a maker, or the steward, and gives a context of theirs.
func joined(t *testing.T, s *Store, name string, kind roster.CodeFor) context.Context {
	t.Helper()
	code, err := s.Of(t.Context()).NewCode(t.Context(), roster.Code{For: kind, Role: people.Maker, Until: time.Now().Add(time.Hour)})
	if err != nil {
		t.Fatal(err)
	}
	p, err := s.Of(t.Context()).Join(t.Context(), code.Text, name, "hash")
	if err != nil {
		t.Fatal(err)
	}
	return people.With(t.Context(), p)
}

// In a workshop everything is of the person who asks, or shared: whatever is done with the
// number of somebody else's, it is not there.
func TestWhose(t *testing.T) {
	s := fresh(t)
	in := design.New("Jars", measure.In, "tray-lid")
	before, err := s.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Workshop(t.Context(), people.NewPepper()); err != nil {
		t.Fatal(err)
	}
	wren, ash, rowan := joined(t, s, "Wren", roster.ForSetUp), joined(t, s, "Ash", roster.ForJoining), joined(t, s, "Rowan", roster.ForJoining)
	if b, err := s.Of(wren).Box(wren, before); err != nil || b.Name != "Jars" {
		t.Errorf("what was made alone is not the steward's: %v", err)
	}
	id, err := s.Of(ash).Add(ash, in)
	if err != nil {
		t.Fatal(err)
	}
	job, err := s.Of(ash).AddJob(ash, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: id, Copies: 2}}})
	if err != nil {
		t.Fatal(err)
	}
	if err := errors.Join(s.Of(ash).KeepThing(ash, contents.Thing{Name: "owl", Shape: contents.Block, Length: 1, Width: 1, Height: 1}), s.Of(rowan).KeepThing(rowan, contents.Thing{Name: "owl", Shape: contents.Block, Length: 1, Width: 1, Height: 1}),
		s.Of(ash).AddNote(ash, logbook.Note{Box: id, Name: "Jars", Style: "tray-lid", Card: "card", Design: []byte("{}"), Made: time.Now()})); err != nil {
		t.Fatal(err)
	}
	box, _ := s.Of(ash).Box(ash, id)
	of, _ := s.Of(ash).Job(ash, job)
	notes, _ := s.Of(ash).Notes(ash)
	// Each of these is refused to others, and to nobody.
	deeds := map[string]func(ctx context.Context) error{
		"read": func(ctx context.Context) error { _, err := s.Of(ctx).Box(ctx, id); return err },
		"save": func(ctx context.Context) error {
			return s.Of(ctx).Save(ctx, id, in, boxshelf.Edit{From: box.Version, What: "x"})
		},
		"state":   func(ctx context.Context) error { _, _, err := s.Of(ctx).State(ctx, id, box.Version, ""); return err },
		"undo":    func(ctx context.Context) error { return s.Of(ctx).Undo(ctx, id, 1, "") },
		"copy":    func(ctx context.Context) error { _, err := s.Of(ctx).Copy(ctx, id); return err },
		"tick":    func(ctx context.Context) error { return s.Of(ctx).Tick(ctx, id, "a", "b", true) },
		"stand":   func(ctx context.Context) error { return s.Of(ctx).Stand(ctx, id, boxshelf.Stand{At: 1}) },
		"job":     func(ctx context.Context) error { _, err := s.Of(ctx).Job(ctx, job); return err },
		"saveJob": func(ctx context.Context) error { return s.Of(ctx).SaveJob(ctx, of, "") },
		"jobWas":  func(ctx context.Context) error { _, _, err := s.Of(ctx).JobState(ctx, job, of.Version, ""); return err },
		"begin":   func(ctx context.Context) error { return s.Of(ctx).BeginJob(ctx, job, nil, []cupboard.Need{}) },
		"release": func(ctx context.Context) error { return s.Of(ctx).ReleaseJob(ctx, job) },
		"layouts": func(ctx context.Context) error { return s.Of(ctx).SaveLayouts(ctx, job, []byte("{}")) },
		"evening": func(ctx context.Context) error { _, err := s.Of(ctx).Evenings(ctx, job, new(any)); return err },
		"done":    func(ctx context.Context) error { return s.Of(ctx).SetDone(ctx, job, "x", 1) },
		"goods":   func(ctx context.Context) error { _, err := s.Of(ctx).JobGoods(ctx, job); return err },
	}
	mine := map[string]func(ctx context.Context) error{ // though it is shared
		"delete":    func(ctx context.Context) error { return s.Of(ctx).Delete(ctx, id) },
		"deleteJob": func(ctx context.Context) error { return s.Of(ctx).DeleteJob(ctx, job) },
		"share":     func(ctx context.Context) error { return s.Of(ctx).Share(ctx, desk.BoxSort, id, true) },
		"shareJob":  func(ctx context.Context) error { return s.Of(ctx).Share(ctx, desk.JobSort, job, true) },
		"note":      func(ctx context.Context) error { _, err := s.Of(ctx).LoggedNote(ctx, notes[0].ID); return err },
		"dropNote":  func(ctx context.Context) error { return s.Of(ctx).DropNote(ctx, notes[0].ID) },
		"forget":    func(ctx context.Context) error { return s.Of(ctx).Forget(ctx, desk.JobSort, job) },
	}
	nobody := t.Context()
	for who, ctx := range map[string]context.Context{"the steward": wren, "another": rowan, "nobody": nobody} {
		for _, all := range []map[string]func(context.Context) error{deeds, mine} {
			for name, do := range all {
				if err := do(ctx); err == nil {
					t.Errorf("%s does %q with Ash's", who, name)
				}
			}
		}
		if list, n, _ := s.Of(ctx).List(ctx, boxshelf.Listing{Count: 10}); n > 1 || who != "the steward" && len(list) > 0 {
			t.Errorf("%s lists %d boxes", who, n)
		}
		if ticks, _ := s.Of(ctx).Ticks(ctx, id); len(ticks) > 0 {
			t.Errorf("%s sees ticks", who)
		}
	}
	if things, _ := s.Of(rowan).Things(rowan); len(things) != 1 {
		t.Errorf("another has %d things", len(things))
	}
	// Numbers of others are not found by trying.
	for range sample.Of(t, 10_000) {
		if _, err := s.Of(rowan).Box(rowan, rand.Int64N(1<<52)); err == nil {
			t.Fatal("a number at random is a box")
		}
	}
	if err := s.Of(ash).Share(ash, desk.JobSort, job, true); err != nil { // its box too
		t.Fatal(err)
	}
	for name, do := range deeds {
		if err := do(rowan); name != "undo" && name != "release" && name != "begin" && name != "save" && name != "saveJob" && name != "layouts" && err != nil {
			t.Errorf("shared, another cannot do %q: %v", name, err)
		}
		if err := do(nobody); err == nil {
			t.Errorf("shared, nobody does %q", name)
		}
	}
	for name, do := range mine {
		if err := do(rowan); err == nil {
			t.Errorf("shared, another does %q", name)
		}
	}
	if list, n, err := s.Of(rowan).List(rowan, boxshelf.Listing{Count: 10}); err != nil || n != 2 || len(list) != 2 { // it, and a copy made of it
		t.Errorf("another lists %d: %v", n, err)
	}
	if err := errors.Join(s.Of(ash).Share(ash, desk.BoxSort, id, false), s.Of(ash).Share(ash, desk.JobSort, job, false)); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Of(rowan).Box(rowan, id); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("kept again, another sees it: %v", err)
	}
	must(t, s.Of(ash).Share(ash, desk.BoxSort, id, true))
	b, err := s.Of(rowan).Box(rowan, id)
	must(t, err)
	in.Name = "Other jars"
	must(t, s.Of(rowan).Save(rowan, id, in, boxshelf.Edit{From: b.Version, What: "name"}))
	if b, err := s.Of(ash).Box(ash, id); err != nil || b.Last.By != "Rowan" || b.Last.What != "name" {
		t.Errorf("the change is %+v, %v", b.Last, err)
	}
	// A setting is one's own, and until then that of who was here before.
	s.shop.Store(false)
	if err := s.Of(t.Context()).Set(t.Context(), "rate", 5); err != nil {
		t.Fatal(err)
	}
	s.shop.Store(true)
	if err := s.Of(ash).Set(ash, "rate", 7); err != nil {
		t.Fatal(err)
	}
	hers, other := 0, 0
	s.Of(ash).Setting(ash, "rate", &hers)
	s.Of(rowan).Setting(rowan, "rate", &other)
	if hers != 7 || other != 5 {
		t.Errorf("the rate is %d, and another's %d", hers, other)
	}
	// And back: one maker alone has everything.
	s.shop.Store(false)
	if all, err := s.Of(t.Context()).Boxes(t.Context()); err != nil || len(all) < 3 {
		t.Errorf("alone there are %d boxes: %v", len(all), err)
	}
}

// What is one's own is taken along, and when one leaves handed over or deleted; a name is
// nowhere left.
func TestLeaving(t *testing.T) {
	s := fresh(t)
	s.shop.Store(true)
	as := map[string]context.Context{}
	for _, name := range []string{"Wren", "Ash", "Rowan"} {
		kind := roster.ForJoining
		if name == "Wren" {
			kind = roster.ForSetUp
		}
		code, _ := s.Of(t.Context()).NewCode(t.Context(), roster.Code{For: kind, Role: people.Maker, Until: time.Now().Add(time.Hour)})
		p, err := s.Of(t.Context()).Join(t.Context(), code.Text, name, "hash")
		if err != nil {
			t.Fatal(err)
		}
		as[name] = people.With(t.Context(), p)
		if _, err := s.Of(as[name]).Add(as[name], design.New(name+"'s jars", measure.In, "tray-lid")); err != nil {
			t.Fatal(err)
		}
		if err := errors.Join(s.Of(as[name]).Set(as[name], "rate", name), s.Of(t.Context()).AddEvent(t.Context(), roster.Event{What: "joined", Person: name})); err != nil {
			t.Fatal(err)
		}
	}
	own, err := s.Of(as["Ash"]).Own(as["Ash"])
	if err != nil || len(own.Boxes) != 1 || own.Boxes[0].Name != "Ash's jars" || len(own.Settings) != 1 || string(own.Settings["rate"]) != `"Ash"` || len(own.Things) != 0 {
		t.Errorf("Ash takes %+v, %v", own, err)
	}
	if all, err := s.Of(t.Context()).All(t.Context()); err != nil || len(all.Boxes) != 3 {
		t.Errorf("all are %d boxes, %v", len(all.Boxes), err)
	}
	wren := people.Of(as["Wren"]).ID
	if to, err := s.Of(t.Context()).Steward(t.Context(), 0); err != nil || to != wren {
		t.Errorf("%d is the steward: %v", to, err)
	}
	if err := s.Of(t.Context()).Leave(t.Context(), wren, 0); err == nil {
		t.Error("the last steward leaves")
	}
	if err := errors.Join(s.Of(t.Context()).Leave(t.Context(), people.Of(as["Ash"]).ID, wren), s.Of(t.Context()).Leave(t.Context(), people.Of(as["Rowan"]).ID, 0)); err != nil {
		t.Fatal(err)
	}
	if boxes, err := s.Of(as["Wren"]).Boxes(as["Wren"]); err != nil || len(boxes) != 2 {
		t.Errorf("the steward has %d boxes, %v", len(boxes), err)
	}
	s.shop.Store(false)
	if boxes, _ := s.Of(t.Context()).Boxes(t.Context()); len(boxes) != 2 {
		t.Errorf("%d boxes are left", len(boxes))
	}
	all, _ := s.Of(t.Context()).All(t.Context())
	for name := range all.Settings {
		if name != "@1/rate" {
			t.Errorf("the setting %s is left", name)
		}
	}
	events, err := s.Of(t.Context()).Events(t.Context(), "", 10)
	must(t, err)
	for _, e := range events {
		if e.Person == "Ash" || e.Person == "Rowan" {
			t.Errorf("%+v is left", e)
		}
	}
}

// Who has as many as one may in a workshop is told, and others are not kept from it; alone
// there is no such limit.
func TestAsManyAsOneMay(t *testing.T) {
	s := fresh(t)
	defer func(was map[string]int) { desk.Most = was }(desk.Most)
	desk.Most = map[string]int{"boxes": 2, "jobs": 1, "things": 1, "notes": 1}
	in := design.New("Jars", measure.In, "tray-lid")
	id, err := s.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	deeds := map[string]func(ctx context.Context) error{
		"boxes": func(ctx context.Context) error { _, err := s.Of(ctx).Add(ctx, in); return err },
		"jobs": func(ctx context.Context) error {
			_, err := s.Of(ctx).AddJob(ctx, jobbook.Job{Name: "Fair"})
			return err
		},
		"notes": func(ctx context.Context) error {
			return s.Of(ctx).AddNote(ctx, logbook.Note{Box: id, Name: "Jars", Style: "tray-lid", Card: "card", Design: []byte("{}"), Made: time.Now()})
		},
		"things": func(ctx context.Context) error {
			return s.Of(ctx).KeepThing(ctx, contents.Thing{Name: "owl", Shape: contents.Block, Length: 1, Width: 1, Height: 1})
		},
	}
	for range 4 {
		for name, do := range deeds {
			if err := do(t.Context()); err != nil {
				t.Errorf("alone, %s: %v", name, err)
			}
		}
	}
	s.shop.Store(true)
	ash, rowan := people.With(t.Context(), people.Person{ID: 7}), people.With(t.Context(), people.Person{ID: 8})
	for name, do := range deeds {
		for n := range desk.Most[name] {
			if err := do(ash); err != nil {
				t.Errorf("%s, the %d. time: %v", name, n+1, err)
			}
		}
		if err := do(ash); fault.Of(err).Code != fault.TooLarge {
			t.Errorf("one too many of %s: %v", name, err)
		}
		if err := do(rowan); err != nil {
			t.Errorf("another's %s: %v", name, err)
		}
	}
}

// A job that is shared shares its maker's boxes, and no box of another that it makes.
func TestASharedJobSharesOnesOwnBoxes(t *testing.T) {
	s := fresh(t)
	must(t, s.Workshop(t.Context(), people.NewPepper()))
	joined(t, s, "Wren", roster.ForSetUp)
	ash, rowan, fern := joined(t, s, "Ash", roster.ForJoining), joined(t, s, "Rowan", roster.ForJoining), joined(t, s, "Fern", roster.ForJoining)
	in := design.New("Jars", measure.In, "tray-lid")
	hers, err := s.Of(ash).Add(ash, in)
	must(t, err)
	his, err := s.Of(rowan).Add(rowan, in)
	must(t, err)
	job, err := s.Of(ash).AddJob(ash, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: hers, Copies: 1}, {Box: his, Copies: 1}}})
	must(t, err)
	must(t, s.Of(ash).Share(ash, desk.JobSort, job, true))
	j, err := s.Of(ash).Job(ash, job)
	must(t, err)
	must(t, s.Of(ash).SaveJob(ash, j, ""))
	if _, err := s.Of(fern).Box(fern, hers); err != nil {
		t.Errorf("her box is not shared with her job: %v", err)
	}
	for name, ctx := range map[string]context.Context{"Ash": ash, "Fern": fern} {
		if _, err := s.Of(ctx).Box(ctx, his); !errors.Is(err, desk.ErrNotFound) {
			t.Errorf("%s sees Rowan's box by Ash's job: %v", name, err)
		}
	}
}
