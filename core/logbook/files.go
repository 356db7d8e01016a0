package logbook

import (
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/rows"
	"brevium/core/strict"
)

// table is the columns of the CSV file, one row to each fit that was noted.
var table = rows.Table{
	Headings: []string{"made", "box", "style", "card", "minutes", "fit", "kind", "fit_card", "gap_mm", "felt", "remember"},
	Example:  "made,box,style,card,fit,kind,fit_card,gap_mm,felt",
	Empty:    "there is no note in this file; give each a row",
}

// WriteCSV gives notes as CSV under a row of headings; a note without fits has one
// row. The box itself and photographs are not in it.
func WriteCSV(notes []Note) []byte {
	var out [][]string
	for _, n := range notes {
		felt := n.Felt
		if len(felt) == 0 {
			felt = []Felt{{}}
		}
		minutes := ""
		if n.Minutes > 0 {
			minutes = rows.Decimal(n.Minutes)
		}
		for _, f := range felt {
			gap := ""
			if f.Pair != "" {
				gap = rows.Decimal(f.Gap.MM())
			}
			out = append(out, []string{
				n.Made.UTC().Format(stamp), rows.Inert(n.Name), n.Style, rows.Inert(n.Card), minutes,
				rows.Inert(f.Pair), f.Kind, rows.Inert(f.Card), gap, string(f.Felt), rows.Inert(n.Remember),
			})
		}
	}
	return rows.Write(table.Headings, out)
}

// stamp is how a time is written, to the millisecond.
const stamp = "2006-01-02T15:04:05.000Z"

// timeOf reads a time, or a day alone.
func timeOf(text string) (time.Time, error) {
	for _, layout := range []string{stamp, time.RFC3339, time.DateTime, time.DateOnly} {
		if at, err := time.Parse(layout, text); err == nil {
			return at, nil
		}
	}
	return time.Time{}, fault.New(fault.Invalid, "", "%q is not a day such as 2026-11-25", text)
}

// ReadCSV reads notes as WriteCSV writes them, in any order of columns; the day and
// the box's name are needed. Rows of one box and time are one note. Every bad row is
// reported by its number, and then none is given.
func ReadCSV(text []byte) ([]Note, []error) {
	all, faults := rows.Read(table, text, noteOf)
	if len(faults) > 0 {
		return nil, faults
	}
	var out []Note
	at := map[string]int{}
	for _, n := range all {
		key := n.Made.UTC().Format(stamp) + " " + n.Name
		if i, known := at[key]; known {
			out[i].Felt = append(out[i].Felt, n.Felt...)
			continue
		}
		at[key] = len(out)
		out = append(out, n)
	}
	return out, nil
}

func noteOf(cells []rows.Cell) (Note, error) {
	n := Note{Design: []byte("{}")}
	var f Felt
	for _, c := range cells {
		var err error
		var mm float64
		switch text := rows.Alive(c.Text); c.Head {
		case "made":
			n.Made, err = timeOf(text)
		case "box":
			n.Name = text
		case "style":
			n.Style = text
		case "card":
			n.Card = text
		case "minutes":
			n.Minutes, err = rows.Number(text)
		case "fit":
			f.Pair = text
		case "kind":
			f.Kind = text
		case "fit_card":
			f.Card = text
		case "gap_mm":
			mm, err = rows.Number(c.Text)
			f.Gap = measure.Length(mm * float64(measure.Millimetre))
		case "felt":
			f.Felt = fit.Verdict(text)
		case "remember":
			n.Remember = text
		}
		if err != nil {
			return n, fault.At(c.Head, err)
		}
	}
	if f != (Felt{}) {
		n.Felt = []Felt{f}
	}
	return n, n.dated()
}

// dated checks a note out of a file, which must say when it was and of what.
func (n Note) dated() error {
	switch {
	case n.Made.IsZero():
		return fault.New(fault.Empty, "made", "say on which day it was made, such as 2026-11-25")
	case n.Name == "":
		return fault.New(fault.Empty, "box", "say which box it was")
	}
	return n.Check()
}

// noteFile is a note in the JSON file.
type noteFile struct {
	Made     string          `json:"made"`
	Name     string          `json:"name"`
	Style    string          `json:"style,omitempty"`
	Card     string          `json:"card,omitempty"`
	Minutes  float64         `json:"minutes,omitempty"`
	Felt     []feltFile      `json:"felt"`
	Remember string          `json:"remember,omitempty"`
	Design   json.RawMessage `json:"design,omitempty"`
}

type feltFile struct {
	Fit  string  `json:"fit"`
	Kind string  `json:"kind,omitempty"`
	Card string  `json:"card,omitempty"`
	Gap  float64 `json:"gap"` // mm
	Felt string  `json:"felt"`
}

type notesFile struct {
	Brevium int        `json:"brevium"`
	Notes   []noteFile `json:"notes"`
}

// WriteJSON gives notes with the boxes they are of; photographs are not in it.
func WriteJSON(notes []Note) []byte {
	f := notesFile{Brevium: 1, Notes: []noteFile{}}
	for _, n := range notes {
		x := noteFile{n.Made.UTC().Format(stamp), n.Name, n.Style, n.Card, n.Minutes, []feltFile{}, n.Remember, n.Design}
		for _, y := range n.Felt {
			x.Felt = append(x.Felt, feltFile{y.Pair, y.Kind, y.Card, y.Gap.MM(), string(y.Felt)})
		}
		f.Notes = append(f.Notes, x)
	}
	text, err := json.MarshalIndent(f, "", " ")
	if err != nil {
		panic(err) // every field is plain text, a finite number or JSON
	}
	return text
}

// ReadJSON reads what WriteJSON writes.
func ReadJSON(text []byte) ([]Note, error) {
	var f notesFile
	if err := strict.Decode(text, &f); err != nil {
		return nil, err
	}
	if f.Brevium != 1 {
		return nil, fault.New(fault.UnknownFormat, "brevium", "this file is of format %d; this program reads format 1", f.Brevium)
	}
	var out []Note
	for i, x := range f.Notes {
		field := fault.Path("notes", i)
		n := Note{Name: x.Name, Style: x.Style, Card: x.Card, Minutes: x.Minutes, Remember: x.Remember, Design: x.Design}
		if len(n.Design) == 0 {
			n.Design = []byte("{}")
		}
		var err error
		if n.Made, err = timeOf(x.Made); err != nil {
			return nil, fault.At(fault.Path(field, "made"), err)
		}
		for _, y := range x.Felt {
			n.Felt = append(n.Felt, Felt{y.Fit, y.Kind, y.Card, measure.Length(y.Gap * float64(measure.Millimetre)), fit.Verdict(y.Felt)})
		}
		if err := n.dated(); err != nil {
			return nil, fault.At(field, err)
		}
		out = append(out, n)
	}
	if len(out) == 0 {
		return nil, fault.New(fault.Empty, "notes", "%s", table.Empty)
	}
	return out, nil
}

// ReadFile reads notes from either file, by how it begins.
func ReadFile(text []byte) ([]Note, []error) {
	if strings.HasPrefix(strings.TrimSpace(string(text)), "{") {
		notes, err := ReadJSON(text)
		if err != nil {
			return nil, []error{err}
		}
		return notes, nil
	}
	return ReadCSV(text)
}

// Matches reports whether a note has all words of a search in it: its box, style, card,
// things, fits or what there is to remember. things are what the box was for.
func (n Note) Matches(search, kind string, things []string) bool {
	all := strings.ToLower(fmt.Sprint(n.Name, " ", kind, " ", n.Style, " ", n.Card, " ", n.Says(), " ", n.Remember, " ", strings.Join(things, " ")))
	for _, word := range strings.Fields(strings.ToLower(search)) {
		if !strings.Contains(all, word) {
			return false
		}
	}
	return true
}
