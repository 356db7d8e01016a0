package inspect

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/fit"
	"brevium/core/paper"
	"brevium/core/pattern"
	"brevium/core/stuff"
	"brevium/core/style"
)

// Load is what a box carries, and how.
type Load struct {
	Grams   float64
	One     bool
	Foot    [2]float64 // of the one thing, along the box and across, in mm; 0 where it is not known
	Walls   bool       // it is lifted by its walls
	Handle  bool       // it is carried by its handle
	Stacked int
	Glass   bool // some of it is
}

// Bearing is a box as its load sees it.
type Bearing struct {
	*Matter
	Load
	Box  *style.Box
	Fits []fit.Account
	// Tabs is what its tabs, and its handle, are stuck with.
	Tabs stuff.Adhesive
	// Board is the piece that lies on the floor, "" for none.
	Board string
	// Doubles has the option of the style by which its walls become double, "" for none or where they are.
	Doubles string
}

// verdicts of a sum.
var verdicts = map[stuff.Verdict]Verdict{stuff.Fine: OK, stuff.Barely: Warn, stuff.NotEnough: Fail}

// board mends a floor.
var (
	layBoard   = Mend{Field: "linings", Choice: "board", Words: "Lay a board on the floor"}
	carryBelow = Mend{Field: "load.carry", Choice: "below", Words: "Carry it from below"}
	glueWet    = Mend{Field: "options.adhesive", Choice: "wet-glue", Words: "Use wet glue"}
)

// Bears looks at what the box carries: its floor, its joints, its handle, and what is stacked on
// it. Without a weight it says nothing.
func (b *Bearing) Bears() []Finding {
	if b.Grams <= 0 {
		return nil
	}
	p, is := b.Standing(b.Box)
	if !is {
		return nil
	}
	var out []Finding
	if f, hangs := b.sag(p); hangs {
		out = append(out, f)
	}
	if f, glued := b.joint(p); glued {
		out = append(out, f)
	}
	if f, glued := b.flaps(p); glued {
		out = append(out, f)
	}
	if b.Handle {
		out = append(out, b.handle())
		if f, hangs := b.hanging(); hangs {
			out = append(out, f)
		}
	}
	if b.Stacked > 1 {
		out = append(out, b.stack(p))
	}
	return out
}

// holds judges how many times over something holds: its last sums, the verdict, and what is said
// where it holds well, barely, and not at all.
func (b *Bearing) holds(f *Finding, times float64, well, barely, not string) {
	f.Account = append(f.Account, sum("it holds so many times over", "%.1f", times),
		sum("enough from", "%.0f", b.Table.SafeOK), sum("not under", "%.1f", b.Table.SafeWarns))
	f.Verdict = verdicts[b.Table.Safe(times)]
	f.Text = map[Verdict]string{OK: well, Warn: barely, Fail: not}[f.Verdict]
}

// relieve mends what tabs or a handle do not hold: wet glue, and where that is there, a hand below.
func (b *Bearing) relieve() *Mend {
	if b.Tabs.Wet {
		return &carryBelow
	}
	return &glueWet
}

// Lifted reports whether it hangs by its walls when it is carried.
func (l Load) Lifted() bool { return l.Walls || l.Handle }

// Standing is the piece that what goes in stands in, where it folds.
func (m *Matter) Standing(box *style.Box) (Made, bool) {
	for _, p := range m.Pieces {
		if p.ID == box.Room.Part || box.Room.Part == "" {
			return p, p.Folded != nil
		}
	}
	return Made{}, false
}

// floor is the face on which what goes in stands, where its card hangs by walls all round.
func floor(p Made) (pattern.Face, bool) {
	_, f, i := p.Folded.Face(p.Root)
	if i < 0 || p.Opens != style.Upwards || f.Role != pattern.Panel {
		return pattern.Face{}, false
	}
	walls := 0
	for _, other := range p.Folded.Faces {
		if other.Role == pattern.Wall {
			walls++
		}
	}
	return *f, walls >= 3
}

// ways is how stiff a card is along the pattern's x and y, by its grain; 0 where it is not known.
func (b *Bearing) ways(p Made) (x, y float64) {
	switch p.Run {
	case paper.RunLength:
		return b.Table.Along(), b.Table.Across()
	case paper.RunWidth:
		return b.Table.Across(), b.Table.Along()
	}
	return 0, 0
}

// sag judges a floor that hangs by its walls.
func (b *Bearing) sag(p Made) (Finding, bool) {
	face, hangs := floor(p)
	if !hangs {
		return Finding{}, false
	}
	f := Finding{ID: "load.sag", Verdict: OK, Piece: p.ID}
	if !b.Lifted() {
		f.Text = fmt.Sprintf("%s: %s rests on what is under the floor.", p.Name, weighs(b.Grams))
		return f, true
	}
	lo, hi := pattern.Bounds(face.Polygon)
	wide, high := hi.X-lo.X, hi.Y-lo.Y
	plate := stuff.Floor{Long: max(wide, high), Short: min(wide, high), Grams: b.Grams, Layers: b.layers(p)}
	plate.LongWay, plate.ShortWay = b.ways(p)
	along, across := b.Foot[0], b.Foot[1]
	if wide < high {
		plate.LongWay, plate.ShortWay = plate.ShortWay, plate.LongWay
		along, across = across, along
	}
	rests := "spread"
	if b.One {
		plate.Foot = max(across, 1)
		if across == 0 {
			plate.Foot = plate.Short / 2
		}
		rests = fmt.Sprintf("one thing %s wide", b.about(plate.Foot))
	}
	w := b.Table.Sag(plate)
	fine, most := b.Table.SagLimits(plate.Short)
	f.Verdict = verdicts[b.Table.Sags(w, plate.Short)]
	d, _ := b.Table.Layered(plate.Layers)
	f.Account = []Sum{
		sum("the floor", "%s × %s", b.about(plate.Long), b.about(plate.Short)),
		sum("carried", "%s, %s", weighs(b.Grams), rests),
		sum("stiffness of what lies there", "about %.1f N·mm", d),
		sum("a day, and damp", "× %.1f", b.Table.Creep),
		sum("it sags", "about %.1f mm", w),
		sum("well up to", "%.1f mm", fine), sum("too much over", "%.1f mm", most),
	}
	switch f.Verdict {
	case OK:
		f.Text = fmt.Sprintf("%s: the floor carries %s, and sags about %s.", p.Name, weighs(b.Grams), b.about(w))
	case Warn:
		f.Text = fmt.Sprintf("%s: lifted by its walls, the floor sags about %s under %s. Lay a board on it, or carry it from below.", p.Name, b.about(w), weighs(b.Grams))
	default:
		f.Text = fmt.Sprintf("%s: %s is too much for this floor, lifted by its walls: it sags about %s. Lay a board on it, or carry it from below.", p.Name, weighs(b.Grams), b.about(w))
	}
	if f.Verdict != OK {
		f.Mend = &layBoard
		if b.Board != "" {
			f.Mend = &carryBelow
		}
	}
	return f, true
}

// layers are the cards of the floor: the piece's own and the board that lies on it.
func (b *Bearing) layers(p Made) []stuff.Layer {
	out := []stuff.Layer{{Card: stuff.CardOf(p.Of)}}
	if x, lies := b.piece(b.Board); lies {
		out = append(out, stuff.Layer{Card: stuff.CardOf(x.Of)})
	}
	return out
}

// joint judges the glued corners by which a tray's walls hold each other.
func (b *Bearing) joint(p Made) (Finding, bool) {
	if _, hangs := floor(p); !hangs {
		return Finding{}, false
	}
	least, tab, tall := math.Inf(1), 0.0, 0.0
	for _, g := range p.Pattern.Glue {
		from, _ := p.Pattern.Mark(g.Face)
		onto, _ := p.Pattern.Mark(g.Onto)
		if g.Dry || g.Piece != "" || from.Role != pattern.Tab || onto.Role != pattern.Wall {
			continue
		}
		wide, high := patch(g.Area, onto.Up)
		if !b.Tabs.Wet {
			wide = min(wide, b.Tabs.Width)
		}
		if holds := wide * high; holds < least {
			least, tab, tall = holds, wide, high
		}
	}
	if math.IsInf(least, 1) {
		return Finding{}, false
	}
	f := Finding{ID: "load.joint", Verdict: OK, Piece: p.ID, Text: p.Name + ": on the table its corners carry nothing."}
	if !b.Lifted() {
		return f, true
	}
	f.Account = []Sum{
		sum("glued at each corner", "%s × %s", b.about(tab), b.about(tall)),
		sum(b.Tabs.Words+" holds", "%.2f N/mm²", b.Tabs.Shear),
		sum("lifted and swung, an eighth of "+weighs(b.Grams), "× %.0f", b.Table.Swing),
	}
	b.holds(&f, b.Table.JointHolds(b.Tabs, tab, tall, b.Grams),
		p.Name+": its corners hold.",
		fmt.Sprintf("%s: its corners hold %s only barely. Use wet glue, or higher walls.", p.Name, weighs(b.Grams)),
		fmt.Sprintf("%s: its corners come apart under %s. Use wet glue, make the walls higher, or carry it from below.", p.Name, weighs(b.Grams)))
	if f.Verdict != OK {
		f.Mend = b.relieve()
	}
	return f, true
}

// patch is how wide and how tall a glued patch is, its wall's up being up.
func patch(area []pattern.Point, up pattern.Point) (wide, tall float64) {
	f := pattern.Face{Polygon: area, Up: up}
	tall, wide = f.Tall()
	return wide, tall
}

// flaps judges a bottom that is glued from flaps.
func (b *Bearing) flaps(p Made) (Finding, bool) {
	if p.Opens != style.Upright {
		return Finding{}, false
	}
	glued := slices.ContainsFunc(p.Pattern.Glue, func(g pattern.Glue) bool {
		pose, _, i := p.Folded.Face(g.Face)
		_, _, j := p.Folded.Face(g.Onto)
		return !g.Dry && g.Piece == "" && i >= 0 && j >= 0 && math.Abs(pose.Normal().Y) > 0.9
	})
	lo, hi := pattern.Bounds(b.Box.Room.Floor)
	seam := hi.X - lo.X + hi.Y - lo.Y
	if !glued || seam <= 0 {
		return Finding{}, false
	}
	f := Finding{ID: "load.floor", Verdict: OK, Piece: p.ID}
	if !b.Lifted() {
		f.Text = fmt.Sprintf("%s: %s rests on what is under the floor.", p.Name, weighs(b.Grams))
		return f, true
	}
	if b.Board != "" {
		f.Text = p.Name + ": the board takes the weight to the folds of its floor."
		return f, true
	}
	f.Account = []Sum{
		sum("glued along two sides", "%s", b.about(seam)),
		sum(b.Tabs.Words+" is peeled off at", "%.2f N/mm", b.Tabs.Peel),
		sum("lifted and swung, half of "+weighs(b.Grams), "× %.0f", b.Table.Swing),
	}
	b.holds(&f, b.Table.FloorHolds(b.Tabs, seam, b.Grams),
		p.Name+": its glued floor holds.",
		fmt.Sprintf("%s: its glued floor holds %s only barely. Lay a board in that reaches its folds.", p.Name, weighs(b.Grams)),
		fmt.Sprintf("%s: its glued floor opens under %s. Lay a board in that reaches its folds; use wet glue.", p.Name, weighs(b.Grams)))
	if f.Verdict != OK {
		f.Mend = &layBoard
	}
	return f, true
}

// handle judges what a handle hangs by.
func (b *Bearing) handle() Finding {
	f := Finding{ID: "load.handle", Verdict: OK, Mend: &carryBelow}
	t := &b.Table
	if b.Glass || b.Grams > t.HandleGrams {
		f.Verdict = Fail
		what := weighs(b.Grams)
		if b.Glass {
			what = "glass"
		}
		f.Text = fmt.Sprintf("Do not carry %s by a handle of card: carry it from below.", what)
		return f
	}
	p, area, hangs := b.hung()
	if !hangs {
		f.Verdict, f.Text = Warn, "It has no handle to be carried by: carry it from below."
		return f
	}
	pull := t.HandlePull(b.Grams)
	holds := b.Tabs.Shear * area
	how := sum(fmt.Sprintf("%s holds on %.0f mm²", b.Tabs.Words, area), "%.0f N", holds)
	switch {
	case b.Box.Brads > 0: // one through each end, in the middle of what lies on the wall
		edge := math.Sqrt(area) / 2
		holds = t.BradHolds(edge, p.Of.Thickness.MM())
		how = sum(fmt.Sprintf("a brad %.0f mm from the edge holds", edge), "%.0f N", holds)
	case b.Tabs.Each:
		holds = dotsAnEnd * b.Tabs.Shear
		how = sum("two dots at each end hold", "%.0f N", holds)
	}
	f.Piece = p.ID
	f.Account = []Sum{sum("each end is pulled by, lifted and swung", "%.1f N", pull), how}
	b.holds(&f, holds/pull,
		fmt.Sprintf("The handle holds %s.", weighs(b.Grams)),
		fmt.Sprintf("The handle holds %s only barely: put a brad through each end, or carry it from below.", weighs(b.Grams)),
		fmt.Sprintf("The handle comes off under %s: use wet glue and a brad at each end, or carry it from below.", weighs(b.Grams)))
	if f.Verdict == OK {
		f.Mend = nil
	}
	return f
}

// hanging judges a handle by which the box is hung up for days: at rest, by what the adhesive
// holds then. It warns where the handle does well enough while it is carried.
func (b *Bearing) hanging() (Finding, bool) {
	_, area, hangs := b.hung()
	t := &b.Table
	if !hangs || b.Box.Brads > 0 || b.Tabs.Each || b.Glass || b.Grams > t.HandleGrams {
		return Finding{}, false
	}
	rest := t.HandlePull(b.Grams) / t.Swing
	times := b.Tabs.Days().Shear * area / rest
	f := Finding{ID: "load.hang", Verdict: OK, Text: fmt.Sprintf("Hung up by its handle for days it holds %s, too.", weighs(b.Grams)), Account: []Sum{
		sum("each end is pulled by, at rest", "%.1f N", rest), sum(b.Tabs.Words+" holds for days", "%.3f N/mm²", b.Tabs.Days().Shear),
		sum("it holds so many times over", "%.1f", times), sum("enough from", "%.0f", t.SafeOK),
	}}
	if times < t.SafeOK {
		f.Verdict, f.Mend = Warn, b.relieve()
		f.Text = fmt.Sprintf("Do not leave it hanging by its handle: for days the handle holds %s only barely.", weighs(b.Grams))
	}
	return f, true
}

// dotsAnEnd is how many dots hold an end of a handle.
const dotsAnEnd = 2

// hung is the handle and the area in mm² by which the weaker of its ends is glued.
func (b *Bearing) hung() (p Made, area float64, hangs bool) {
	for _, p := range b.Pieces {
		if !p.Handle {
			continue
		}
		least := math.Inf(1)
		for _, g := range p.Pattern.Glue {
			if g.Piece != "" {
				least = min(least, math.Abs(pattern.Area(g.Area)))
			}
		}
		return p, least, !math.IsInf(least, 1)
	}
	return p, 0, false
}

// stack judges the lowest box of a stack.
func (b *Bearing) stack(p Made) Finding {
	f := Finding{ID: "stack", Verdict: OK, Piece: p.ID}
	t := &b.Table
	walls := b.OuterWalls(p)
	bears := t.BoxHolds(walls)
	f.Account = []Sum{
		sum(fmt.Sprintf("its %d walls bear, with hand-made corners", len(walls)), "about %.0f N", bears),
		sum("on it", "%d × %s", b.Stacked-1, weighs(b.Grams)), sum("for weeks, and damp", "× %.1f", t.StackLong),
	}
	b.holds(&f, t.StackHolds(bears, b.Grams, b.Stacked),
		fmt.Sprintf("The lowest of %d boxes carries the others.", b.Stacked),
		fmt.Sprintf("The lowest of %d boxes barely carries the others: stack fewer, or double its walls.", b.Stacked),
		fmt.Sprintf("The lowest of %d boxes is crushed by the others: stack fewer, or double its walls.", b.Stacked))
	if f.Verdict != OK && b.Doubles != "" {
		f.Mend = &Mend{Field: "options." + b.Doubles, Choice: "double", Words: "Double the walls"}
	}
	return f
}

// OuterWalls are the walls of a piece, as what is stacked on it sees them.
func (m *Matter) OuterWalls(p Made) []stuff.Wall {
	var out []stuff.Wall
	for i := range p.Folded.Faces {
		face := &p.Folded.Faces[i]
		if face.Role != pattern.Wall {
			continue
		}
		_, wide := face.Tall()
		w := stuff.Wall{Wide: wide, Card: stuff.CardOf(p.Of), Rolled: doubled(p, i)}
		if p.Run != paper.RunUnknown && face.Up != (pattern.Point{}) {
			w.Upright = -1
			if runsAlong(pattern.Segment{B: face.Up}, p.Run) {
				w.Upright = 1
			}
		}
		out = append(out, w)
	}
	return out
}

// weighs writes grams for a person: "490 g", "1.3 kg".
func weighs(grams float64) string {
	if grams >= 1000 {
		return strings.TrimSuffix(fmt.Sprintf("%.1f", grams/1000), ".0") + " kg"
	}
	return fmt.Sprintf("%.0f g", grams)
}
