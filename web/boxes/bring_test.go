package boxes_test

import (
	"bytes"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/web/webtest"
)

// Designs are brought in many at once; one that cannot be read is named, and
// the others are kept.
func TestDesignsAreBroughtIn(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	one := design.New("Brought tray", measure.In, "tray")
	send := func(files map[string]string) (int, string) {
		var body bytes.Buffer
		form := multipart.NewWriter(&body)
		for name, text := range files {
			part, err := form.CreateFormFile("designs", name)
			if err != nil {
				t.Fatal(err)
			}
			if _, err := part.Write([]byte(text)); err != nil {
				t.Fatal(err)
			}
		}
		if err := form.Close(); err != nil {
			t.Fatal(err)
		}
		q := httptest.NewRequest(http.MethodPost, "/bring", &body)
		q.Header.Set("Content-Type", form.FormDataContentType())
		r := httptest.NewRecorder()
		x.HTTP.ServeHTTP(r, q)
		return r.Code, r.Body.String()
	}
	if code, _ := send(map[string]string{"a.json": string(one.Write())}); code != http.StatusSeeOther || x.Box(1).Name != "Brought tray" {
		t.Errorf("one design: %d", code)
	}
	code, body := send(map[string]string{"b.json": string(one.Write()), "nameless.json": `{"brevium":1,"style":"tray"}`, "c.json": `{"brevium":1,"style":"cellar"}`})
	if code != http.StatusUnprocessableEntity || !strings.Contains(body, "c.json was not taken") || !strings.Contains(body, "2 of them") {
		t.Errorf("two good ones and a bad one: %d", code)
	}
	names := map[string]bool{x.Box(2).Name: true, x.Box(3).Name: true}
	if !names["Brought tray"] || !names["nameless"] {
		t.Errorf("kept: %v", names)
	}
	if code, body = send(nil); code != http.StatusUnprocessableEntity || !strings.Contains(body, "Choose a design file first") {
		t.Errorf("nothing: %d", code)
	}
}
