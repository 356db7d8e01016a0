package data_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/people"
	"brevium/web/webtest"
)

// A maker's bin is the maker's: what is in it is brought back, forgotten and emptied by
// whoever it belongs to, and by nobody else.
func TestOnesBinIsOnesOwn(t *testing.T) {
	t.Parallel()
	w := webtest.NewAtelier(t)
	ash, rowan := w.Person("Ash", people.Maker), w.Person("Rowan", people.Maker)
	boxes := map[string][]int64{}
	for _, name := range []string{"Ash", "Rowan"} {
		for _, box := range []string{"First", "Second"} {
			id, err := w.Store.Of(w.As(name)).Add(w.As(name), design.New(box+" of "+name, measure.In, "tray"))
			if err == nil {
				err = w.Store.Of(w.As(name)).Delete(w.As(name), id)
			}
			if err != nil {
				t.Fatal(err)
			}
			boxes[name] = append(boxes[name], id)
		}
	}
	if status, _, _ := ash.Post(fmt.Sprintf("/bin/box/%d/forget", boxes["Rowan"][0])); status != http.StatusNotFound {
		t.Errorf("Ash forgets a box of Rowan's: %d", status)
	}
	if status, _, _ := ash.Post(fmt.Sprintf("/bin/box/%d/forget", boxes["Ash"][0])); status != http.StatusSeeOther {
		t.Errorf("Ash forgets a box of Ash's: %d", status)
	}
	if status, _, _ := ash.Post("/bin/empty"); status != http.StatusSeeOther {
		t.Errorf("Ash empties the bin: %d", status)
	}
	if _, page, _ := ash.Get("/bin"); !strings.Contains(page, "The bin is empty") {
		t.Error("Ash's bin is not empty")
	}
	_, page, _ := rowan.Get("/bin")
	for _, box := range []string{"First of Rowan", "Second of Rowan"} {
		if !strings.Contains(page, box) {
			t.Errorf("%s is gone from Rowan's bin", box)
		}
	}
}
