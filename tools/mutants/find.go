package main

import (
	"fmt"
	"go/ast"
	"go/constant"
	"go/token"
	"go/types"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"golang.org/x/tools/go/packages"
)

// find lists all changes of the conditions in some packages: comparisons that take in one
// more or are the other way round, halves of "and" and "or" left out, a "not" lost, a limit
// doubled, and whose rows a statement touches.
func find(patterns ...string) ([]mutant, error) {
	all, err := packages.Load(&packages.Config{Mode: packages.NeedName | packages.NeedFiles | packages.NeedSyntax | packages.NeedTypes | packages.NeedTypesInfo}, patterns...)
	if err != nil {
		return nil, err
	}
	here, err := os.Getwd()
	if err != nil {
		return nil, err
	}
	var out []mutant
	uses := map[string][]mark{}
	for _, p := range all {
		if len(p.Errors) > 0 {
			return nil, p.Errors[0]
		}
		for _, f := range p.Syntax {
			path := p.Fset.Position(f.Pos()).Filename
			name, err := filepath.Rel(here, path)
			if err != nil {
				return nil, err
			}
			text, err := os.ReadFile(path)
			if err != nil {
				return nil, err
			}
			x := finder{p.Fset, p.TypesInfo, name, text, nil}
			ast.Inspect(f, x.look)
			out = append(out, x.found...)
			x.uses(f, uses)
		}
	}
	for i, m := range out {
		if m.object != nil {
			out[i].used = uses[where(m.object)]
		}
	}
	slices.SortFunc(out, func(a, b mutant) int { return strings.Compare(fmt.Sprint(a, a.from), fmt.Sprint(b, b.from)) })
	return out, nil
}

// finder goes over one file.
type finder struct {
	at    *token.FileSet
	types *types.Info
	file  string
	text  []byte
	found []mutant
}

// swap notes that something takes the place of a piece of code, put together of its parts.
func (x *finder) swap(k kind, n ast.Node, now ...part) {
	m := mutant{file: x.file, line: x.at.Position(n.Pos()).Line, kind: k, span: x.span(n), parts: now}
	m.was, m.now = m.span.of(x.text), m.told(x.text)
	x.found = append(x.found, m)
}

func (x *finder) span(n ast.Node) span {
	return span{x.at.Position(n.Pos()).Offset, x.at.Position(n.End()).Offset}
}

func (x *finder) of(n ast.Node) string { return x.span(n).of(x.text) }

// kept is a part that stands there already, word one that does not.
func (x *finder) kept(n ast.Node) part { return part{span: x.span(n)} }
func word(text string) part            { return part{text: text} }

// scopes are the words for whose rows a statement touches, and what a slip writes instead.
var scopes = map[string]string{"Own": "Seen", "Seen": "Own", "Table": "Workshop"}

var other = map[token.Token]string{token.LSS: ">=", token.GEQ: "<", token.GTR: "<=", token.LEQ: ">", token.EQL: "!=", token.NEQ: "=="}
var oneMore = map[token.Token]string{token.LSS: "<=", token.GEQ: ">", token.GTR: ">=", token.LEQ: "<"}

func (x *finder) look(n ast.Node) bool {
	if e, is := n.(ast.Expr); is && x.types.Types[e].Value != nil {
		return false // worked out by the compiler
	}
	switch n := n.(type) {
	case *ast.BinaryExpr:
		switch {
		case !x.truth(n):
		case n.Op == token.LAND || n.Op == token.LOR:
			x.swap(condition, n, x.kept(n.X))
			x.swap(condition, n, x.kept(n.Y))
		case other[n.Op] != "" && !x.fault(n):
			x.swap(condition, n, x.kept(n.X), word(" "+other[n.Op]+" "), x.kept(n.Y))
			if now := oneMore[n.Op]; now != "" && x.whole(n.X) && x.whole(n.Y) {
				x.swap(condition, n, x.kept(n.X), word(" "+now+" "), x.kept(n.Y))
			}
		}
	case *ast.UnaryExpr:
		if n.Op == token.NOT && x.truth(n) {
			x.swap(condition, n, x.kept(n.X))
		}
	case *ast.SelectorExpr:
		if now := scopes[n.Sel.Name]; now != "" && x.of(n.X) == "scope" {
			x.swap(choice, n, word("scope."+now))
		}
	case *ast.GenDecl:
		if n.Tok == token.CONST {
			for _, s := range n.Specs {
				for i, v := range s.(*ast.ValueSpec).Values {
					if l, is := v.(*ast.BasicLit); is && (l.Kind == token.INT || l.Kind == token.FLOAT) {
						x.swap(limit, l, word("2*"+l.Value))
						x.found[len(x.found)-1].object = x.types.Defs[s.(*ast.ValueSpec).Names[i]]
					}
				}
			}
		}
	}
	return true
}

// truth tells an expression that is a plain bool.
func (x *finder) truth(e ast.Expr) bool {
	t := x.types.TypeOf(e)
	return t == types.Typ[types.Bool] || t == types.Typ[types.UntypedBool]
}

// where names a constant in a way that holds between packages that are read apart.
func where(o types.Object) string {
	if o.Pkg() == nil {
		return o.Name()
	}
	return o.Pkg().Path() + "." + o.Name()
}

// uses notes at which functions' beginnings one can see that a constant is used.
func (x *finder) uses(f *ast.File, all map[string][]mark) {
	for _, d := range f.Decls {
		fn, is := d.(*ast.FuncDecl)
		if !is || fn.Body == nil {
			continue
		}
		at, met := mark{x.file, x.at.Position(fn.Body.Lbrace).Offset + 1}, map[string]bool{}
		ast.Inspect(fn, func(n ast.Node) bool {
			if id, is := n.(*ast.Ident); is {
				if c, is := x.types.Uses[id].(*types.Const); is && !met[where(c)] {
					met[where(c)] = true
					all[where(c)] = append(all[where(c)], at)
				}
			}
			return true
		})
	}
}

// fault tells the comparison of an error with nil: what comes of a disk that fails is tried
// by other means.
func (x *finder) fault(n *ast.BinaryExpr) bool {
	t := x.types.TypeOf(n.X)
	return t != nil && types.Identical(t, types.Universe.Lookup("error").Type())
}

// whole tells a whole number, of which one more or less makes a difference.
func (x *finder) whole(e ast.Expr) bool {
	tv := x.types.Types[e]
	if tv.Value != nil && tv.Value.Kind() == constant.Int {
		return true
	}
	b, is := tv.Type.Underlying().(*types.Basic)
	return is && b.Info()&types.IsInteger != 0
}
