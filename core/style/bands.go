package style

import (
	"fmt"
	"slices"

	"brevium/core/fault"
	"brevium/core/measure"
)

// banded gives the strips of cells that are no grid: long ones from end to end
// between the rows, and in each row short ones that end in them, or in the box's
// walls, with a tab at each end.
func (d Dividers) banded() ([]Part, error) {
	for _, c := range slices.Concat(d.Rows, slices.Concat(d.Bands...)) {
		if c < leastCell {
			return nil, fault.New(fault.NoRoom, "", "a cell would be under 5 mm; make fewer cells, or the inside larger")
		}
	}
	tab := measure.Up(endTab, d.Tick)
	var out []Part
	if len(d.Rows) > 1 {
		p := Part{ID: "divider.long", Name: "Long divider", Opens: Upright, Count: len(d.Rows) - 1}
		cut := measure.Down(d.Length-StripEase, d.Tick)
		if err := d.tabbed(&p, cut, tab); err != nil {
			return nil, err
		}
		for _, across := range d.middles(d.Rows, d.Width) {
			p.Places = append(p.Places, strip(-cut/2-tab, across-StripLength(d.Width, d.Tick)/2, d.high(), true))
		}
		out = append(out, p)
	}
	at := -d.Width / 2
	for row, cells := range d.Bands {
		wide := d.Rows[row]
		middle := at + wide/2
		at += wide + d.Card
		if len(cells) < 2 {
			continue
		}
		p := Part{ID: fmt.Sprintf("divider.cross.%d", row+1), Name: fmt.Sprintf("Short divider of row %d", row+1), Opens: Upright, Count: len(cells) - 1}
		cut := measure.Down(wide-StripEase, d.Tick)
		if err := d.tabbed(&p, cut, tab); err != nil {
			return nil, err
		}
		for _, x := range d.middles(cells, d.Length) {
			p.Places = append(p.Places, strip(middle-cut/2-tab, x-StripLength(d.Length, d.Tick)/2, d.high(), false))
		}
		out = append(out, p)
	}
	return out, nil
}
