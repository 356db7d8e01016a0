package brevium

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"brevium/core/style"
)

// row is one room in the table of ARCHITECTURE.md: its name, what it is, and
// what it may import.
var row = regexp.MustCompile("(?m)^\\| `([a-z/]+)` \\| [^|]+ \\|([^|]*)\\|$")

// rooms reads the map: for each package of this module, the ones it may
// import. The arrows run one way.
func rooms(t *testing.T) map[string][]string {
	t.Helper()
	text, err := os.ReadFile("ARCHITECTURE.md")
	if err != nil {
		t.Fatal(err)
	}
	out := map[string][]string{}
	for _, m := range row.FindAllStringSubmatch(string(text), -1) {
		out[m[1]] = strings.Fields(strings.ReplaceAll(m[2], "`", ""))
	}
	if len(out) < 20 {
		t.Fatalf("the map has %d rooms", len(out))
	}
	return out
}

// each hands over every file of the program's rooms that is no test.
func each(t *testing.T, do func(path string, file *ast.File)) {
	t.Helper()
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git") {
			return fs.SkipDir
		}
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") || filepath.Dir(path) == "." {
			return nil
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.SkipObjectResolution)
		if err == nil {
			do(filepath.ToSlash(path), file)
		}
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
}

// The core computes; these belong to the rooms around it.
var outside = []string{"net/http", "database/sql", "html/template", "github.com/labstack/echo"}

func TestArrowsPointOneWay(t *testing.T) {
	may := rooms(t)
	seen, used := map[string]bool{}, map[string]map[string]bool{}
	each(t, func(path string, file *ast.File) {
		room := filepath.ToSlash(filepath.Dir(path))
		if !seen[room] {
			seen[room], used[room] = true, map[string]bool{}
		}
		for _, spec := range file.Imports {
			imported := strings.Trim(spec.Path.Value, `"`)
			used[room][strings.TrimPrefix(imported, "brevium/")] = true
			checkImport(t, may, path, room, imported)
		}
	})
	for room, sees := range may {
		if !seen[room] {
			t.Errorf("the room %s has no code", room)
		}
		for _, m := range sees {
			if all := strings.HasSuffix(m, "*"); all && room != "core/design" && room != "web" {
				t.Errorf("the map lets %s see %s: name the rooms one by one", room, m)
			} else if !all && !used[room][m] {
				t.Errorf("the map lets %s see %s, which it does not", room, m)
			}
		}
	}
}

func checkImport(t *testing.T, rooms map[string][]string, path, room, imported string) {
	t.Helper()
	may, known := rooms[room]
	if !known {
		t.Errorf("%s lies in a room that the map does not have: %s", path, room)
		return
	}
	if strings.HasPrefix(room, "core/") {
		for _, o := range outside {
			if strings.HasPrefix(imported, o) {
				t.Errorf("%s: the core reaches %s", path, imported)
			}
		}
	}
	own, ours := strings.CutPrefix(imported, "brevium/")
	if !ours {
		return
	}
	for _, m := range may {
		if m == own || m == "core/*" && strings.HasPrefix(own, "core/") {
			return
		}
	}
	t.Errorf("%s: %s may not import %s", path, room, own)
}

// Outside core/style, and the demo and the tests, which are designs, nothing knows a style, an
// option or a choice by its id: what a rule needs to know of a box is asked of its style.
func TestNoStyleIsNamedOutsideItsRoom(t *testing.T) {
	ids := map[string]bool{}
	for _, s := range style.All {
		if strings.Contains(s.ID, "-") { // "tray" and "nest" are words besides
			ids[s.ID] = true
		}
		for _, o := range s.Options {
			if strings.Contains(o.ID, ".") {
				ids[o.ID] = true
			}
			for _, c := range o.Choices {
				if strings.Contains(c, "-") && o != style.AdhesiveOption() { // wet glue stands in the cupboard too
					ids[c] = true
				}
			}
		}
	}
	asks := regexp.MustCompile(`(Choices|Lengths|Size)$`)
	each(t, func(path string, file *ast.File) {
		if strings.HasPrefix(path, "core/style/") || strings.HasPrefix(path, "tools/") || strings.Contains(path, "demo") || strings.HasPrefix(path, "web/webtest/") {
			return
		}
		ast.Inspect(file, func(n ast.Node) bool {
			switch x := n.(type) {
			case *ast.BasicLit:
				if text, err := strconv.Unquote(x.Value); err == nil && x.Kind == token.STRING && ids[text] {
					t.Errorf("%s names %q, which only its style is to know", path, text)
				}
			case *ast.IndexExpr:
				of, selected := x.X.(*ast.SelectorExpr)
				lit, literal := x.Index.(*ast.BasicLit)
				if selected && literal && asks.MatchString(of.Sel.Name) {
					t.Errorf("%s asks a design for %s by name", path, lit.Value)
				}
			}
			return true
		})
	})
}
