package logbook

import (
	"encoding/csv"
	"strings"
	"testing"
	"time"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
)

func TestWriteCSV(t *testing.T) {
	day := time.Date(2026, 12, 5, 18, 0, 0, 0, time.UTC)
	text := WriteCSV([]Note{
		{Made: day, Name: "Jars", Style: "tray-lid", Card: "+Oat card", Remember: "wedge more", Felt: []Felt{{Pair: "Lid over base, length", Gap: 930 * measure.Micrometre, Felt: fit.Tight}, {Pair: "Lid over base, width", Gap: 1600 * measure.Micrometre, Felt: fit.Easy}}},
		{Made: day, Name: "Tray"},
	})
	rows, err := csv.NewReader(strings.NewReader(string(text))).ReadAll()
	if err != nil || len(rows) != 4 {
		t.Fatalf("%d rows, %v", len(rows), err)
	}
	if got := strings.Join(rows[1], "|"); got != "2026-12-05|Jars|tray-lid|'+Oat card|Lid over base, length|0.93|tight|wedge more" {
		t.Error(got)
	}
	if got := strings.Join(rows[3], "|"); got != "2026-12-05|Tray||||||" {
		t.Error(got)
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
