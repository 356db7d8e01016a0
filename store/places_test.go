package store

import (
	"context"
	"errors"
	"testing"

	"brevium/core/batch"
	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/roster"
)

// Two tables in one workshop: each has a drawer and a cupboard of its own, a job is cut from
// that of whoever begins it, and its offcuts lie there, whoever finishes it. One maker alone
// has all of it in one.
func TestTablesHaveDrawersOfTheirOwn(t *testing.T) {
	s := fresh(t)
	if err := s.Workshop(t.Context(), people.NewPepper()); err != nil {
		t.Fatal(err)
	}
	wren, ash, rowan := joined(t, s, "Wren", roster.ForSetUp), joined(t, s, "Ash", roster.ForJoining), joined(t, s, "Rowan", roster.ForJoining)
	sit := func(who context.Context, place string) {
		t.Helper()
		if err := s.Of(t.Context()).SetPlace(t.Context(), people.Of(who).ID, place); err != nil {
			t.Fatal(err)
		}
	}
	sit(ash, " Fair  stall ")
	sit(rowan, "fair stall") // the same table
	if p, err := s.Of(t.Context()).Person(t.Context(), people.Of(rowan).ID); err != nil || p.Place != "Fair stall" {
		t.Errorf("Rowan sits at %q, %v", p.Place, err)
	}
	sheets := lotOf(10, 0.5)
	glue := cupboard.Good{Kind: cupboard.Kinds[0], Name: "tape", Amount: 10}
	for _, who := range []context.Context{wren, ash} {
		if err := errors.Join(s.Of(who).AddLots(who, []drawer.Lot{sheets}), s.Of(who).SetGoods(who, []cupboard.Good{glue})); err != nil {
			t.Fatal(err)
		}
	}
	count := func(who context.Context) (n int, supply float64) {
		t.Helper()
		lots, err := s.Of(who).Lots(who)
		goods, wrong := s.Of(who).Goods(who)
		if err != nil || wrong != nil {
			t.Fatal(err, wrong)
		}
		for _, l := range lots {
			n += l.Count
		}
		for _, g := range goods {
			supply += g.Amount
		}
		return n, supply
	}
	for name, who := range map[string]context.Context{"Wren": wren, "Ash": ash, "Rowan": rowan} {
		if n, supply := count(who); n != 10 || supply != 10 {
			t.Errorf("%s has %d sheets and %v of tape", name, n, supply)
		}
	}
	if n, supply := count(t.Context()); n != 0 || supply != 0 {
		t.Errorf("nobody has %d sheets and %v of tape", n, supply)
	}
	theirs, err := s.Of(wren).Lots(wren)
	if err != nil || len(theirs) != 1 {
		t.Fatal(theirs, err)
	}
	other := theirs[0]
	if _, err := s.Of(ash).Lot(ash, other.ID); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("Ash sees a pile of another table: %v", err)
	}
	if err := s.Of(ash).SetLot(ash, other.ID, 0, 0); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("Ash takes a pile of another table out: %v", err)
	}
	if err := s.Of(wren).SetLot(wren, other.ID, 0, 0); err != nil {
		t.Fatal(err)
	}
	if all, err := s.Of(ash).Bin(ash); err != nil || len(all) != 0 {
		t.Errorf("Ash's bin has %v, %v", all, err)
	}
	if err := s.Of(ash).BringBack(ash, desk.PaperSort, other.ID); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("Ash brings it back: %v", err)
	}
	if err := s.Of(wren).BringBack(wren, desk.PaperSort, other.ID); err != nil {
		t.Fatal(err)
	}
	// Ash's job, shared, cannot be cut from Wren's table; Rowan begins it, Wren finishes it.
	box, err := s.Of(ash).Add(ash, design.New("Jars", measure.In, "tray-lid"))
	if err != nil {
		t.Fatal(err)
	}
	job, err := s.Of(ash).AddJob(ash, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: box, Copies: 2}}})
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Of(ash).Share(ash, desk.JobSort, job, true); err != nil {
		t.Fatal(err)
	}
	if err := s.Of(rowan).BeginJob(rowan, job, laidBy(t, wren, s, 2), nil); err == nil {
		t.Error("Rowan cuts the paper of another table")
	}
	stocks := laidBy(t, rowan, s, 2)
	used := batch.Takes(stocks)[0].Count
	if err := s.Of(rowan).BeginJob(rowan, job, stocks, []cupboard.Need{{Kind: glue.Kind, Name: glue.Name, Amount: 3}}); err != nil {
		t.Fatal(err)
	}
	offcut := sheets
	offcut.Offcut, offcut.Count, offcut.From = true, 1, "Fair"
	if err := s.Of(wren).FinishJob(wren, job, []drawer.Lot{offcut}); err != nil {
		t.Fatal(err)
	}
	if n, supply := count(ash); n != 11-used || supply != 7 {
		t.Errorf("at the stall %d sheets and %v of tape are left", n, supply)
	}
	if n, supply := count(wren); n != 10 || supply != 10 {
		t.Errorf("at the workshop's table %d sheets and %v of tape are left", n, supply)
	}
	if err := s.Of(wren).DropGood(wren, glue.Kind, glue.Name); err != nil {
		t.Fatal(err)
	}
	if _, supply := count(ash); supply != 7 {
		t.Errorf("another table's supply is gone: %v", supply)
	}
	if all, err := s.Of(t.Context()).Places(t.Context()); err != nil || len(all) != 2 || all[0] != "" || all[1] != "Fair stall" {
		t.Errorf("the tables are %q, %v", all, err)
	}
	if err := s.Of(t.Context()).SetPlace(t.Context(), people.Of(ash).ID, string(make([]byte, 99))); fault.Of(err).Code == fault.Internal {
		t.Errorf("a long name: %v", err)
	}
	s.shop.Store(false)
	if n, supply := count(t.Context()); n != 21-used || supply != 7 {
		t.Errorf("alone there are %d sheets and %v of tape", n, supply)
	}
	if err := s.Of(t.Context()).SetGoods(t.Context(), []cupboard.Good{glue}); err != nil {
		t.Fatal(err)
	}
	if _, supply := count(t.Context()); supply != 10 {
		t.Errorf("alone it is set to %v", supply)
	}
}
