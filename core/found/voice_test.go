package found

import (
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/reading"
	"brevium/core/style"
)

var (
	patterns = regexp.MustCompile(`(?:\b[pt]\.say|Voice\.Say)\("((?:[^"\\]|\\.)*)"`)
	verbs    = regexp.MustCompile(`%[.\d]*[a-z]`)
)

// Every sentence that is said of a recipe, and every kind of box, has its German and its French, with
// the same places for what is put in.
func TestEverySentenceHasItsVoices(t *testing.T) {
	check := func(english string) {
		t.Helper()
		for _, v := range []reading.Voice{reading.German, reading.French} {
			args := make([]any, len(verbs.FindAllString(english, -1)))
			for i, verb := range verbs.FindAllString(english, -1) {
				args[i] = map[byte]any{'s': "§", 'd': 7, 'f': 1.5}[verb[len(verb)-1]]
			}
			said := v.Say(english, args...)
			if said == reading.English.Say(english, args...) || strings.Contains(said, "%!") || strings.Count(said, "§") != strings.Count(english, "%s") {
				t.Errorf("%q is %q in voice %d", english, said, v)
			}
		}
	}
	count := 0
	for _, folder := range []string{".", "../reading"} {
		files, err := filepath.Glob(filepath.Join(folder, "*.go"))
		if err != nil {
			t.Fatal(err)
		}
		for _, f := range files {
			if strings.HasSuffix(f, "_test.go") {
				continue
			}
			text, err := os.ReadFile(f)
			if err != nil {
				t.Fatal(err)
			}
			for _, m := range patterns.FindAllStringSubmatch(string(text), -1) {
				if m[1] != "%s" { // what the text says itself
					check(m[1])
					count++
				}
			}
		}
	}
	if count < 35 {
		t.Errorf("only %d sentences are looked at", count)
	}
	for _, s := range style.Boxes() {
		name := article(s.Name)
		if reading.German.Phrase(name) == name || reading.French.Phrase(name) == name {
			t.Errorf("%s has no German or French", name)
		}
	}
}

// By hand: a recipe is answered in its own language, in one of two where it mixes them.
func TestARecipeIsAnsweredInItsLanguage(t *testing.T) {
	for text, want := range map[string][]string{
		"Boden 18 x 15 cm, auf allen vier Seiten bei 4 cm rillen. Deckel 14,3 x 11,3 cm, rundum bei 2 cm rillen.": {
			"Das ist ein Boden mit Stülpdeckel.", "Deckel über Boden, Länge: leicht, mit 1,80 mm Spiel in Plain card, 240 gsm."},
		"Schale 18 x 15 cm, alle Seiten bei 4 cm rillen. Vorne Papier 9,4 x 3,4.": {"Das ist eine offene Schale."},
		"Fond 18 x 15 cm, rainurer à 4 cm de chaque côté.":                        {"C'est un plateau ouvert."},
		"Base 18 x 15 cm, score 4 cm on all four sides of the card.":              {"It is an open tray."},
		"Boden 18 x 15 cm, score at 4 on all four sides, then fold and glue.":     {"It is an open tray."},
		"Streifen 20 x 5 cm, rillen bei 4, 8, 13 und 17":                          {"Zusammen sind diese Teile keine Schachtel, die hier bekannt ist.", "Streifen schließt nicht: die Seiten sind der Reihe nach 4 cm (etwa 1 9/16 in), 4 cm (etwa 1 9/16 in), 5 cm (etwa 1 15/16 in) und 4 cm (etwa 1 9/16 in). Um 4 cm (etwa 1 9/16 in) × 5 cm (etwa 1 15/16 in) rille bei 4 cm (etwa 1 9/16 in), 9 cm (etwa 3 9/16 in), 13 cm (etwa 5 1/8 in), 18 cm (etwa 7 1/16 in)."},
	} {
		told, err := Tell(text, measure.CM)
		if err != nil {
			t.Fatal(err)
		}
		for _, w := range want {
			if !slices.Contains(told.Says, w) {
				t.Errorf("%q: %q; want %q", text, told.Says, w)
			}
		}
	}
	torn := "Karton 18 x 26 cm, rillen bei 4 und 14 cm, drehen, rillen bei 2, 10, ? und 22 cm"
	told, err := Tell(torn, measure.CM)
	if err != nil {
		t.Fatal(err)
	}
	if r := told.Remedies(torn, measure.CM); len(r) == 0 || r[0].Put != "Setze 14 für ?" || r[0].Because != "Alle anderen Zahlen stimmen; dann ist es eine Klappschachtel" {
		t.Errorf("%+v, %q", r, told.Says)
	}
}
