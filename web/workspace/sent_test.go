package workspace_test

import (
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/web/webtest"
)

// A box of any kind is one page that can be sent: small, without a script, and nothing of it lies
// elsewhere; all steps are there.
func TestOnePageToSend(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	elsewhere := regexp.MustCompile(`(?i)(src|href)="[^#]|<script|<link|url\((?:&#34;|"|')?[^#"'&]`)
	for _, s := range style.All {
		id, err := x.Store.Of(t.Context()).Add(t.Context(), design.New("A box to send", measure.In, s.ID))
		if err != nil {
			t.Fatal(err)
		}
		code, page, head := x.Get(fmt.Sprintf("/boxes/%d/page.html", id))
		if code != http.StatusOK || !strings.Contains(head.Get("Content-Disposition"), "attachment") {
			t.Errorf("%s: %d", s.ID, code)
			continue
		}
		if len(page) > 400_000 {
			t.Errorf("%s: %d bytes", s.ID, len(page))
		}
		if at := elsewhere.FindString(page); at != "" {
			t.Errorf("%s has something that lies elsewhere: %s", s.ID, at)
		}
		r, err := design.Make(t.Context(), x.Box(id).Inputs) // of one
		if err != nil {
			t.Fatal(err)
		}
		if n := strings.Count(page, "<li><b>"); n != len(r.Steps) {
			t.Errorf("%s tells %d of %d steps", s.ID, n, len(r.Steps))
		}
	}
}
