// Package webtest is the application for the tests of its rooms: on a fresh database, alone or as
// a workshop, asked as a browser asks, and with things on the table.
package webtest

import (
	"bytes"
	"fmt"
	"html"
	"io"
	"log/slog"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/store"
	"brevium/store/boxshelf"
	"brevium/store/jobbook"
	"brevium/store/storetest"
	"brevium/web"
	"brevium/web/form"
	"brevium/web/page"
)

// Table is the application on a fresh database.
type Table struct {
	T     testing.TB
	Store *store.Store
	HTTP  http.Handler
}

// NewTable is the application with nothing on it.
func NewTable(t testing.TB) *Table {
	t.Helper()
	return TableOf(t, storetest.Open(t))
}

// TableOf is the application on a store.
func TableOf(t testing.TB, s *store.Store) *Table {
	t.Helper()
	h, err := web.New(s, pictures, Quiet())
	if err != nil {
		t.Fatal(err)
	}
	return &Table{t, s, h}
}

// Quiet is a log that nobody reads.
func Quiet() *slog.Logger { return slog.New(slog.NewTextHandler(io.Discard, nil)) }

// Workshop is a table with a bit of everything on it.
func Workshop(t *testing.T) *Table {
	t.Helper()
	x := NewTable(t)
	x.JarBox()
	second := x.JarBox()
	x.Post("/boxes/2/rename", "name", "Second")
	x.Post("/boxes/2/sheets", "copies", "3")
	x.Post("/boxes/1/tick", "step", "cut/base", "mark", "m", "done", "1")
	card := x.Box(second).Inputs.Card
	sheet, _ := paper.SheetNamed("12 × 12 in")
	lot := drawer.Lot{Card: card, Sheet: sheet.Name, Width: sheet.Width, Height: sheet.Height, Count: 20, Price: 0.5}
	lot.Card.Direction = paper.NoDirection
	if err := x.Store.Of(t.Context()).AddLots(t.Context(), []drawer.Lot{lot}); err != nil {
		t.Fatal(err)
	}
	x.Post("/jobs", "copies.1", "2", "copies.2", "1", "name", "fair")
	x.Post("/jobs", "copies.2", "2", "name", "later")
	if code, body, _ := x.Post("/jobs/1/begin"); code != http.StatusNoContent {
		t.Fatalf("the job does not begin: %d %s", code, body)
	}
	return x
}

// Carried keeps a carrier of three small boxes and gives its number.
func (x *Table) Carried() int64 {
	x.T.Helper()
	n, err := x.Store.Of(x.T.Context()).Add(x.T.Context(), design.New("Teas", measure.MM, "fold-out-carrier"))
	if err != nil {
		x.T.Fatal(err)
	}
	return n
}

// Submit sends a form as a page without scripts does, and gives where it leads.
func (x *Table) Submit(path string, form url.Values) string {
	x.T.Helper()
	q := httptest.NewRequest(http.MethodPost, path, strings.NewReader(form.Encode()))
	q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, q)
	if r.Code != http.StatusSeeOther {
		x.T.Errorf("%s: %d\n%s", path, r.Code, r.Body.String())
	}
	return r.Header().Get("Location")
}

// Send posts a form with a file, as a page without scripts does.
func (x *Table) Send(path string, file []byte, pairs ...string) (int, string, http.Header) {
	x.T.Helper()
	var body bytes.Buffer
	form := multipart.NewWriter(&body)
	for i := 0; i < len(pairs); i += 2 {
		if err := form.WriteField(pairs[i], pairs[i+1]); err != nil {
			x.T.Fatal(err)
		}
	}
	part, err := form.CreateFormFile("file", "f")
	if err == nil {
		_, err = part.Write(file)
	}
	if err != nil || form.Close() != nil {
		x.T.Fatal(err)
	}
	q := httptest.NewRequest(http.MethodPost, path, &body)
	q.Header.Set("Content-Type", form.FormDataContentType())
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, q)
	return r.Code, r.Body.String(), r.Header()
}

// Told is what is on a table, in words.
func (x *Table) Told() string {
	x.T.Helper()
	boxes, err := x.Store.Of(x.T.Context()).Boxes(x.T.Context())
	if err != nil {
		x.T.Fatal(err)
	}
	var out []string
	for _, b := range boxes {
		ticks, err := x.Store.Of(x.T.Context()).Ticks(x.T.Context(), b.ID)
		if err != nil {
			x.T.Fatal(err)
		}
		out = append(out, fmt.Sprintf("%s × %d, %d ticked", b.Name, b.Inputs.Copies, len(ticks)))
	}
	lots, err := x.Store.Of(x.T.Context()).Lots(x.T.Context())
	if err != nil {
		x.T.Fatal(err)
	}
	for _, l := range lots {
		out = append(out, fmt.Sprintf("%d %s, %d reserved", l.Count, l.Sheet, l.Reserved))
	}
	jobs, err := x.Store.Of(x.T.Context()).Jobs(x.T.Context())
	if err != nil {
		x.T.Fatal(err)
	}
	for _, j := range jobs {
		out = append(out, fmt.Sprintf("%s %s, %d kinds", j.Name, j.State, len(j.Items)))
	}
	things, err := x.Store.Of(x.T.Context()).Things(x.T.Context())
	if err != nil {
		x.T.Fatal(err)
	}
	return strings.Join(append(out, fmt.Sprintf("%d things", len(things))), "; ")
}

// Lot is a pile of the jar box's card.
func (x *Table) Lot(count int, w, h measure.Length, offcut bool) {
	x.T.Helper()
	l := drawer.Lot{
		Card:   paper.Card{Name: "Plain card", GSM: 240, Direction: paper.NoDirection},
		Width:  w,
		Height: h,
		Count:  count,
		Price:  0.8,
		Offcut: offcut,
	}
	l.Complete()
	if err := x.Store.Of(x.T.Context()).AddLots(x.T.Context(), []drawer.Lot{l}); err != nil {
		x.T.Fatal(err)
	}
}

// Job is a job as it is kept.
func (x *Table) Job(n int64) jobbook.Job {
	x.T.Helper()
	j, err := x.Store.Of(x.T.Context()).Job(x.T.Context(), n)
	if err != nil {
		x.T.Fatal(err)
	}
	return j
}

// Counts gives the drawer as "count/reserved" of each lot in order.
func (x *Table) Counts() string {
	x.T.Helper()
	lots, err := x.Store.Of(x.T.Context()).Lots(x.T.Context())
	if err != nil {
		x.T.Fatal(err)
	}
	var out []string
	for _, l := range lots {
		mark := ""
		if l.Offcut {
			mark = "o"
		}
		out = append(out, fmt.Sprintf("%d/%d%s", l.Count, l.Reserved, mark))
	}
	return strings.Join(out, " ")
}

// Listed follows the list to its end and gives the names in order.
func (x *Table) Listed(path string) (names []string, parts int) {
	x.T.Helper()
	for {
		_, body, _ := x.Get(path)
		parts++
		for _, m := range boxNames.FindAllStringSubmatch(body, -1) {
			names = append(names, m[1])
		}
		m := nextPart.FindStringSubmatch(body)
		if m == nil || parts > 20 {
			return names, parts
		}
		path = strings.ReplaceAll(m[1], "&amp;", "&")
	}
}

// Photographed sends a picture, straightens it and puts it in the drawer.
func (x *Table) Photographed(n int) paper.Card {
	x.T.Helper()
	code, page, header := x.Send("/papers", PaperPicture(x.T, n))
	if code != http.StatusSeeOther {
		x.T.Fatalf("sent: %d %s", code, page)
	}
	code, page, _ = x.Post(header.Get("Location"), "x0", "0", "y0", "0", "x1", "100", "y1", "0", "x2", "100", "y2", "100", "x3", "0", "y3", "100",
		"wide", "160 mm", "high", "120 mm", "name", fmt.Sprintf("Paper %d of ours", n), "gsm", "120", "direction", "one-way-up", "sheet", "12 × 12 in", "count", "3")
	if code != http.StatusNoContent {
		x.T.Fatalf("straightened: %d %s", code, page)
	}
	lots, err := x.Store.Of(x.T.Context()).Lots(x.T.Context())
	if err != nil {
		x.T.Fatal(err)
	}
	return lots[len(lots)-1].Card
}

// As posts a form from a window of the given name that shows a version.
func (x *Table) As(window string, version int64, path string, pairs ...string) (int, string) {
	x.T.Helper()
	f := url.Values{"version": {page.Itoa(version)}}
	for i := 0; i < len(pairs); i += 2 {
		f.Add(pairs[i], pairs[i+1])
	}
	q := httptest.NewRequest(http.MethodPost, path, strings.NewReader(f.Encode()))
	q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	q.Header.Set("HX-Request", "true")
	q.Header.Set("X-Window", window)
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, q)
	return r.Code, r.Body.String()
}

// JarBox keeps a box for four jars and gives its number.
func (x *Table) JarBox() int64 {
	x.T.Helper()
	in := design.New("Jars", measure.In, "tray-lid")
	jar := form.NewThing(contents.Round)
	jar.Count = 4
	in.Things = []contents.Thing{jar}
	id, err := x.Store.Of(x.T.Context()).Add(x.T.Context(), in)
	if err != nil {
		x.T.Fatal(err)
	}
	return id
}

// Box is a box as it is kept.
func (x *Table) Box(id int64) boxshelf.Box {
	x.T.Helper()
	b, err := x.Store.Of(x.T.Context()).Box(x.T.Context(), id)
	if err != nil {
		x.T.Fatal(err)
	}
	return b
}

// Get asks for a page.
func (x *Table) Get(path string) (int, string, http.Header) {
	x.T.Helper()
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, httptest.NewRequest(http.MethodGet, path, nil))
	return r.Code, r.Body.String(), r.Header()
}

// Post sends a form as htmx does; pairs are names and values.
func (x *Table) Post(path string, pairs ...string) (int, string, http.Header) {
	x.T.Helper()
	form := url.Values{}
	for i := 0; i < len(pairs); i += 2 {
		form.Add(pairs[i], pairs[i+1])
	}
	q := httptest.NewRequest(http.MethodPost, path, strings.NewReader(form.Encode()))
	q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	q.Header.Set("HX-Request", "true")
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, q)
	return r.Code, r.Body.String(), r.Header()
}

// Words is what stands on a page to be read.
func (x *Table) Words(path string) string {
	x.T.Helper()
	_, body, _ := x.Get(path)
	return strings.Join(strings.Fields(html.UnescapeString(tags.ReplaceAllString(body, " "))), " ")
}

// boxNames are the names on the list of boxes, and nextPart leads to what follows on it.
var boxNames = regexp.MustCompile(`<h2><a href="/boxes/\d+">([^<]+)</a>`)

var nextPart = regexp.MustCompile(`hx-get="(/\?[^"]+)"`)

// tags is what of a page is not read.
var tags = regexp.MustCompile(`(?s)<script.*?</script>|<title>.*?</title>|<[^>]*>`)
