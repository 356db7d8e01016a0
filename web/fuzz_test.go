package web_test

import (
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/core/style"
	"brevium/web/form"
	"brevium/web/page"
	"brevium/web/webtest"
)

// readers are the forms that are posted, each with its address.
var readers = []string{
	"/boxes/1/contents", "/boxes/1/box", "/boxes/1/fit", "/boxes/1/dressing", "/boxes/1/sheets", "/boxes/1/rename", "/boxes/1/units",
	"/boxes/1/undo", "/boxes/1/redo", "/boxes/1/tick", "/boxes/1/biggest", "/boxes/1/things/add", "/boxes/1/things/import", "/boxes/1/mend",
	"/new", "/units", "/jobs", "/jobs/1", "/jobs/1/hold", "/drawer", "/drawer/1", "/drawer/import", "/data/restore", "/bin/box/1/back",
	"/boxes/1/cost", "/boxes/1/made", "/boxes/1/bench", "/jobs/1/cost", "/jobs/1/evenings", "/logbook/import", "/read", "/styles",
}

// FuzzForms posts anything to every form: it is taken, or refused with a
// sentence, never with a fault of the program; and the box can still be shown.
func FuzzForms(f *testing.F) {
	for i := range readers {
		f.Add(uint8(i), uint8(i), "")
	}
	for i := range style.All {
		if !sample.Takes(f, i) {
			continue
		}
		f.Add(uint8(1), uint8(i), "style="+style.All[i].ID)
		f.Add(uint8(0), uint8(i), "compartments.per=thing&compartments.as=insert&choosing-linings=1&linings=stiffener&linings=riser&riser=10")
		f.Add(uint8(3), uint8(i), "mats.add=base&mats[0].asked=1&mats[0].faces=front&mats[0].layers[1].border=3")
	}
	f.Add(uint8(0), uint8(0), "contents[0].length=1e300&contents[0].count=-5&contents[0].grams=NaN&add=1&remove=1&stand=9x9x9")
	f.Add(uint8(1), uint8(2), "options.tick=0&card.gsm=Inf&card.thickness=-1&size.length=%00&take=card.gsm&version=1")
	f.Add(uint8(17), uint8(0), "copies.1=2&copies.9=99999&stages=2&trim=1e9&kerf=-4&add=1&version=-7")
	f.Add(uint8(18), uint8(0), "at=0.0.0-1&x=-5&y=1e99&moving=1&turned=1&do=sheet")
	f.Fuzz(func(t *testing.T, where, kind uint8, body string) {
		x := webtest.NewTable(t)
		in := design.New("fuzzed", measure.MM, style.All[int(kind)%len(style.All)].ID)
		if kind%2 == 0 && len(in.Style) > 0 && kind < uint8(len(style.Boxes())) {
			in = design.New("fuzzed", measure.MM, style.Boxes()[kind].ID)
			in.Things = []contents.Thing{form.NewThing(contents.Round)}
		}
		if _, err := x.Store.Of(t.Context()).Add(t.Context(), in); err != nil {
			t.Fatal(err)
		}
		x.Post("/jobs", "copies.1", "2")
		path := readers[int(where)%len(readers)]
		q := httptest.NewRequest(http.MethodPost, path, strings.NewReader(body))
		q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r := httptest.NewRecorder()
		x.HTTP.ServeHTTP(r, q)
		if r.Code >= 500 {
			t.Errorf("%s with %q: %d", path, body, r.Code)
		}
		for _, stop := range []string{"contents", "box", "making"} {
			if code, _, _ := x.Get(page.StopURL(1, stop)); code >= 500 {
				t.Errorf("after %s with %q the stop %s answers %d", path, body, stop, code)
			}
		}
		if code, _, _ := x.Get("/?find=" + url.QueryEscape(body[:min(len(body), 40)])); code != http.StatusOK {
			t.Errorf("the list answers %d to %q", code, body)
		}
	})
}
