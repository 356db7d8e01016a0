package workspace_test

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// A box that is deleted or renamed out of a list that was searched leaves one in it.
func TestTheSearchStays(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	id := x.JarBox()
	_, body, _ := x.Get("/?find=jar&order=name")
	for _, hidden := range []string{`name="find" value="jar"`, `name="order" value="name"`} {
		if strings.Count(body, hidden) < 2 {
			t.Errorf("the forms of the list do not carry %s", hidden)
		}
	}
	plain := func(path string, pairs url.Values) string {
		q := httptest.NewRequest(http.MethodPost, path, strings.NewReader(pairs.Encode()))
		q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r := httptest.NewRecorder()
		x.HTTP.ServeHTTP(r, q)
		return r.Header().Get("Location")
	}
	kept := url.Values{"find": {"jar"}, "order": {"name"}, "name": {"Jar box"}}
	for _, c := range []struct{ path, to string }{{"rename", "/?find=jar&order=name"}, {"delete", fmt.Sprintf("/?deleted=%d&find=jar&order=name", id)}} {
		if got := plain(fmt.Sprintf("/boxes/%d/%s", id, c.path), kept); got != c.to {
			t.Errorf("%s leads to %s", c.path, got)
		}
	}
}

// Nobody is greeted with a fault of what they have not begun.
func TestAnEmptyTableGreets(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.Get("/styles/table?from=nothing")
	_, body, _ := x.Get("/styles/table")
	if strings.Contains(body, "Not yet:") || !strings.Contains(body, "A flat sheet as yet") {
		i := strings.Index(body, "role=\"status\"")
		t.Errorf("an empty table greets with a fault: %.300s", body[i:])
	}
}

// A box is told in the unit it was made in, wherever it is cut: no sheet, fence or bag has
// a number with a remainder, and no count runs into a size.
func TestJobsTellEachBoxInItsUnit(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	var pairs []string
	for i, unit := range []measure.Unit{measure.In, measure.CM} {
		in := design.New("Box in "+string(unit), unit, "tray-lid")
		id, err := x.Store.Of(t.Context()).Add(t.Context(), in)
		if err != nil {
			t.Fatal(err)
		}
		pairs = append(pairs, fmt.Sprintf("copies.%d", id), fmt.Sprint(3+i))
	}
	x.Post("/jobs", append(pairs, "name", "Both")...)
	remainder := regexp.MustCompile(`(in|cm) [+−] [\d.]+ mm|\d+ × \d+ × \d`)
	for _, path := range []string{"/jobs/1", "/jobs/1/kits"} {
		code, page, _ := x.Get(path)
		if m := remainder.FindString(page); code != 200 || m != "" {
			t.Errorf("%s: %d, tells %q", path, code, m)
		}
		if !strings.Contains(page, " cm") || !strings.Contains(page, " in") {
			t.Errorf("%s does not tell each box in its unit", path)
		}
	}
}
