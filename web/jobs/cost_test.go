package jobs_test

import (
	"net/http"
	"strings"
	"testing"

	"brevium/core/cupboard"
	"brevium/web/webtest"
)

// A box's cost page names what has no price, reckons with the rates that are set, keeps
// a price by hand with the box and hangs it on as a tag; the job's page adds the same
// boxes up; bad rates are refused at their field and nothing is kept.
func TestWhatItCosts(t *testing.T) {
	t.Parallel()
	x := webtest.Workshop(t)
	at := "/boxes/2/cost"
	if page := x.Words(at); !strings.Contains(page, "Not counted, since it has no price") || !strings.Contains(page, "from the margin") {
		t.Errorf("without prices: %s", page)
	}
	if err := x.Store.Of(t.Context()).SetGoods(t.Context(), []cupboard.Good{{Kind: cupboard.Tape, Amount: 1e5, Price: 0.5, Spare: 10}}); err != nil {
		t.Fatal(err)
	}
	for field, bad := range map[string]string{"hour": "lots", "margin": "95", "fee": "-1", "price.2": "much"} {
		if code, page, _ := x.Post(at, field, bad); code != http.StatusUnprocessableEntity || !strings.Contains(page, bad) {
			t.Errorf("%s %s: %d", field, bad, code)
		}
	}
	if x.Box(2).Inputs.Price != 0 {
		t.Error("a bad price is kept")
	}
	x.Post(at, "hour", "12", "margin", "25", "fee", "10", "each", "0,10", "price.2", "7,50")
	page := x.Words(at)
	if got := x.Box(2).Inputs.Price; got != 750 || !strings.Contains(page, "7.50 set by hand") || strings.Contains(page, "Not counted") {
		t.Errorf("the price is %v: %s", got, page)
	}
	x.Post(at, "price.2", "7.50", "tag", "1")
	if tags := x.Box(2).Inputs.Labels; len(tags) != 1 || !strings.Contains(tags[0].Text, "{price}") {
		t.Errorf("its labels: %+v", tags)
	}
	x.Post("/jobs", "name", "Stall", "copies.1", "2", "copies.2", "3")
	job := "/jobs/1/cost"
	if page := x.Words(job); !strings.Contains(page, "7.50 set by hand") || !strings.Contains(page, "all sold") {
		t.Errorf("the job: %s", page)
	}
	x.Post(job, "price.2", "", "price.1", "6")
	if one, two := x.Box(1).Inputs.Price, x.Box(2).Inputs.Price; one != 600 || two != 0 {
		t.Errorf("prices %v and %v", one, two)
	}
	if code, _, _ := x.Post(job, "hour", "9999"); code != http.StatusUnprocessableEntity {
		t.Errorf("an hour at 9999: %d", code)
	}
	for _, path := range []string{"/boxes/99/cost", "/jobs/99/cost"} {
		if code, _, _ := x.Get(path); code != http.StatusNotFound {
			t.Errorf("%s: %d", path, code)
		}
	}
}
