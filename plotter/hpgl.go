package plotter

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/pattern"
	"brevium/core/strokes"
)

// unit is how long a plotter unit is, in mm: 40 of them make one.
const unit = 1.0 / 40

// tools are the numbers that HPGL selects tools by; 0 puts the tool away.
var tools = map[int]strokes.Tool{1: strokes.Score, 2: strokes.Perforate, 3: strokes.Kiss, 4: strokes.Cut, 5: strokes.Print}

// commands are what the mat knows, in the order it lists them.
const commands = "IN SP PU PD PA PR AA VS FS"

// hpgl is one command and its numbers.
var hpgl = regexp.MustCompile(`^([A-Za-z]{2})\s*([-+0-9.,\s]*)$`)

type hpglReader struct {
	file     *File
	height   float64
	at       pattern.Point
	tool     int
	down     bool
	relative bool
	begun    bool
	afterArc bool
	line     *strokes.Line
	points   int
}

// ReadHPGL reads one sheet of a size: HPGL names none. Its y goes up from the sheet's lower edge.
// A file whose arcs are of the blade's own radius says the way of the head, another that of the tip.
func ReadHPGL(text []byte, width, height, blade float64) (*File, error) {
	if len(text) > mostBytes {
		return nil, refuse(fault.TooLarge, "", "the file is over 4 MiB; export the sheets one by one")
	}
	r := hpglReader{file: &File{Width: width, Height: height, Ordered: true, Speed: map[strokes.Tool]float64{}, Force: map[strokes.Tool]float64{}}, height: height, at: pattern.Pt(0, height)}
	words := strings.TrimSpace(string(text))
	if !hpgl.MatchString(strings.SplitN(words, ";", 2)[0]) {
		return nil, refuse(fault.NotHPGL, "", "this is no HPGL, which begins with IN;")
	}
	all := strings.Split(words, ";")
	if last := strings.TrimSpace(all[len(all)-1]); last != "" {
		return nil, refuse(fault.CutShort, last, "the file ends in the middle of a command; write it again")
	}
	for n, word := range all[:len(all)-1] {
		if word = strings.TrimSpace(word); word == "" {
			continue
		}
		m := hpgl.FindStringSubmatch(word)
		if m == nil {
			return nil, refuse(fault.OddNumbers, "command "+strconv.Itoa(n+1), "%.20q has something in it that is no number", word)
		}
		if err := r.command(strings.ToUpper(m[1]), m[2], blade, "command "+strconv.Itoa(n+1)); err != nil {
			return nil, err
		}
	}
	r.up()
	r.file.Lines = closed(r.file.Lines)
	for i := range r.file.Lines {
		if l := &r.file.Lines[i]; r.file.Head && l.Closed { // the head only happens to be where it began
			l.Closed, l.Path = false, append(l.Path, pattern.Vertex{Point: l.Path[0].Point})
		}
	}
	return r.file, nil
}

func numbers(text string) ([]float64, bool) {
	var out []float64
	for _, word := range strings.FieldsFunc(text, func(c rune) bool { return c == ',' || c == ' ' || c == '\n' || c == '\r' || c == '\t' }) {
		v, err := strconv.ParseFloat(word, 64)
		if err != nil || math.Abs(v) > 1e9 {
			return nil, false
		}
		out = append(out, v)
	}
	return out, true
}

func (r *hpglReader) command(name, text string, blade float64, where string) error {
	args, ok := numbers(text)
	if !ok {
		return refuse(fault.OddNumbers, where, "%.20q is no row of numbers", text)
	}
	if !slices.Contains(strings.Fields(commands), name) {
		return refuse(fault.UnknownCommand, where, "%s is not known; the mat knows %s", name, commands)
	}
	if name != "IN" && !r.begun {
		return refuse(fault.NoStart, where, "a file begins with IN;")
	}
	after := r.afterArc
	r.afterArc = false
	switch name {
	case "IN":
		r.up()
		r.begun, r.relative, r.tool = true, false, 0
		return nil
	case "SP", "VS", "FS":
		return r.setting(name, args, where)
	case "AA":
		return r.arc(args, blade, where)
	case "PU":
		r.up()
		r.down = false
	case "PD":
		r.down = true
	case "PA", "PR":
		r.relative = name == "PR"
	}
	if len(args)%2 != 0 {
		return refuse(fault.OddNumbers, where, "%s takes pairs of numbers, and has %d", name, len(args))
	}
	for i := 0; i < len(args); i += 2 {
		to := pattern.Pt(args[i]*unit, r.height-args[i+1]*unit)
		if r.relative {
			to = r.at.Add(pattern.Pt(args[i]*unit, -args[i+1]*unit))
		}
		if after && r.line != nil && to.Sub(r.at).Len() < 2*unit { // where an arc really ends, its middle being rounded
			r.line.Path[len(r.line.Path)-1].Point = to
			r.at, after = to, false
			continue
		}
		after = false
		if err := r.to(to, 0, where); err != nil {
			return err
		}
	}
	return nil
}

func (r *hpglReader) setting(name string, args []float64, where string) error {
	if name == "SP" {
		n := 0
		if len(args) > 0 {
			n = int(args[0])
		}
		if _, known := tools[n]; len(args) > 1 || n != 0 && !known {
			return refuse(fault.UnknownTool, where, "there is no tool %v; 1 scores, 2 perforates, 3 cuts the face, 4 cuts through, 5 prints, 0 is none", args)
		}
		r.up()
		r.tool = n
		return nil
	}
	if len(args) != 1 || args[0] <= 0 {
		return refuse(fault.OddNumbers, where, "%s takes one number over 0", name)
	}
	if name == "VS" {
		r.file.Speed[tools[r.tool]] = args[0] * 10
	} else {
		r.file.Force[tools[r.tool]] = args[0]
	}
	return nil
}

// up ends the line that is being drawn.
func (r *hpglReader) up() {
	if r.line != nil {
		r.file.Lines = append(r.file.Lines, *r.line)
		r.line = nil
	}
}

// to goes on to a place, drawing with the tool down.
func (r *hpglReader) to(to pattern.Point, bulge float64, where string) error {
	if r.down {
		if r.tool == 0 {
			return refuse(fault.NoTool, where, "the tool is put down and none was selected; SP1 to SP5 select one")
		}
		if r.line == nil {
			r.line = &strokes.Line{Tool: tools[r.tool], Path: pattern.Loop{{Point: r.at}}}
		}
		r.line.Path[len(r.line.Path)-1].Bulge = bulge
		r.line.Path = append(r.line.Path, pattern.Vertex{Point: to})
		if r.points++; r.points > mostPoints {
			return refuse(fault.TooLarge, "", "there are over a million points; export the sheets one by one")
		}
	}
	r.at = to
	return nil
}

// arc goes round a middle by an angle in degrees, with the clock below 0.
func (r *hpglReader) arc(args []float64, blade float64, where string) error {
	if len(args) != 3 {
		return refuse(fault.OddNumbers, where, "AA takes a middle and an angle, three numbers")
	}
	if math.Abs(args[2]) > 360 {
		return refuse(fault.OddNumbers, where, "AA goes round once at most, by 360")
	}
	centre := pattern.Pt(args[0]*unit, r.height-args[1]*unit)
	from := r.at.Sub(centre)
	if r.down && blade > 0 && math.Abs(from.Len()-blade) < 2*unit {
		r.file.Head = true
	}
	parts := int(math.Ceil(math.Abs(args[2]) / 170))
	for range parts {
		angle := args[2] / float64(parts) * math.Pi / 180
		sin, cos := math.Sincos(-angle) // y goes down here
		from = pattern.Pt(from.X*cos-from.Y*sin, from.X*sin+from.Y*cos)
		if err := r.to(centre.Add(from), -math.Tan(angle/4), where); err != nil {
			return err
		}
	}
	r.afterArc = r.down
	return nil
}
