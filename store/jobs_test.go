package store

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"testing"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/store/desk"
	"brevium/store/jobbook"
)

func lotOf(count int, price float64) drawer.Lot {
	l := drawer.Lot{
		Card:   paper.Card{Name: design.UsualCard.Name, GSM: design.UsualCard.GSM},
		Width:  300 * mm,
		Height: 300 * mm,
		Count:  count,
		Price:  price,
	}
	l.Complete()
	return l
}

// laid is a job of some trays on the store's lots.
func laid(t *testing.T, s *Store, copies int) []batch.Stock { return laidBy(t, t.Context(), s, copies) }

func laidBy(t *testing.T, who context.Context, s *Store, copies int) []batch.Stock {
	t.Helper()
	lots, err := s.Of(who).Lots(who)
	must(t, err)
	stocks, err := batch.Gather(t.Context(), []batch.Item{{Inputs: trayOf("t", 150*mm), Copies: copies}}, lots, batch.Choices{})
	must(t, err)
	for i := range stocks {
		must(t, stocks[i].Lay(t.Context(), batch.Quick))
	}
	return stocks
}

func inDrawer(t *testing.T, s *Store) string {
	t.Helper()
	lots, err := s.Of(t.Context()).Lots(t.Context())
	must(t, err)
	var out []string
	for _, l := range lots {
		out = append(out, fmt.Sprintf("%d-%d", l.Count, l.Reserved))
	}
	return strings.Join(out, " ")
}

func TestLotsLieOnTheirPile(t *testing.T) {
	s := fresh(t)
	must(t, s.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{lotOf(3, 0.8), lotOf(2, 0.8), lotOf(1, 0.9)}))
	if got := inDrawer(t, s); got != "5-0 1-0" {
		t.Errorf("the drawer holds %s; want one pile of 5 and one of another price", got)
	}
	bad := lotOf(1, 0.8)
	bad.Width = 0
	if err := s.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{lotOf(4, 0.8), bad}); err == nil || inDrawer(t, s) != "5-0 1-0" {
		t.Errorf("%v; the drawer holds %s", err, inDrawer(t, s))
	}
	must(t, s.Of(t.Context()).SetLot(t.Context(), 1, 2, 1.1))
	if l, err := s.Of(t.Context()).Lot(t.Context(), 1); err != nil || l.Count != 2 || l.Price != 1.1 || l.Card.Thickness != 300*measure.Micrometre {
		t.Errorf("%+v, %v", l, err)
	}
	if err := s.Of(t.Context()).SetLot(t.Context(), 99, 1, 1); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("a lot that is not there: %v", err)
	}
}

func TestAJobReservesTakesAndGivesBack(t *testing.T) {
	s := fresh(t)
	must(t, s.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{lotOf(5, 0.8)}))
	id, err := s.Of(t.Context()).AddJob(t.Context(), jobbook.Job{Name: "fair", Items: []jobbook.JobItem{{Box: 1, Copies: 3}}})
	must(t, err)
	stocks := laid(t, s, 3)
	must(t, s.Of(t.Context()).BeginJob(t.Context(), id, stocks, nil))
	took := batch.Takes(stocks)[0].Count
	if want := fmt.Sprintf("5-%d", took); inDrawer(t, s) != want {
		t.Errorf("begun, the drawer holds %s; want %s", inDrawer(t, s), want)
	}
	if err := s.Of(t.Context()).BeginJob(t.Context(), id, stocks, nil); !errors.Is(err, desk.ErrNoJob) {
		t.Errorf("begun twice: %v", err)
	}
	// A second job finds only what is free.
	other, err := s.Of(t.Context()).AddJob(t.Context(), jobbook.Job{Name: "other"})
	must(t, err)
	if err := s.Of(t.Context()).BeginJob(t.Context(), other, stocks, nil); err == nil || fault.Of(err).Code != fault.TooFew {
		t.Errorf("sheets reserved twice: %v", err)
	}
	if j, err := s.Of(t.Context()).Job(t.Context(), other); err != nil || j.State != jobbook.Planned {
		t.Errorf("a job that could not begin is %s, %v", j.State, err)
	}
	if err := s.Of(t.Context()).SaveJob(t.Context(), jobbook.Job{ID: id, Name: "changed"}, ""); err == nil {
		t.Errorf("a begun job was changed: %v", err)
	}
	kept := drawer.Kept(stocks[0].Card, stocks[0].Layout, "fair")
	must(t, s.Of(t.Context()).FinishJob(t.Context(), id, kept))
	if len(kept) == 0 || !strings.HasPrefix(inDrawer(t, s), fmt.Sprintf("%d-0 %d-0", 5-took, kept[0].Count)) {
		t.Errorf("finished with %d offcuts, the drawer holds %s", len(kept), inDrawer(t, s))
	}
	must(t, s.Of(t.Context()).UnfinishJob(t.Context(), id))
	if want := fmt.Sprintf("5-%d", took); inDrawer(t, s) != want {
		t.Errorf("undone, the drawer holds %s; want %s", inDrawer(t, s), want)
	}
	must(t, s.Of(t.Context()).ReleaseJob(t.Context(), id))
	if inDrawer(t, s) != "5-0" {
		t.Errorf("released, the drawer holds %s", inDrawer(t, s))
	}
	must(t, s.Of(t.Context()).BeginJob(t.Context(), id, stocks, nil))
	must(t, s.Of(t.Context()).FinishJob(t.Context(), id, kept))
	// An offcut that another job has reserved cannot be taken back.
	lots, err := s.Of(t.Context()).Lots(t.Context())
	must(t, err)
	_, err = s.db.Exec(`INSERT INTO job_lots (job_id, lot_id, count) VALUES (?, ?, 1)`, other, lots[len(lots)-1].ID)
	must(t, err)
	if err := s.Of(t.Context()).UnfinishJob(t.Context(), id); err == nil || fault.Of(err).Code != fault.InUse {
		t.Errorf("an offcut in use was taken back: %v", err)
	}
}

func TestWhatMustBeBoughtIsNotReserved(t *testing.T) {
	s := fresh(t)
	id, err := s.Of(t.Context()).AddJob(t.Context(), jobbook.Job{Name: "fair"})
	must(t, err)
	if err := s.Of(t.Context()).BeginJob(t.Context(), id, laid(t, s, 2), nil); err == nil || !strings.Contains(err.Error(), "must be bought first") {
		t.Errorf("got %v", err)
	}
}

func TestJobsComeBack(t *testing.T) {
	s := fresh(t)
	want := jobbook.Job{
		Name:  "fair",
		Items: []jobbook.JobItem{{Box: 4, Copies: 2}},
		Choices: batch.Choices{
			Stages: 2,
			Trim:   mm,
			Held:   []batch.Held{{Card: "oat/240/none", Sheet: "A4", Pieces: []batch.HeldPiece{{Piece: "p", X: mm, Turned: true}}}},
		},
	}
	id, err := s.Of(t.Context()).AddJob(t.Context(), want)
	must(t, err)
	got, err := s.Of(t.Context()).Job(t.Context(), id)
	must(t, err)
	if got.Name != want.Name || got.State != jobbook.Planned || len(got.Items) != 1 || got.Items[0] != want.Items[0] ||
		got.Choices.Held[0].Pieces[0] != want.Choices.Held[0].Pieces[0] ||
		got.Choices.Trim != mm {
		t.Errorf("the job came back as %+v", got)
	}
	must(t, s.Of(t.Context()).SaveLayouts(t.Context(), id, []byte(`{"a":1}`)))
	got.Name = "winter fair"
	got.Layouts = nil
	must(t, s.Of(t.Context()).SaveJob(t.Context(), got, ""))
	if all, err := s.Of(t.Context()).Jobs(t.Context()); err != nil || len(all) != 1 || all[0].Name != "winter fair" || string(all[0].Layouts) != "{}" {
		t.Errorf("%+v, %v", all, err)
	}
	must(t, s.Of(t.Context()).DeleteJob(t.Context(), id))
	for what, err := range map[string]error{
		"delete": s.Of(t.Context()).DeleteJob(t.Context(), id), "save": s.Of(t.Context()).SaveJob(t.Context(), got, ""), "layouts": s.Of(t.Context()).SaveLayouts(t.Context(), id, []byte("{}")),
		"finish": s.Of(t.Context()).FinishJob(t.Context(), id, nil), "unfinish": s.Of(t.Context()).UnfinishJob(t.Context(), id), "release": s.Of(t.Context()).ReleaseJob(t.Context(), id),
	} {
		if !errors.Is(err, desk.ErrNoJob) {
			t.Errorf("%s: got %v; want ErrNoJob", what, err)
		}
	}
}
