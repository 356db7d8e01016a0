package stylefile

import (
	"math"
	"regexp"
	"slices"

	"github.com/expr-lang/expr"
	"github.com/expr-lang/expr/ast"
	"github.com/expr-lang/expr/vm"

	"brevium/core/fault"
	"brevium/core/measure"
)

// formula is a length worked out from named sizes, in mm.
type formula struct {
	text    string
	program *vm.Program
}

// Limits of a formula.
const (
	longestFormula = 200
	mostNodes      = 80
)

// withUnit finds a number with its unit: "1/16 in", "0.5 mm", "3 cm".
var withUnit = regexp.MustCompile(`(\d+(?:\.\d+)?(?:\s*/\s*\d+)?)\s*(in|cm|mm)\b`)

// perUnit is how many mm a unit has.
var perUnit = map[string]string{"in": "25.4", "cm": "10", "mm": "1"}

// functions are all that a formula can call.
var functions = map[string]any{
	"min":  func(a, b float64) float64 { return math.Min(a, b) },
	"max":  func(a, b float64) float64 { return math.Max(a, b) },
	"sqrt": math.Sqrt,
	// down and up round to a step, such as the ruler's tick.
	"down": func(x, step float64) float64 { return math.Floor(x/step+1e-9) * step },
	"up":   func(x, step float64) float64 { return math.Ceil(x/step-1e-9) * step },
	// asin and atan give degrees.
	"asin": func(x float64) float64 { return math.Asin(x) * 180 / math.Pi },
	"atan": func(x float64) float64 { return math.Atan(x) * 180 / math.Pi },
}

// compile reads a formula of the names. Nothing but arithmetic is allowed: numbers,
// names, + − * /, brackets and the few functions.
func compile(text string, names []string) (formula, error) {
	wrong := func(says string, args ...any) error { return fault.New(fault.Invalid, "", says, args...) }
	if text == "" {
		return formula{}, fault.New(fault.Empty, "", "a formula is missing; write one such as L/2 + 1/16 in")
	}
	if len(text) > longestFormula {
		return formula{}, wrong("a formula has up to %d letters", longestFormula)
	}
	plain := withUnit.ReplaceAllStringFunc(text, func(s string) string {
		m := withUnit.FindStringSubmatch(s)
		return "((" + m[1] + ")*" + perUnit[m[2]] + ")"
	})
	env := map[string]any{}
	for _, n := range names {
		env[n] = 0.0
	}
	for n, f := range functions {
		env[n] = f
	}
	only := &arithmetic{names: names}
	p, err := expr.Compile(plain, expr.Env(env), expr.AsFloat64(), expr.DisableAllBuiltins(), expr.Patch(only), expr.MaxNodes(mostNodes))
	switch {
	case only.unknown != "":
		return formula{}, wrong("%q is none of the sizes that %q can use", only.unknown, text)
	case only.other:
		return formula{}, wrong("%q is more than arithmetic; use numbers, sizes, + - * / and min, max, sqrt", text)
	case err != nil:
		return formula{}, wrong("%q is no formula that can be worked out; use the sizes, + - * / and units as in L/2 + 1/16 in", text)
	}
	return formula{text, p}, nil
}

// arithmetic looks for what a formula may not be.
type arithmetic struct {
	names   []string
	other   bool
	unknown string // a name that is none of names
}

// Visit is called for each part of a formula.
func (a *arithmetic) Visit(node *ast.Node) {
	switch n := (*node).(type) {
	case *ast.IntegerNode, *ast.FloatNode:
	case *ast.IdentifierNode:
		if !slices.Contains(a.names, n.Value) && functions[n.Value] == nil {
			a.unknown = n.Value
		}
	case *ast.UnaryNode:
		a.other = a.other || n.Operator != "-" && n.Operator != "+"
	case *ast.BinaryNode:
		switch n.Operator {
		case "+", "-", "*", "/":
		default:
			a.other = true
		}
	case *ast.CallNode:
		name, is := n.Callee.(*ast.IdentifierNode)
		a.other = a.other || !is || functions[name.Value] == nil
		for i, arg := range n.Arguments { // whole numbers are numbers, too
			if w, whole := arg.(*ast.IntegerNode); whole {
				n.Arguments[i] = &ast.FloatNode{Value: float64(w.Value)}
			}
		}
	default:
		a.other = true
	}
}

// number works a formula out with sizes in mm.
func (f formula) number(sizes map[string]float64) (float64, error) {
	env := map[string]any{}
	for n, v := range sizes {
		env[n] = v
	}
	for n, fn := range functions {
		env[n] = fn
	}
	out, err := expr.Run(f.program, env)
	x, is := out.(float64)
	if err != nil || !is || math.IsNaN(x) || math.IsInf(x, 0) || math.Abs(x) > 1e5 {
		return 0, fault.New(fault.Invalid, "", "%q comes to nothing that can be measured here; does it divide by nothing?", f.text)
	}
	return x, nil
}

// length is a formula's length, to the nanometre.
func (f formula) length(sizes map[string]float64) (measure.Length, error) {
	mm, err := f.number(sizes)
	return measure.FromMM(mm), err
}
