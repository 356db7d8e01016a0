package brevium

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"
)

// rooms lists, for each package of this module, the ones it may import. The
// arrows run one way: web and cmd see everything, the core sees no interface.
var rooms = map[string][]string{
	"core/fault":    {},
	"core/strict":   {"core/fault"},
	"core/measure":  {"core/fault"},
	"core/paper":    {"core/fault", "core/measure"},
	"core/pattern":  {"core/fault", "core/measure"},
	"core/contents": {"core/fault", "core/measure"},
	"core/fit":      {"core/fault", "core/measure"},
	"core/dress":    {"core/fault", "core/measure", "core/paper", "core/pattern"},
	"core/layout":   {"core/fault", "core/measure", "core/paper", "core/strict"},
	"core/style":    {"core/fault", "core/measure", "core/pattern", "core/fit"},
	"core/recipe":   {"core/measure", "core/paper", "core/pattern", "core/dress", "core/style"},
	"core/inspect":  {"core/measure", "core/pattern", "core/fit", "core/style", "core/recipe"},
	"core/design":   {"core/*"},
	"core/drawer":   {"core/fault", "core/measure", "core/paper", "core/layout"},
	"core/batch":    {"core/*"},
	"draw":          {"core/*"},
	"draw/pdf":      {"core/*", "draw"},
	"store":         {"core/batch", "core/contents", "core/design", "core/drawer", "core/fault", "core/paper"},
	"web":           {"core/*", "store", "web/page", "web/boxes", "web/workspace", "web/jobs", "web/drawer"},
	"web/form":      {"core/*"},
	"web/page":      {"core/*", "draw", "store", "web/form"},
	"web/boxes":     {"core/*", "store", "web/form", "web/page"},
	"web/workspace": {"core/*", "caliper", "draw", "draw/pdf", "store", "web/form", "web/page"},
	"web/jobs":      {"core/*", "draw", "store", "web/form", "web/page"},
	"web/drawer":    {"core/*", "draw", "store", "web/form", "web/page"},
	"cmd/brevium":   {"core/*", "store", "web"},

	"caliper":           {"core/measure"},
	"tools/screenshots": {},
	"tools/layoutbench": {"core/layout", "core/measure", "core/paper"},
}

// The core computes; these belong to the rooms around it.
var outside = []string{"net/http", "database/sql", "html/template", "github.com/labstack/echo"}

func TestArrowsPointOneWay(t *testing.T) {
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
			checkImport(t, path, room, strings.Trim(spec.Path.Value, `"`))
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	for room := range rooms {
		if !seen[room] {
			t.Errorf("the room %s has no code", room)
		}
	}
}

func checkImport(t *testing.T, path, room, imported string) {
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
