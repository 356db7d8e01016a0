package design

import (
	"slices"
	"strconv"
	"strings"

	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/label"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/style"
)

// Listed is what goes in each of the box's rooms, in order: as its maker lists it, else by number.
func (s *Sized) Listed() []contents.Each {
	var out []contents.Each
	for i := range max(1, s.Box.Room.Times) {
		line := ""
		if i < len(s.Inputs.Each) {
			line = s.Inputs.Each[i]
		}
		out = append(out, contents.EachOf(i+1, line))
	}
	return out
}

// ByList tells what goes in each room, where that is listed: "1 bell; 2 chocolate coin".
func (s *Sized) ByList() string {
	var out []string
	for _, e := range s.Listed() {
		if e.Thing != "" {
			out = append(out, e.Front+" "+e.Thing)
		}
	}
	return strings.Join(out, "; ")
}

// underNumber is what is free below a number.
const underNumber = 2 * measure.Millimetre

// Numbered is a label with the number of each room on its front; false where the box has one room, or
// no front to put it on.
func (b *Built) Numbered() (label.Label, bool) {
	room := b.Box.Room
	i := max(0, slices.IndexFunc(b.Parts, func(p Part) bool { return p.ID == room.Part }))
	part := b.Parts[i]
	if room.Times < 2 || part.Copies() != room.Times {
		return label.Label{}, false
	}
	front, there := b.facing(part)
	if !there {
		front, there = largestWall(part)
	}
	if !there {
		return label.Label{}, false
	}
	l := UsualLabel(part.ID, front.Name, b.Inputs.Units)
	l.Name, l.Shape, l.Text, l.Copies = "Number", label.Circle, "{n}", room.Times
	l.Layers = l.Layers[1:]
	l.Layers[0].Border = dress.Border{}
	along, up := front.Frame().Size(front.Polygon)
	size := max(label.Least, measure.Down(measure.FromMM(min(along, up)*0.6), b.Inputs.Tools.Tick.Ruler()))
	l.Width, l.Height = size, size
	l.Place.Up = label.Off{From: label.Bottom, At: measure.Nearest(underNumber, b.Inputs.Tools.Tick.Ruler())} // clear of a notch for the thumb
	return l, true
}

// facing is the face of a part that looks at the viewer in the finished box, if one does.
func (b *Built) facing(part Part) (pattern.Face, bool) {
	bodies, err := b.Bodies(style.Finished)
	if err != nil {
		return pattern.Face{}, false
	}
	k := slices.IndexFunc(bodies, func(x style.Body) bool { return x.Part.ID == part.ID })
	if k < 0 {
		return pattern.Face{}, false
	}
	for i, f := range bodies[k].Faces {
		if bodies[k].Poses[i].Normal().Y < -0.99 && (f.Role == pattern.Wall || f.Role == pattern.Panel) {
			return f, true
		}
	}
	return pattern.Face{}, false
}

// largestWall is the largest wall or panel of a part that is seen and that it does not stand on.
func largestWall(part Part) (face pattern.Face, there bool) {
	for _, f := range dress.Open(part.Pattern, part.Faces, dress.Outside) {
		if (f.Role == pattern.Wall || f.Role == pattern.Panel) && !style.IsFoot(part.Part, f) && f.Area() > face.Area() {
			face, there = f, true
		}
	}
	return face, there
}

// nth is the number of a copy of a label, and what is listed for its room; of all copies where none is
// meant.
func (s *Sized) nth(l label.Label, n int) (front, thing string) {
	all := s.Listed()
	switch {
	case n < 0 && l.Copies > 1:
		return all[0].Front + " to " + all[min(l.Copies, len(all))-1].Front, "what goes in"
	case n < 0:
		return all[0].Front, all[0].Thing
	case n < len(all):
		return all[n].Front, all[n].Thing
	}
	return strconv.Itoa(n + 1), ""
}
