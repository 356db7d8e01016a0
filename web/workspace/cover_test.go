package workspace_test

import (
	"bytes"
	"fmt"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"regexp"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/web/page"
	"brevium/web/webtest"
)

var coverOf = regexp.MustCompile(`<img src="(/papers/[0-9a-f]+\.jpg)" alt="" loading="lazy">`)

// A photograph of the finished box stands for it in the list, until its drawing does again; what
// is no picture, or of nobody, changes nothing.
func TestAPhotographStandsForABox(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	shown := func() string {
		_, list, _ := x.Get("/")
		if m := coverOf.FindStringSubmatch(list); m != nil {
			return m[1]
		}
		return ""
	}
	if at := shown(); at != "" {
		t.Fatalf("a box without a photograph shows %s", at)
	}
	if code, answer, _ := x.Send("/boxes/1/cover", webtest.PaperPicture(t, 1)); code != http.StatusSeeOther {
		t.Fatalf("sent: %d %.200s", code, answer)
	}
	first := shown()
	if code, picture, h := x.Get(first); first == "" || code != 200 || h.Get("Content-Type") != "image/jpeg" || len(picture) < 1000 {
		t.Errorf("%q: %d, %d bytes", first, code, len(picture))
	}
	for name, send := range map[string]func() (int, string, http.Header){
		"no picture":       func() (int, string, http.Header) { return x.Send("/boxes/1/cover", []byte("Holly")) },
		"nothing sent":     func() (int, string, http.Header) { return x.Send("/boxes/1/cover", nil) },
		"of nobody":        func() (int, string, http.Header) { return x.Post("/boxes/1/cover", "photo", "abc123") },
		"no id":            func() (int, string, http.Header) { return x.Post("/boxes/1/cover", "photo", "../../x") },
		"one that is gone": func() (int, string, http.Header) { return x.Send("/boxes/9/cover", webtest.PaperPicture(t, 2)) },
	} {
		if code, answer, _ := send(); code < 400 || code >= 500 || shown() != first {
			t.Errorf("%s: %d, shown is %q, %.200s", name, code, shown(), answer)
		}
	}
	if code, _, _ := x.Post("/boxes/1/cover", "drawing", "1"); code >= 400 || shown() != "" {
		t.Errorf("the drawing again: %d, %q", code, shown())
	}
	id := strings.TrimSuffix(strings.TrimPrefix(first, "/papers/"), ".jpg")
	if code, _, _ := x.Post("/boxes/1/cover", "photo", id); code >= 400 || shown() != first {
		t.Errorf("one that is there already: %d, %q", code, shown())
	}
	file := x.Box(1).Inputs.Write()
	x.Post("/boxes/1/undo", "change", page.Itoa(x.Box(1).Last.ID))
	if at := shown(); at != "" {
		t.Errorf("undone, it shows %s", at)
	}
	for name, at := range map[string]*webtest.Table{"here": x, "elsewhere": webtest.NewTable(t)} {
		if got := broughtIn(t, at, file).Photograph; (got == id) != (at == x) || got != "" && got != id {
			t.Errorf("brought in %s, it shows %q", name, got)
		}
	}
}

// broughtIn brings a design's file in, and gives the last box there is.
func broughtIn(t *testing.T, x *webtest.Table, file []byte) design.Inputs {
	t.Helper()
	var body bytes.Buffer
	f := multipart.NewWriter(&body)
	part, err := f.CreateFormFile("designs", "jars.json")
	if err == nil {
		_, err = part.Write(file)
	}
	if err != nil || f.Close() != nil {
		t.Fatal(err)
	}
	q := httptest.NewRequest(http.MethodPost, "/bring", &body)
	q.Header.Set("Content-Type", f.FormDataContentType())
	r := httptest.NewRecorder()
	x.HTTP.ServeHTTP(r, q)
	var id int64
	if _, err := fmt.Sscanf(r.Header().Get("Location"), "/boxes/%d/box", &id); err != nil {
		t.Fatalf("%d %.200s", r.Code, r.Body.String())
	}
	return x.Box(id).Inputs
}
