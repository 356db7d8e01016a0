package form

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/tool"
)

// matsText are mats as a hand writes them: A4; 12 × 24 in; 228.6 × 304.8 mm.
func matsText(all []tool.Mat) string { return listText(all, tool.Mat.Called) }

// mat reads one: a sheet's name, or width × height in the page's unit or one that is written behind.
func (f *Form) mat(text string) (tool.Mat, error) {
	text = strings.TrimSpace(text)
	if m, err := tool.ParseMat(strings.ToLower(text)); err == nil && slices.Contains(tool.Mats, m) {
		return m, nil
	}
	wide, high, both := strings.Cut(strings.NewReplacer("x", "×", "X", "×").Replace(text), "×")
	if !both {
		return tool.Mat{}, fault.New(fault.UnknownShape, "", "write a mat as A4, A3, or width × height, such as 12 × 24 in; %q is none", text)
	}
	for _, unit := range []string{"in", "mm", "cm", `"`} { // behind the height it is meant for both
		if strings.HasSuffix(strings.TrimSpace(high), unit) && !strings.HasSuffix(strings.TrimSpace(wide), unit) {
			wide += unit
			break
		}
	}
	w, err := measure.Parse(wide, f.Unit)
	if err != nil {
		return tool.Mat{}, err
	}
	h, err := measure.Parse(high, f.Unit)
	return tool.OfSize(w.MM(), h.MM()), err
}

// pressed is the word for scores that a machine presses.
const pressed = "pressed"

// MachineFields ask for a cutting machine.
func (f *Form) MachineFields(m tool.Machine) []Field {
	mats := matsText(m.Mats)
	if m.None() {
		m = tool.UsualMachine()
	}
	mm := func(l measure.Length) string { return measure.Number(l, measure.MM, measure.Hundredth) + " mm" }
	scores := cmp.Or(string(m.Scores), pressed)
	return []Field{
		f.Control("tools.machine", "Cutting machine: each mat it has", "such as 12 × 12 in; A4; the first is the usual one; empty: no machine", mats),
		f.Control("tools.machine.margin", "Margin of a cutting mat", "nothing is cut so near its edges", mm(m.Margin)),
		f.Control("tools.machine.blade", "Its blade trails by", "0.25 mm on most", mm(m.Blade)),
		f.Control("tools.machine.overcut", "A cut runs on by", "0.5 mm is usual", mm(m.Overcut)),
		f.Control("tools.machine.force", "It presses at most with", "in grams; 0 is enough for any card", strconv.Itoa(m.Force)),
		f.ChoiceField("tools.machine.scores", "Scores are made", "", scores, Choice{Value: pressed, Label: "by the machine, pressed"}, Choice{Value: string(tool.Perforated), Label: "by the machine, as perforations"}, Choice{Value: string(tool.OnBoard), Label: "on the scoring board, after cutting"}),
		f.Control("tools.machine.score", "It scores with", "in grams; 0 is half through the card", strconv.Itoa(m.ScoreForce)),
	}
}

// ReadMachine reads what MachineFields ask for.
func (f *Form) ReadMachine(m *tool.Machine) {
	had := matsText(m.Mats)
	if m.None() {
		*m = tool.UsualMachine()
	}
	m.Mats = slices.Clone(m.Mats)
	readList(f, "tools.machine", had, &m.Mats, f.mat)
	f.LongLength("tools.machine.margin", &m.Margin)
	f.LongLength("tools.machine.blade", &m.Blade)
	f.LongLength("tools.machine.overcut", &m.Overcut)
	f.Whole("tools.machine.force", &m.Force)
	f.Whole("tools.machine.score", &m.ScoreForce)
	scores := ""
	if f.Text("tools.machine.scores", &scores); f.Posted.Has("tools.machine.scores") {
		m.Scores = tool.Scores(strings.TrimPrefix(scores, pressed))
	}
	if m.None() {
		*m = tool.Machine{}
	}
}

// WithField asks what is cut with.
func (f *Form) WithField(name string, w tool.With) Field {
	var all []Choice
	for _, one := range tool.Withs {
		all = append(all, Choice{Value: one.String(), Label: withWords[one]})
	}
	return f.ChoiceField(name, "Cut with", "", w.String(), all...)
}

// withWords are what is cut with, for people.
var withWords = map[tool.With]string{
	tool.Trimmer: "a trimmer, edge to edge", tool.Scissors: "scissors, laid by shape", tool.ByMachine: "a machine, laid by shape",
}

// With reads it.
func (f *Form) With(name string, w *tool.With) {
	text := w.String()
	f.Text(name, &text)
	got, err := tool.ParseWith(text)
	if err != nil {
		f.Fail(fault.At(name, err))
		return
	}
	*w = got
}
