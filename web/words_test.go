package web_test

import (
	"fmt"
	"os"
	"regexp"
	"strings"
	"testing"

	"brevium/core/sample"
	"brevium/web/webtest"
)

// The pages speak the maker's language: one word for a thing, as docs/words.md
// lists them, and none of those that were given up.
func TestOneWordForAThing(t *testing.T) {
	t.Parallel()
	text, err := os.ReadFile("../docs/words.md")
	if err != nil {
		t.Fatal(err)
	}
	row := regexp.MustCompile(`(?m)^\| ([^|]+) \| [^|]+ \| ([^|]+) \|$`)
	var given []string
	for _, m := range row.FindAllStringSubmatch(string(text), -1) {
		if m[1] == "word" || strings.HasPrefix(m[1], "-") {
			continue
		}
		for _, old := range strings.Split(m[2], ",") {
			if old = strings.TrimSpace(old); old != "" && old != "–" {
				given = append(given, old)
			}
		}
	}
	_, voice, _ := strings.Cut(string(text), "| not so | but so |")
	pairs := regexp.MustCompile(`(?m)^\| ([^|-][^|]*) \| [^|]+ \|$`).FindAllStringSubmatch(voice, -1)
	if len(given) < 10 || len(pairs) < 20 {
		t.Fatalf("the lists have only %d words that were given up, and %d pairs", len(given), len(pairs))
	}
	for _, m := range pairs {
		given = append(given, regexp.QuoteMeta(m[1]))
	}
	never := regexp.MustCompile(`(?i)\b(` + strings.Join(given, "|") + `)\b`)
	x, pages := full(t)
	for _, page := range pages {
		words := x.Words(page)
		for _, m := range never.FindAllStringIndex(words, -1) {
			t.Errorf("%s: “%s”", page, words[max(0, m[0]-40):min(len(words), m[1]+20)])
		}
	}
}

// A number has one unit, one thing is not said as several, and a sheet's sides
// have no remainder.
func TestNumbersAreWrittenOnce(t *testing.T) {
	t.Parallel()
	x, pages := full(t)
	wrong := regexp.MustCompile(`\d (in|cm|mm) (in|cm|mm)( [^t]|$)|(?:^|[^\d/.,–] )1 (papers|mats|sheets|boxes|pieces|cuts|cards|offcuts)\b|8 1/4 in \+`)
	for k, unit := range []string{"in", "cm", "mm"} {
		x.Post("/boxes/1/units", "units", unit)
		for n, page := range pages {
			if !sample.Takes(t, n+k) {
				continue
			}
			words := x.Words(page)
			for _, m := range wrong.FindAllStringIndex(words, -1) {
				t.Errorf("in %s, %s: “%s”", unit, page, words[max(0, m[0]-40):min(len(words), m[1]+20)])
			}
		}
		contents := x.Words("/boxes/1/contents")
		if !regexp.MustCompile(`clear inside [^a-z]+ ` + unit).MatchString(contents) {
			t.Errorf("in %s the clear inside is said in another unit", unit)
		}
	}
}

// What is saved by cutting together is what one reads above it.
func TestWhatIsSavedAddsUp(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	x.JarBox()
	x.Post("/boxes/2/sheets", "copies", "1")
	x.Lot(1, 8*25_400_000, 8*25_400_000, true)
	x.Post("/jobs", "copies.1", "3", "copies.2", "2")
	words := x.Words("/jobs/1")
	var alone, together, saved int
	i := strings.Index(words, "One box after another would take")
	if i < 0 {
		t.Fatal("nothing is said to be saved")
	}
	if _, err := fmt.Sscanf(words[i:], "One box after another would take %d sheets instead of %d: together they save %d", &alone, &together, &saved); err != nil {
		t.Fatalf("%v in %q", err, words[i:min(len(words), i+120)])
	}
	if alone-together != saved || !strings.Contains(words, fmt.Sprintf("%d sheets", together)) {
		t.Errorf("%d less %d is said to save %d", alone, together, saved)
	}
}
