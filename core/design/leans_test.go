package design

import (
	"strings"
	"testing"

	"brevium/core/fit"
	"brevium/core/measure"
)

// A lid in a card that runs 0.4 mm tighter is given the tick more that the notes ask
// for; the account says so in a line, and without the lesson all is as it was.
func TestALessonIsReckonedWith(t *testing.T) {
	t.Parallel()
	in := New("x", measure.MM, "tray-lid")
	plain, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	before, _ := plain.Tightest()
	lesson := fit.Lean{Card: in.Card.Label(), Kind: before.Pair.Kind.ID, By: -400 * measure.Micrometre, Notes: 5}
	learned := []fit.Lean{lesson, {Card: "Another card", Kind: "lid", By: lesson.By, Notes: 9}}
	if offered := plain.Lessons(learned); len(offered) != 1 || offered[0] != lesson {
		t.Errorf("offered: %+v", offered)
	}
	in.Reckon(lesson)
	r, err := Make(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	after, _ := r.Tightest()
	id := r.Style.Allowance.ID
	grown := r.Spec.Lengths[id] - plain.Spec.Lengths[id]
	want := measure.Length(0)
	if fit.Judge(before.Gap+lesson.By) != in.Fit {
		want = measure.Millimetre / 2
	}
	if grown != want || after.Gap != before.Gap+lesson.By+grown || after.Leant != lesson.By {
		t.Errorf("the lid grows by %v mm, its gap from %v to %v mm", grown.MM(), before.Gap.MM(), after.Gap.MM())
	}
	if last := after.Lines[len(after.Lines)-1]; !strings.Contains(last.Text, "runs 0.4 mm tighter: 5 notes") || last.Amount != lesson.By {
		t.Errorf("the account ends with %+v", last)
	}
	if len(r.Lessons(learned)) != 0 || len(r.Reckoned()) != 1 {
		t.Errorf("offered again: %v, reckoned with: %v", r.Lessons(learned), r.Reckoned())
	}
	again, err := Read(in.Write())
	if err != nil || len(again.Leans) != 1 || again.Leans[0] != lesson {
		t.Errorf("the file gives %+v, %v", again.Leans, err)
	}
	lesson.By = 0
	in.Reckon(lesson)
	aside, err := Make(t.Context(), in)
	if err != nil || aside.Spec.Lengths[id] != plain.Spec.Lengths[id] || len(aside.Inputs.Leans) != 0 {
		t.Errorf("set aside, the lid is bigger by %v, %v", aside.Spec.Lengths[id].MM(), err)
	}
	for _, bad := range []string{`{"card":"x","fit":"lid","way":"looser","by":3,"notes":2}`, `{"card":"x","fit":"lid","way":"looser","by":0.2,"notes":0}`, `{"card":"x","fit":"lid","way":"sideways","by":0.2,"notes":2}`} {
		text := strings.Replace(string(in.Write()), `"fit":`, `"leans": [`+bad+`], "fit":`, 1)
		if _, err := Read([]byte(text)); err == nil || !strings.Contains(err.Error(), "leans") && !strings.Contains(err.Error(), "note") {
			t.Errorf("%s is read: %v", bad, err)
		}
	}
}
