package main

import (
	"bufio"
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

// swap notes that something takes the place of a piece of code.
func (x *finder) swap(from, to token.Pos, now string) {
	a, b := x.at.Position(from), x.at.Position(to)
	x.found = append(x.found, mutant{x.file, a.Line, a.Offset, b.Offset, string(x.text[a.Offset:b.Offset]), now})
}

func (x *finder) of(n ast.Node) string {
	return string(x.text[x.at.Position(n.Pos()).Offset:x.at.Position(n.End()).Offset])
}

// scopes are the words for whose rows a statement touches, and what a slip writes instead.
var scopes = map[string]string{"Own": "Seen", "Seen": "Own", "Table": "Workshop"}

var other = map[token.Token]string{token.LSS: ">=", token.GEQ: "<", token.GTR: "<=", token.LEQ: ">", token.EQL: "!=", token.NEQ: "=="}
var oneMore = map[token.Token]string{token.LSS: "<=", token.GEQ: ">", token.GTR: ">=", token.LEQ: "<"}

func (x *finder) look(n ast.Node) bool {
	switch n := n.(type) {
	case *ast.BinaryExpr:
		end := n.OpPos + token.Pos(len(n.Op.String()))
		switch {
		case n.Op == token.LAND || n.Op == token.LOR:
			x.swap(n.Pos(), n.End(), x.of(n.X))
			x.swap(n.Pos(), n.End(), x.of(n.Y))
		case other[n.Op] != "" && !x.fault(n):
			x.swap(n.OpPos, end, other[n.Op])
			if now := oneMore[n.Op]; now != "" && x.whole(n.X) && x.whole(n.Y) {
				x.swap(n.OpPos, end, now)
			}
		}
	case *ast.UnaryExpr:
		if n.Op == token.NOT {
			x.swap(n.OpPos, n.OpPos+1, "")
		}
	case *ast.SelectorExpr:
		if now := scopes[n.Sel.Name]; now != "" && x.of(n.X) == "scope" {
			x.swap(n.Sel.Pos(), n.Sel.End(), now)
		}
	case *ast.GenDecl:
		if n.Tok == token.CONST {
			for _, s := range n.Specs {
				for _, v := range s.(*ast.ValueSpec).Values {
					if l, is := v.(*ast.BasicLit); is && (l.Kind == token.INT || l.Kind == token.FLOAT) {
						x.swap(l.Pos(), l.End(), "2*"+l.Value)
					}
				}
			}
		}
	}
	return true
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

// readNamed reads changes that are written down: lines of file, what stands there and what
// is put in its place, between tabs; what stands there is there once.
func readNamed(file string) ([]mutant, error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	var out []mutant
	for lines := bufio.NewScanner(f); lines.Scan(); {
		parts := strings.Split(lines.Text(), "\t")
		if len(parts) != 3 {
			return nil, fmt.Errorf("%s: %q is not three columns", file, lines.Text())
		}
		text, err := os.ReadFile(parts[0])
		if err != nil {
			return nil, err
		}
		for i := range parts {
			parts[i] = strings.NewReplacer(`\n`, "\n", `\t`, "\t").Replace(parts[i])
		}
		before, after, there := strings.Cut(string(text), parts[1])
		if !there || strings.Contains(after, parts[1]) {
			return nil, fmt.Errorf("%s: %q does not stand once in %s", file, parts[1], parts[0])
		}
		out = append(out, mutant{parts[0], 1 + strings.Count(before, "\n"), len(before), len(before) + len(parts[1]), parts[1], parts[2]})
	}
	return out, nil
}
