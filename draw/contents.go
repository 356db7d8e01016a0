package draw

import (
	"fmt"

	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/core/pattern"
)

// Contents draws how the things stand, from above and from the front, in the
// inside they need.
func Contents(a contents.Arrangement, things []contents.Thing, unit measure.Unit, tick measure.Tick) *Picture {
	l, w, h := a.Length.MM(), a.Width.MM(), a.Height.MM()
	gap := max(l, w) * 0.22
	p := newPicture("How the things stand, from above and from the front", l, w+gap+h, 70)
	p.fromAbove(a, things)
	p.names(a, things)
	floor := w + gap + h
	p.polygon(Room, rect(0, w+gap, l, h)...)
	for _, s := range a.Spots {
		p.polygon(Thing, rect(s.X.MM(), floor-s.Z.MM()-s.Height.MM(), s.Length.MM(), s.Height.MM())...).About = things[s.Thing].Name
	}
	u := p.U
	// Room is told rounded up to the tick, as the box will give it.
	room := func(l measure.Length) string { return measure.Label(measure.Up(l, tick), unit, tick) }
	p.text(TextNumber, pattern.Pt(l/2, -12*u), 24, Middle, room(a.Length))
	p.text(TextNumber, pattern.Pt(l+14*u, w/2), 24, Middle, room(a.Width)).Angle = 90
	p.text(TextNumber, pattern.Pt(l+14*u, floor-h/2), 24, Middle, room(a.Height)).Angle = 90
	p.text(TextQuiet, pattern.Pt(0, w+22*u), 17, Start, "from above")
	p.text(TextQuiet, pattern.Pt(0, floor+22*u), 17, Start, fmt.Sprintf("from the front, %d in all", len(a.Spots)))
	return p
}

// ContentsFromAbove is the small picture of an arrangement, to choose by.
func ContentsFromAbove(a contents.Arrangement, things []contents.Thing) *Picture {
	p := newPicture("From above, "+a.ID, a.Length.MM(), a.Width.MM(), 8)
	p.fromAbove(a, things)
	return p
}

// HeldFromAbove is the small picture of a room and the things it holds.
func HeldFromAbove(room contents.Room, spots []contents.Spot, thing contents.Thing) *Picture {
	a := contents.Arrangement{Length: room.Length, Width: room.Width, Height: room.Height, Spots: spots}
	p := newPicture(fmt.Sprintf("From above, %d", len(spots)), a.Length.MM(), a.Width.MM(), 8)
	p.fromAbove(a, []contents.Thing{thing})
	return p
}

func (p *Picture) fromAbove(a contents.Arrangement, things []contents.Thing) {
	p.polygon(Room, rect(0, 0, a.Length.MM(), a.Width.MM())...)
	for _, c := range a.Cells {
		p.polygon(Room, rect(c.X.MM(), c.Y.MM(), c.Length.MM(), c.Width.MM())...).About = "Cell for " + c.Name
	}
	for _, s := range a.Spots {
		t := things[s.Thing]
		if t.Shape == contents.Round && !s.Lying {
			r := s.Length.MM() / 2
			p.circle(Thing, pattern.Pt(s.X.MM()+r, s.Y.MM()+r), r).About = t.Name
		} else {
			p.polygon(Thing, rect(s.X.MM(), s.Y.MM(), s.Length.MM(), s.Width.MM())...).About = t.Name
		}
	}
}

// names labels each thing that is wide enough to be written on.
func (p *Picture) names(a contents.Arrangement, things []contents.Thing) {
	for _, s := range a.Spots {
		name := things[s.Thing].Name
		mid := pattern.Pt((s.X + s.Length/2).MM(), (s.Y + s.Width/2).MM())
		// A letter is about half as wide as it is high.
		size := min(19, s.Length.MM()/p.U/(float64(len([]rune(name)))*0.55), s.Width.MM()/p.U*0.7)
		if name != "" && size >= leastLabel && s.Z == 0 {
			p.text(TextQuiet, mid.Add(pattern.Pt(0, size*p.U*0.35)), size, Middle, name)
		}
	}
}
