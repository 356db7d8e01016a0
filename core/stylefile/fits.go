package stylefile

import (
	"cmp"
	"strings"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/fault"
	"brevium/core/fit"
	"brevium/core/measure"
	"brevium/core/style"
)

// What goes over what.
type (
	// allowance is how much bigger the outer piece is: a name for formulas, left out to
	// have it worked out for the fit that is wished.
	allowance struct {
		As    string       `json:"as"`
		Usual measure.Text `json:"usual,omitempty"` // 1/16 in where nothing is said
		About string       `json:"about,omitempty"`
	}
	// fits is that one piece goes over another, along one axis of the box.
	fits struct {
		Kind        string `json:"kind"`
		Outer       string `json:"outer"`
		Inner       string `json:"inner"`
		OuterName   string `json:"outer_name,omitempty"` // where it is only half of a piece
		InnerName   string `json:"inner_name,omitempty"`
		Along       string `json:"along"`
		OuterSpan   string `json:"outer_span"` // formulas, from score to score
		InnerSpan   string `json:"inner_span"`
		OuterDepth  string `json:"outer_depth,omitempty"` // how far down each wall comes
		InnerDepth  string `json:"inner_depth,omitempty"`
		OuterLayers int    `json:"outer_layers,omitempty"` // of card in the gap, both sides together
		InnerLayers int    `json:"inner_layers,omitempty"`
		OuterWhat   string `json:"outer_what,omitempty"` // what the layers are
		InnerWhat   string `json:"inner_what,omitempty"`
	}
)

// spanned is a formula of a fit, and where its length goes.
type spanned struct {
	field, text string
	into        *measure.Length
}

func (x fits) formulas(p *fit.Pair) []spanned {
	return []spanned{
		{"outer_span", x.OuterSpan, &p.OuterSpan}, {"inner_span", x.InnerSpan, &p.InnerSpan},
		{"outer_depth", x.OuterDepth, &p.OuterDepth}, {"inner_depth", x.InnerDepth, &p.InnerDepth},
	}
}

// kinds of going over one another.
var kinds = map[string]*fit.Kind{"lid": fit.LidOn, "sleeve": fit.SleeveRound, "cover": fit.CoverRound, "shuts": fit.ShutsOver}

// facings are how a piece stands; nothing said is with its root on the table.
var facings = map[string]style.Facing{"": style.Upwards, "upwards": style.Upwards, "upright": style.Upright}

const (
	mostFits   = 12
	mostLayers = 8
)

// readyFits checks what goes over what and compiles its formulas.
func (m *maker) readyFits() error {
	if len(m.Fits) > mostFits {
		return fault.New(fault.CountRange, "fits", "a style has up to %d fits", mostFits)
	}
	for i, x := range m.Fits {
		at := fault.Path("fits", i)
		if kinds[x.Kind] == nil {
			return fault.New(fault.UnknownChoice, fault.Path(at, "kind"), "%q is no kind of fit; use lid, sleeve, cover or shuts", x.Kind)
		}
		if x.Along != "length" && x.Along != "width" && x.Along != "height" {
			return fault.New(fault.UnknownChoice, fault.Path(at, "along"), "a fit is along the length, width or height")
		}
		if min(x.OuterLayers, x.InnerLayers) < 0 || max(x.OuterLayers, x.InnerLayers) > mostLayers {
			return fault.New(fault.CountRange, fault.Path(at, "outer_layers"), "0 to %d layers lie in a gap", mostLayers)
		}
		for _, id := range []string{x.Outer, x.Inner} {
			if m.called(id) == "" {
				return fault.New(fault.UnknownField, at, "%q is none of its pieces", id)
			}
		}
		for _, f := range x.formulas(&fit.Pair{}) {
			if f.text == "" && strings.HasSuffix(f.field, "depth") {
				continue
			}
			if err := m.book.ready(fault.Path(at, f.field), m.names, f.text); err != nil {
				return err
			}
		}
	}
	return nil
}

// readyAllowance makes the option of how much bigger the outer piece is.
func (m *maker) readyAllowance() error {
	a := m.Allowance
	if a == nil {
		return nil
	}
	if !m.free(a.As) {
		return fault.New(fault.Invalid, "allowance.as", "%q cannot be the allowance's name in formulas; use letters, such as a", a.As)
	}
	m.names = append(m.names, a.As)
	usual := measure.Inch / 16
	if a.Usual != "" {
		l, err := a.Usual.Length(measure.MM)
		if err != nil {
			return fault.At("allowance.usual", err)
		}
		usual = l
	}
	if usual < 0 || usual > fit.LargestAllowance {
		return fault.New(fault.OutOfRange, "allowance.usual", "an allowance is 0 to %g mm", fit.LargestAllowance.MM())
	}
	if a.About == "" {
		a.About = "How much bigger the outer piece is; leave it out to have it worked out"
	}
	m.allowance = &style.Option{ID: style.AllowanceID, Label: "How much bigger the lid is", Kind: style.LengthKind, Default: usual, Max: fit.LargestAllowance, ForFit: true, About: a.About}
	return nil
}

// pairs are what goes over what at some sizes.
func (m *maker) pairs(s style.Spec, sizes map[string]float64) ([]fit.Pair, error) {
	var out []fit.Pair
	for i, x := range m.Fits {
		pair := fit.Pair{
			Kind: kinds[x.Kind], Outer: x.Outer, Inner: x.Inner, Axis: x.Along, OuterName: cmp.Or(x.OuterName, m.called(x.Outer)), InnerName: cmp.Or(x.InnerName, m.called(x.Inner)),
			OuterCard: s.Card(x.Outer), InnerCard: s.Card(x.Inner), OuterLayers: x.OuterLayers, InnerLayers: x.InnerLayers, OuterWhat: x.OuterWhat, InnerWhat: x.InnerWhat,
		}
		for _, f := range x.formulas(&pair) {
			if f.text == "" {
				continue
			}
			l, err := m.book[f.text].length(sizes)
			if err != nil {
				return nil, fault.At(fault.Path(fault.Path("fits", i), f.field), err)
			}
			*f.into = l
		}
		out = append(out, pair)
	}
	return out, nil
}

// called is the name of a piece; "" where there is none.
func (m *maker) called(id string) string {
	for _, p := range m.Pieces {
		if p.ID == id {
			return p.Name
		}
	}
	return ""
}

// stand puts a piece where it is in the finished box, and how far it is lifted to open.
func (p made) stand(part *style.Part, sizes map[string]float64) error {
	part.Opens = facings[p.Opens]
	for _, x := range []struct {
		field, text string
		into        *r3.Vec
	}{{"stands", p.Stands, &part.At}, {"lifts", p.Lifts, &part.Away}} {
		if x.text == "" {
			continue
		}
		high, err := p.book[x.text].length(sizes)
		if err != nil {
			return fault.At(x.field, err)
		}
		x.into.Z = high.MM()
	}
	return nil
}
