package batch

import (
	"testing"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/measure"
)

// Twelve people at three tables, a tenth to spare: four bags and one bag's pieces more
// to a table; every piece of a bag lies on the table's sheets five times.
func TestKits(t *testing.T) {
	in := design.New("Lidded", measure.In, "tray-lid")
	r, err := design.Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	items := []Item{{Inputs: in, Copies: 1, Made: r}}
	k, err := MakeKits(t.Context(), items, nil, 12, 3, 10)
	if err != nil {
		t.Fatal(err)
	}
	if k.PerTable != 4 || k.Spare != 1 || len(k.Bag) != len(r.Blanks) {
		t.Errorf("%d to a table, %d spare, %d in a bag", k.PerTable, k.Spare, len(k.Bag))
	}
	want, got := 0, 0
	for _, b := range r.Blanks {
		want += 5 * b.Copies
	}
	for _, s := range k.Stocks {
		for _, l := range s.Layout.Sheets {
			got += len(l.Placed)
		}
	}
	if got != want {
		t.Errorf("%d pieces on a table's sheets, not %d", got, want)
	}
	if uneven, err := MakeKits(t.Context(), items, nil, 10, 4, 0); err != nil || uneven.PerTable != 3 || uneven.Spare != 0 {
		t.Errorf("ten at four tables: %+v, %v", uneven, err)
	}
	for field, f := range map[string]func() error{
		"people": func() error { _, err := MakeKits(t.Context(), items, nil, 0, 1, 0); return err },
		"tables": func() error { _, err := MakeKits(t.Context(), items, nil, 3, 4, 0); return err },
		"spare":  func() error { _, err := MakeKits(t.Context(), items, nil, 3, 1, 101); return err },
	} {
		if err := f(); err == nil || fault.Of(err).Field != field {
			t.Errorf("%s: %v", field, err)
		}
	}
}
