package logbook

import (
	"encoding/csv"
	"math"
	"reflect"
	"strings"
	"testing"
	"time"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
)

var day = time.Date(2026, 12, 5, 18, 0, 0, 123e6, time.UTC)

var some = []Note{
	{Made: day, Name: "Jars", Style: "tray-lid", Card: "+Oat card", Remember: "wedge more", Minutes: 42.5, Design: []byte("{}"), Felt: []Felt{
		{Pair: "Lid over base, length", Kind: "lid", Card: "'=Oat, 240 gsm", Gap: -930 * measure.Micrometre, Felt: fit.Tight},
		{Pair: "Lid over base, width", Kind: "lid", Card: "Oat, 240 gsm", Gap: 1600 * measure.Micrometre, Felt: fit.Easy},
	}},
	{Made: day, Name: "Tray", Design: []byte("{}")},
}

func TestWriteCSV(t *testing.T) {
	rows, err := csv.NewReader(strings.NewReader(string(WriteCSV(some)))).ReadAll()
	if err != nil || len(rows) != 4 {
		t.Fatalf("%d rows, %v", len(rows), err)
	}
	if got := strings.Join(rows[1], "|"); got != "2026-12-05T18:00:00.123Z|Jars|tray-lid|'+Oat card|42.5|Lid over base, length|lid|''=Oat, 240 gsm|-0.93|tight|wedge more" {
		t.Error(got)
	}
	if got := strings.Join(rows[3], "|"); got != "2026-12-05T18:00:00.123Z|Tray|||||||||" {
		t.Error(got)
	}
}

// What is taken along is what is brought in, from either file.
func TestNotesThereAndBack(t *testing.T) {
	for name, text := range map[string][]byte{"CSV": WriteCSV(some), "JSON": WriteJSON(some)} {
		got, faults := ReadFile(text)
		if len(faults) > 0 || !reflect.DeepEqual(got, some) {
			t.Errorf("%s: %+v, %v", name, got, faults)
		}
	}
	for text, says := range map[string]string{
		"":                                      "heading row",
		"made,box\n":                            "no note",
		"made,box\nyesterday,Jars":              "is not a day",
		"box\nJars":                             "on which day",
		"made\n2026-12-05":                      "which box",
		"made,box,felt\n2026-12-05,Jars,wobbly": "how a fit feels",
		"made,box,minutes\n2026-12-05,Jars,-3":  "minutes",
		`{"brevium":2,"notes":[]}`:              "format 2",
		`{"brevium":1,"notes":[]}`:              "no note",
		`{"brevium":1,"notes":[{"made":"2026-12-05","name":"Jars","felt":[{"fit":"x","gap":1e9,"felt":"snug"}]}]}`: "gap",
		`{"brevium":1,"notes":[{"made":"2026-12-05","name":"Jars","fitting":[]}]}`:                                 "fitting",
	} {
		if _, faults := ReadFile([]byte(text)); len(faults) == 0 || !strings.Contains(faults[0].Error(), says) {
			t.Errorf("%q: %v", text, faults)
		}
	}
}

func TestSearch(t *testing.T) {
	for search, want := range map[string]bool{"": true, "jars": true, "OAT wedge": true, "honey": true, "lift-off tight": true, "moss": false, "jars moss": false} {
		if got := some[0].Matches(search, "Base and lift-off lid", []string{"honey jars"}); got != want {
			t.Errorf("%q: %v", search, got)
		}
	}
}

// Whatever is brought in, there is no crash, and what is taken is a note that can be.
func FuzzReadFile(f *testing.F) {
	f.Add(string(WriteCSV(some)))
	f.Add(string(WriteJSON(some)))
	f.Fuzz(func(t *testing.T, text string) {
		notes, faults := ReadFile([]byte(text))
		if len(faults) > 0 {
			return
		}
		for _, n := range notes {
			if err := n.dated(); err != nil {
				t.Errorf("%q: %v", text, err)
			}
		}
		Learn([][]Felt{notes[0].Felt})
	})
}

// By hand: twice as slow three times is drawn to 2^(3/6) = 1.41 times; once, or half
// fast and half slow, is as usual; one who went away for an hour counts as thrice.
func TestPace(t *testing.T) {
	slow := Took{"score", 90, 45}
	paces := Paces([]Took{slow, slow, slow, {"glue", 200, 90}, {"fold", 30, 60}, {"fold", 120, 60}, {"cut", 40, 40}, {"cut", 3600, 40}})
	if got := paces["score"]; math.Abs(got.Times-math.Sqrt2) > 1e-9 || got.Notes != 3 {
		t.Errorf("slow: %+v", got)
	}
	if _, known := paces["glue"]; known {
		t.Error("one note changes the pace")
	}
	if got := paces["fold"].Times; math.Abs(got-1) > 1e-9 {
		t.Errorf("half and half: %v", got)
	}
	if got, want := paces["cut"].Times, math.Exp(math.Log(3)/2*2/5); math.Abs(got-want) > 1e-9 {
		t.Errorf("away: %v, not %v", got, want)
	}
	if got := Of(paces, "score", 100); math.Abs(got-100*math.Sqrt2) > 1e-9 || Of(paces, "glue", 100) != 100 {
		t.Errorf("a hundred seconds take %v", got)
	}
}

func TestNotesThatCannotBe(t *testing.T) {
	for field, n := range map[string]Note{
		"remember": {Remember: strings.Repeat("x", LongestNote+1)},
		"felt1":    {Felt: []Felt{{Felt: fit.Snug}, {Felt: "wobbly"}}},
	} {
		if err := n.Check(); err == nil || fault.Of(err).Field != field {
			t.Errorf("%s: %v", field, err)
		}
	}
	n := Note{Felt: []Felt{{Pair: "Lid over base, length", Gap: 500 * measure.Micrometre, Felt: fit.Snug}}}
	if err := n.Check(); err != nil || n.Says()[0] != "Lid over base, length: snug, worked out 0.50 mm" {
		t.Errorf("%v, %v", n.Says(), err)
	}
}
