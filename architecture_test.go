package brevium

import (
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
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

// The core computes; these belong to the rooms around it.
var outside = []string{"net/http", "database/sql", "html/template", "github.com/labstack/echo"}

func TestArrowsPointOneWay(t *testing.T) {
	may := rooms(t)
	seen := map[string]bool{}
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git") {
			return fs.SkipDir
		}
		room := filepath.ToSlash(filepath.Dir(path))
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") || room == "." {
			return nil
		}
		seen[room] = true
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		for _, spec := range file.Imports {
			checkImport(t, may, path, room, strings.Trim(spec.Path.Value, `"`))
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	for room := range may {
		if !seen[room] {
			t.Errorf("the room %s has no code", room)
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
