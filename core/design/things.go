package design

import (
	"bytes"
	"cmp"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"reflect"
	"strconv"
	"strings"

	"brevium/core/contents"
	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/strict"
)

// thingFile is a thing as it stands in a file, and cellsFile the compartments.
type (
	thingFile struct {
		ID      int          `json:"id,omitempty"`
		Name    string       `json:"name"`
		Shape   string       `json:"shape,omitempty"`
		Across  measure.Text `json:"across,omitempty"`
		Length  measure.Text `json:"length,omitempty"`
		Width   measure.Text `json:"width,omitempty"`
		Height  measure.Text `json:"height,omitempty"`
		Count   *int         `json:"count,omitempty"`
		Ease    measure.Text `json:"ease,omitempty"`
		Grams   float64      `json:"grams,omitempty"`
		Up      []string     `json:"up,omitzero"`
		Squeeze int          `json:"squeeze,omitempty"`
		Cards   int          `json:"cards,omitempty"`
		Each    measure.Text `json:"each,omitempty"`
		Raised  measure.Text `json:"raised,omitempty"`
		Fragile bool         `json:"fragile,omitempty"`
		PullOut bool         `json:"pull_out,omitempty"`
		Kind    string       `json:"kind,omitempty"`
	}
	cellsFile struct {
		Per     string `json:"per"`
		As      string `json:"as"`
		SlotsUp string `json:"slots_up,omitempty"`
	}
)

func thingField(i int) string { return fault.Path("contents", i) }

func (r *reader) things(f inputsFile) {
	if len(f.Contents) > 0 {
		for _, id := range []string{"length", "width", "height"} {
			if _, both := f.Size[id]; both {
				r.fail(fault.New(fault.BothGiven, "size."+id, "give the contents or the size, not both; the contents set the inside"))
			}
		}
	}
	r.in.Stand = f.Stand
	for i, t := range f.Contents {
		r.in.Things = append(r.in.Things, r.thing(thingField(i), t))
	}
}

// numbered gives things and mats that were read without a number the next ones.
func (r *reader) numbered() {
	giveNumber(&r.in, func(taken map[int]bool) int { // each list by itself, so that it is read back the same
		n := 1
		for taken[n] {
			n++
		}
		return n
	})
}

// mostID bounds the numbers of things: what every JSON reader keeps whole.
const mostID = 1 << 52

// NumberThings gives each thing, mat and loose piece that has none a number of its own,
// one that another page is not giving to another at the same time.
func (in *Inputs) NumberThings() {
	giveNumber(in, func(map[int]bool) int { return 1 + rand.IntN(1<<31) })
}

func giveNumber(in *Inputs, next func(taken map[int]bool) int) {
	var things, mats, pieces, bands, covers, ribbons, closures, labels, windows, own []*int
	for i := range in.Things {
		things = append(things, &in.Things[i].ID)
	}
	for i := range in.Mats {
		mats = append(mats, &in.Mats[i].ID)
	}
	for i := range in.Loose {
		pieces = append(pieces, &in.Loose[i].ID)
	}
	for i := range in.Bands {
		bands = append(bands, &in.Bands[i].ID)
	}
	for i := range in.Covers {
		covers = append(covers, &in.Covers[i].ID)
	}
	for i := range in.Ribbons {
		ribbons = append(ribbons, &in.Ribbons[i].ID)
	}
	for i := range in.Closures {
		closures = append(closures, &in.Closures[i].ID)
	}
	for i := range in.Labels {
		labels = append(labels, &in.Labels[i].ID)
	}
	for i := range in.Windows {
		windows = append(windows, &in.Windows[i].ID)
	}
	for i := range in.OwnSteps {
		own = append(own, &in.OwnSteps[i].ID)
	}
	for _, ids := range [][]*int{things, mats, pieces, bands, covers, ribbons, closures, labels, windows, own} {
		used, taken := map[int]bool{0: true}, map[int]bool{}
		for _, id := range ids {
			taken[*id] = true
		}
		for _, id := range ids {
			for *id < 0 || *id > mostID || used[*id] {
				*id = next(taken)
			}
			used[*id], taken[*id] = true, true
		}
	}
}

// thing reads one thing; what is left out takes its usual value.
func (r *reader) thing(field string, t thingFile) contents.Thing {
	thing := contents.Thing{
		ID: t.ID, Name: t.Name, Shape: contents.Shape(t.Shape), Count: 1, Grams: t.Grams,
		Height:  r.length(fault.Path(field, "height"), t.Height, 0),
		Squeeze: t.Squeeze, Cards: t.Cards, Fragile: t.Fragile, PullOut: t.PullOut, Kind: contents.Kind(t.Kind),
		Each: r.length(fault.Path(field, "each"), t.Each, 0), Raised: r.length(fault.Path(field, "raised"), t.Raised, 0),
	}
	if t.Count != nil {
		thing.Count = *t.Count
	}
	for _, s := range t.Up {
		thing.Up = append(thing.Up, contents.Side(s))
	}
	if t.Up != nil && thing.Up == nil {
		thing.Up = []contents.Side{}
	}
	if t.Kind == "other" {
		thing.Kind = contents.Other
	}
	if thing.Shape == "" {
		thing.Shape = contents.Block
		if t.Across != "" {
			thing.Shape = contents.Round
		}
	}
	thing.Ease = r.length(fault.Path(field, "ease"), t.Ease, contents.UsualEaseOf(thing.Shape))
	if thing.Shape == contents.Round {
		thing.Length = r.length(fault.Path(field, "across"), t.Across, 0)
		thing.Width = thing.Length
		if t.Length != "" || t.Width != "" {
			r.fail(fault.New(fault.BothGiven, field, "a round thing is measured across and in height; leave out length and width"))
		}
	} else {
		thing.Length = r.length(fault.Path(field, "length"), t.Length, 0)
		thing.Width = r.length(fault.Path(field, "width"), t.Width, 0)
	}
	return thing
}

func writeThing(t contents.Thing) thingFile {
	x := thingFile{ID: t.ID, Name: t.Name, Shape: string(t.Shape), Height: mmText(t.Height), Count: &t.Count, Ease: mmText(t.Ease), Grams: t.Grams,
		Squeeze: t.Squeeze, Cards: t.Cards, Fragile: t.Fragile, PullOut: t.PullOut, Kind: string(t.Kind)}
	for _, s := range t.Up {
		x.Up = append(x.Up, string(s))
	}
	if t.Cards > 0 {
		x.Each, x.Raised = mmText(t.Each), mmText(t.Raised)
	}
	if t.Shape == contents.Round {
		x.Across = mmText(t.Length)
	} else {
		x.Length, x.Width = mmText(t.Length), mmText(t.Width)
	}
	return x
}

// inside reads the compartments and linings.
func (r *reader) inside(f inputsFile) {
	if c := f.Cells; c != nil {
		r.in.Compartments = Compartments{Per: contents.Per(c.Per), As: As(cmp.Or(c.As, string(AsDividers))), Along: c.SlotsUp == "along"}
		if c.SlotsUp != "" && c.SlotsUp != "along" && c.SlotsUp != "across" {
			r.fail(
				fault.New(
					fault.UnknownCompartments,
					"compartments.slots_up",
					"slots open upwards in the dividers along the box or across it",
				),
			)
		}
	}
	for _, l := range f.Linings {
		r.in.Linings = append(r.in.Linings, Lining(l))
	}
	r.in.RiserHeight = r.length("riser", f.Riser, UsualRiser)
}

func writeInside(in Inputs, f *inputsFile) {
	if c := in.Compartments; c != (Compartments{}) {
		f.Cells = &cellsFile{Per: string(c.Per), As: string(c.As), SlotsUp: "across"}
		if c.Along {
			f.Cells.SlotsUp = "along"
		}
	}
	for _, l := range in.Linings {
		f.Linings = append(f.Linings, string(l))
	}
	f.Riser = mmText(in.RiserHeight)
}

// WriteThing gives a thing as JSON that ReadThing turns back into it.
func WriteThing(t contents.Thing) []byte {
	text, err := json.Marshal(writeThing(t))
	if err != nil {
		panic(err) // every field is plain text or a finite number
	}
	return text
}

// ReadThing reads a thing that WriteThing wrote.
func ReadThing(text []byte) (contents.Thing, error) {
	all, faults := ReadContents(append(append([]byte("["), text...), ']'), measure.MM)
	if len(faults) > 0 {
		return contents.Thing{}, faults[0]
	}
	return all[0], nil
}

// ReadContents reads a list of things from a file: JSON (a list of things as
// in a design) or CSV (a heading row with the same names; yes or no for
// fragile and pull_out, sides parted by spaces for up). Bare numbers are in
// the unit. Every bad row is reported, numbered as it stands in the file, and
// then none is given.
func ReadContents(text []byte, unit measure.Unit) ([]contents.Thing, []error) {
	var rows []thingFile
	var faults []error
	if trimmed := bytes.TrimSpace(text); len(trimmed) > 0 && trimmed[0] == '[' {
		var raw []json.RawMessage
		if err := json.Unmarshal(trimmed, &raw); err != nil {
			return nil, []error{fault.New(fault.NotJSON, "contents", "this is not a list of things in JSON: %v", err)}
		}
		for i, x := range raw {
			var t thingFile
			if err := strict.Decode(x, &t); err != nil {
				faults = append(faults, fault.At(row(i+1), err))
			}
			rows = append(rows, t)
		}
	} else {
		rows, faults = csvRows(text)
	}
	if len(rows) == 0 && len(faults) == 0 {
		return nil, []error{fault.New(fault.Empty, "contents", "there is no thing in this file; give one thing a row")}
	}
	var out []contents.Thing
	for i, t := range rows {
		r := reader{unit: unit}
		thing := r.thing(row(i+1), t)
		if r.err == nil {
			if err := thing.Check(); err != nil {
				r.err = fault.At(row(i+1), err)
			}
		}
		if r.err != nil && !reported(faults, row(i+1)) {
			faults = append(faults, r.err)
		}
		out = append(out, thing)
	}
	if len(faults) > 0 {
		return nil, faults
	}
	return out, nil
}

func row(n int) string { return fmt.Sprintf("row %d", n) }

func reported(faults []error, row string) bool {
	for _, f := range faults {
		if strings.HasPrefix(fault.Of(f).Field, row) {
			return true
		}
	}
	return false
}

// csvRows reads the rows of a CSV file under their headings.
func csvRows(text []byte) (rows []thingFile, faults []error) {
	in := csv.NewReader(bytes.NewReader(text))
	in.TrimLeadingSpace = true
	heads, err := in.Read()
	if err != nil {
		return nil, []error{
			fault.New(fault.Empty, "contents", "this is neither a JSON list nor CSV with a heading row such as name,across,height,count"),
		}
	}
	columns := map[string]int{}
	fields := reflect.TypeFor[thingFile]()
	for i := range fields.NumField() {
		name, _, _ := strings.Cut(fields.Field(i).Tag.Get("json"), ",")
		columns[name] = i
	}
	for i, h := range heads {
		heads[i] = strings.ReplaceAll(strings.ToLower(strings.TrimSpace(h)), " ", "_")
		if _, known := columns[heads[i]]; !known {
			faults = append(
				faults,
				fault.New(
					fault.UnknownField,
					"heading",
					"%q is not a column; use name, shape, across or length and width, height, count, ease, grams, up, squeeze, cards, each, raised, fragile, pull_out",
					h,
				),
			)
		}
	}
	if len(faults) > 0 {
		return nil, faults
	}
	for n := 1; ; n++ {
		record, err := in.Read()
		if errors.Is(err, io.EOF) {
			return rows, faults
		}
		if err != nil && !errors.Is(err, csv.ErrFieldCount) {
			return rows, append(faults, fault.New(fault.NotCSV, row(n), "this row cannot be read as CSV: %v", err))
		}
		t, err := csvThing(heads, columns, record, err)
		if err != nil {
			faults = append(faults, fault.At(row(n), err))
		}
		rows = append(rows, t)
	}
}

// csvThing sets a thing's fields from one record.
func csvThing(heads []string, columns map[string]int, record []string, shape error) (thingFile, error) {
	var t thingFile
	if shape != nil {
		return t, fault.New(fault.NotCSV, "", "this row has %d columns and the heading %d", len(record), len(heads))
	}
	v := reflect.ValueOf(&t).Elem()
	for i, h := range heads {
		text := strings.TrimSpace(record[i])
		if text == "" {
			continue
		}
		var err error
		switch f := v.Field(columns[h]).Addr().Interface().(type) {
		case *string:
			*f = text
		case *measure.Text:
			*f = measure.Text(text)
		case *int:
			*f, err = strconv.Atoi(text)
		case **int:
			n := 0
			n, err = strconv.Atoi(text)
			*f = &n
		case *float64:
			*f, err = strconv.ParseFloat(text, 64)
		case *bool:
			*f = strings.EqualFold(text, "yes") || strings.EqualFold(text, "true") || text == "1"
		case *[]string:
			*f = strings.Fields(text)
		}
		if err != nil {
			return t, fault.New(fault.NotANumber, h, "%q is not a number", text)
		}
	}
	return t, nil
}
