package design

import (
	"slices"
	"strings"
	"testing"

	"brevium/core/inspect"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/style"
)

// severalRooms are the styles with several equal rooms as they are usual.
func severalRooms(t *testing.T) []*style.Style {
	t.Helper()
	var out []*style.Style
	for _, s := range style.Boxes() {
		if r, err := Sketch(New("x", measure.MM, s.ID)); err == nil && r.Box.Room.Times > 1 {
			out = append(out, s)
		}
	}
	return out
}

// A list names the fronts and what goes in; labels that count say one after another, and the box is told
// to be filled by the list.
func TestRoomsAreFilledByTheirList(t *testing.T) {
	t.Parallel()
	numbered := 0
	for _, s := range severalRooms(t) {
		in := New("Tales", measure.MM, s.ID)
		in.Each = []string{"bell", "3 Dec: ribbon", "mint"}
		r := make_(t, in)
		all := r.Listed()
		if len(all) != r.Box.Room.Times || all[0].Front != "1" || all[1].Front != "3 Dec" || all[2].Thing != "mint" || len(all) > 3 && all[3].Thing != "" {
			t.Errorf("%s: %+v", s.ID, all)
		}
		if list := r.ByList(); list != "1 bell; 3 Dec ribbon; 3 mint" {
			t.Errorf("%s: the list is %q", s.ID, list)
		}
		if !slices.ContainsFunc(stepsOf(r), func(x string) bool { return strings.Contains(x, "each by the list") }) {
			t.Errorf("%s: nothing tells to fill by the list: %q", s.ID, stepsOf(r))
		}
		l, can := r.Numbered()
		if !can {
			continue
		}
		numbered++
		in.Labels = []label.Label{l}
		r = make_(t, in)
		for n, want := range []string{"1", "3 Dec", "3"} {
			if got := r.LabelText(r.Inputs.Labels[0], n); len(got) != 1 || got[0] != want {
				t.Errorf("%s: the number %d says %q; want %q", s.ID, n, got, want)
			}
		}
		if got := r.LabelText(r.Inputs.Labels[0], EveryCopy); len(got) != 1 || got[0] != "1 to "+all[len(all)-1].Front {
			t.Errorf("%s: all say %q", s.ID, got)
		}
		for _, c := range r.Checks {
			if strings.HasPrefix(c.ID, "label") && c.Verdict != inspect.OK {
				t.Errorf("%s: %s: %s", s.ID, c.ID, c.Text)
			}
		}
	}
	if numbered < 2 {
		t.Errorf("%d styles have fronts to number; want the chest and the calendar", numbered)
	}
}

// One room has nothing to number, and {each} of a label there is its one line.
func TestOneRoomIsNotNumbered(t *testing.T) {
	t.Parallel()
	in := New("Tales", measure.MM, style.Usual().ID)
	in.Each = []string{"bell"}
	r := make_(t, in)
	if _, can := r.Numbered(); can {
		t.Error("a box with one room is numbered")
	}
	if got := r.LabelText(label.Label{Text: "{n}: {each}", Copies: 1}, 0); len(got) != 1 || got[0] != "1: bell" {
		t.Errorf("it says %q", got)
	}
}
