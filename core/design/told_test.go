package design

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
)

// of is a design file of a style, in inches, with more of its fields.
func of(id, more string) string {
	if more != "" {
		more = "," + more
	}
	return fmt.Sprintf(`{"brevium":1,"name":"x","units":"in","style":%q%s}`, id, more)
}

func texts(r *Result) string {
	var out []string
	for _, s := range r.Steps {
		out = append(out, s.Text)
	}
	return strings.Join(out, "\n")
}

// A card is one card whoever names it, with its direction told or not.
func TestOneCardIsOneStock(t *testing.T) {
	t.Parallel()
	gold := `{"name":"Gold card","gsm":220%s}`
	r := make_(t, read(t, of("tray-lid", fmt.Sprintf(`"card":%s,"cards":{"lid":%s}`, fmt.Sprintf(gold, ""), fmt.Sprintf(gold, `,"direction":"none"`)))))
	if len(r.Stocks) != 1 {
		t.Errorf("one card is %d stocks", len(r.Stocks))
	}
	r = make_(t, read(t, of("tray-lid", fmt.Sprintf(`"card":%s,"cards":{"lid":%s}`, fmt.Sprintf(gold, ""), fmt.Sprintf(gold, `,"look":{"outside":"#224466"}`)))))
	if len(r.Stocks) != 2 {
		t.Errorf("gold and blue are %d stocks", len(r.Stocks))
	}
}

// A band lies to either side of the middle, and may have a word for its id.
func TestBandsByWordAndSide(t *testing.T) {
	t.Parallel()
	in := read(t, of("tray-lid", `"bands":[{"id":"belly","axis":"length","at":"-1/2 in"},{"id":7,"axis":"width","at":-3}]`))
	if in.Bands[0].At != -measure.Inch/2 || in.Bands[1].At != -3*mm_ {
		t.Errorf("at %v and %v", in.Bands[0].At, in.Bands[1].At)
	}
	if r := make_(t, in); r.Bands[0].PieceID() != "belly" || r.Bands[1].PieceID() != "band-7" || !strings.Contains(texts(r), "1/2 in to the left of the middle") {
		t.Errorf("called %s and %s", r.Bands[0].PieceID(), r.Bands[1].PieceID())
	}
	if again := read(t, string(in.Write())); again.Bands[0].Called != "belly" || again.Bands[0].At != in.Bands[0].At {
		t.Errorf("written and read, it is %+v", again.Bands[0])
	}
	for id, says := range map[string]string{`"lid"`: "another piece", `"A b"`: "small letters"} {
		bad, err := Read([]byte(of("tray-lid", `"bands":[{"id":`+id+`,"axis":"length"}]`)))
		if err == nil {
			_, err = Make(t.Context(), bad)
		}
		if err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("a band called %s: %v", id, err)
		}
	}
}

// Each paper of a strip lies on the strip, in whatever order the faces come.
func TestAStripReachesItsLastPaper(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, of("tray-lid", `"size":{"length":"4 in","width":"2 in","height":"1 in"},
		"mats":[{"piece":"base","where":"walls","runs":"cut-away","layers":[{"card":{"name":"Sprigs","gsm":120,"direction":"none"},"border":"1/8 in"}]}]`)))
	strips := 0
	for _, b := range r.Blanks {
		for _, g := range b.Gives {
			_, hi := pattern.Bounds(g.Outline)
			if hi.X > b.Width.MM()+1e-6 || hi.Y > b.Height.MM()+1e-6 {
				t.Errorf("%s reaches to %.2f on a blank of %.2f mm", g.ID, hi.X, b.Width.MM())
			}
		}
		if len(b.Gives) > 1 {
			strips++
		}
	}
	if strips == 0 {
		t.Error("no strip")
	}
}

// The small boxes of a cross come to stand where the words set them, with room between.
func TestACarriersBoxesStandWhereTold(t *testing.T) {
	t.Parallel()
	middles := regexp.MustCompile(`stand (.*?) on a long wall, middles (.*?) from the left end\.\s+Set (.*?) upside down beside, middles (.*?) from the left\.`)
	for _, count := range []string{"2", "3", "4", "5"} {
		r := make_(t, read(t, of("fold-out-carrier", `"options":{"count":"`+count+`"}`)))
		m := middles.FindStringSubmatch(texts(r))
		if m == nil {
			t.Fatalf("%s boxes: no step sets them", count)
		}
		said := map[string]float64{}
		for i := 1; i < len(m); i += 2 {
			names, at := strings.FieldsFunc(strings.ReplaceAll(m[i], " and ", ", "), func(r rune) bool { return r == ',' }), strings.Split(strings.ReplaceAll(m[i+1], " and ", ", "), ", ")
			for k, name := range names {
				l, err := measure.Parse(strings.TrimSuffix(at[k], " in"), measure.In)
				if err != nil {
					t.Fatal(err)
				}
				said[strings.TrimSpace(name)] = l.MM()
			}
		}
		wide := 0.0
		first := math.Inf(1)
		for _, p := range r.Parts {
			if strings.HasPrefix(p.ID, "box-") {
				first = min(first, p.At.X)
			}
			if strings.HasPrefix(p.ID, "lid-") {
				wide = max(wide, p.Pattern.Width.MM()-2*r.Spec.Lengths["lid.depth"].MM())
			}
		}
		least := said["box 1"]
		for _, p := range r.Parts {
			name := strings.ToLower(p.Name)
			if strings.HasPrefix(p.ID, "box-") && math.Abs(said[name]-least-(p.At.X-first)) > 1.6 {
				t.Errorf("%s boxes: %s is told %.1f mm from the first, and stands %.1f", count, name, said[name]-least, p.At.X-first)
			}
		}
		if least < wide/2 {
			t.Errorf("%s boxes: box 1 is set %.1f mm from the end, half of it is %.1f", count, least, wide/2)
		}
	}
}

// A paper over a window is cut out with it; the last layer says so, once.
func TestPapersAreCutThroughAtAWindow(t *testing.T) {
	t.Parallel()
	layer := `{"card":{"name":"Plain paper","gsm":120,"direction":"none"},"border":"1/8 in"}`
	r := make_(t, read(t, of("dispenser", `"mats":[{"piece":"window","faces":["panel"],"layers":[`+layer+`,`+layer+`]},{"piece":"body","faces":["front"],"layers":[`+layer+`]}]`)))
	if got := strings.Count(texts(r), "cut the paper out along the window"); got != 1 {
		t.Errorf("the window is cut free %d times", got)
	}
}

// A pressed top is named, scored and kept dry nowhere; its tube is joined at the back.
func TestAPressedTopHasNoNames(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, of("tall-box", `"options":{"top":"clip"}`)))
	all := texts(r)
	for _, word := range []string{"fin", "slope", "no score between"} {
		if regexp.MustCompile(`\b` + word).MatchString(all) {
			t.Errorf("a pressed top is told with %q:\n%s", word, all)
		}
	}
	// The lid hangs on the back, wherever that comes from the seam on.
	for seam, panel := range map[string]string{"back": "panel 1", "side": "panel 4", "front": "panel 3"} {
		r := make_(t, read(t, of("tall-box", `"options":{"seam":"`+seam+`"}`)))
		if !strings.Contains(texts(r), "The two cells above "+panel+" are lid and tongue") || !strings.Contains(texts(r), "tab inside panel 1") {
			t.Errorf("joined at the %s: %s", seam, texts(r))
		}
	}
	if _, err := Make(t.Context(), read(t, of("tall-box", `"options":{"seam":"side","top":"pinch"}`))); err == nil {
		t.Error("a ridge is joined at a side that folds in")
	}
}

// A basket's end walls are bent when the cuts that the bends run between are made; a
// handle without scores is not told where it has none.
func TestABasketIsBentAfterItIsCut(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, of("woven-basket", "")))
	cut := slices.IndexFunc(r.Steps, func(s recipe.Step) bool { return s.Kind == recipe.Remove })
	bend := slices.IndexFunc(r.Steps, func(s recipe.Step) bool { return strings.Contains(s.Text, "end each end gently") })
	if bend < cut || strings.Contains(texts(r), "no score between") {
		t.Errorf("bent in step %d, cut in %d", bend+1, cut+1)
	}
}

// The scores of a band run right across it: none of them stops short.
func TestABandsScoresRunAcross(t *testing.T) {
	t.Parallel()
	for _, tick := range []string{"1/8 in", "1/16 in", "1 mm"} {
		r := make_(t, read(t, of("tray-lid", `"options":{"tick":"`+tick+`"},"bands":[{"axis":"length"}]`)))
		for _, s := range r.Steps {
			if s.Kind == recipe.Score && strings.HasPrefix(s.Piece, "band") && strings.Contains(s.Text, "stop short") {
				t.Errorf("on a board of %s: %s", tick, s.Text)
			}
		}
		for i, p := range r.Parts {
			if made := planPieceOf(&r.Inputs, p, "", r.Scores[i], r.Steps); p.Loose && (len(made.PartScores) > 0 || len(made.Scores.Vertical) != len(r.Bands[0].Strip.Scores)) {
				t.Errorf("on a board of %s the plan has %v, and %v stop short", tick, made.Scores.Vertical, made.PartScores)
			}
		}
	}
}

// Two notches opposite each other are in two edges, not at corners.
func TestNotchesAreInEdges(t *testing.T) {
	t.Parallel()
	r := make_(t, read(t, of("drawer-sleeve", `"options":{"notch":"1/2 in","notch.on":"drawer","notch.ends":"both"}`)))
	if all := texts(r); strings.Contains(all, "corners, punch") {
		t.Errorf("a notch is told at corners:\n%s", all)
	}
}

// What is chosen to hold a box takes the place of what its style is held by: in the
// steps, the supplies and the checks.
func TestAChosenClosureReplacesTheDefault(t *testing.T) {
	t.Parallel()
	for name, c := range map[string]struct{ style, more, gone string }{
		"magnets": {"wallet-box", `"closures":[{"kind":"magnets"}]`, "dot"},
		"a dot":   {"wallet-box", `"closures":[{"kind":"dot"}]`, "Hold the flap"},
		"hooks":   {"hinged-carton", `"options":{"flap.tuck":"outside"},"closures":[{"kind":"hook-and-loop"}]`, "dot"},
		"tape":    {"wallet-box", `"closures":[{"kind":"tape"}]`, "dot"},
		"a brad":  {"wallet-box", `"closures":[{"kind":"brad"}]`, "dot"},
		"a clip":  {"wallet-box", `"closures":[{"kind":"clip"}]`, "dot"},
		"ribbon":  {"corner-shells", `"ribbons":[{"way":"crossed"}]`, "band"},
		"band":    {"wallet-box", `"bands":[{"axis":"length"}]`, "dot"},
	} {
		in := read(t, of(c.style, c.more))
		in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
		r := make_(t, in)
		if strings.Contains(texts(r), c.gone) {
			t.Errorf("%s: the steps still have %q:\n%s", name, c.gone, texts(r))
		}
		holds := 0
		for _, s := range r.Supplies {
			if s.ID == "dots" || s.ID == "bands" {
				t.Errorf("%s: still to be bought: %s", name, s.Text)
			}
			if s.ID == "closure.dot" {
				holds += int(s.Amount)
			}
		}
		if name == "a dot" && holds != 1 {
			t.Errorf("one dot is %d", holds)
		}
		for _, f := range r.Checks {
			if f.ID == "stay" && strings.Contains(f.Text, "dot") && name != "a dot" {
				t.Errorf("%s: %s", name, f.Text)
			}
		}
	}
}

// What is square stays square, in every card, on every board.
func TestSquareThingsHaveSquareBoxes(t *testing.T) {
	t.Parallel()
	for _, gsm := range []int{160, 240, 300, 350} {
		for _, tick := range []string{"1 mm", "0.5 cm", "1/8 in", "1/16 in"} {
			for _, id := range []string{"tray", "tray-lid", "tray-double"} {
				in := read(t, fmt.Sprintf(`{"brevium":1,"name":"x","units":"cm","style":%q,"options":{"tick":%q},"card":{"gsm":%d},
					"contents":[{"name":"tin","shape":"block","length":"100 mm","width":"100 mm","height":"60 mm","count":1}]}`, id, tick, gsm))
				in.Sheets[0].Width, in.Sheets[0].Height, in.Tools.Trimmer = 2000*mm_, 2000*mm_, 2000*mm_
				for _, p := range make_(t, in).Parts {
					if p.Pattern.Width != p.Pattern.Height {
						t.Errorf("%s of %d g on %s: the %s is %.1f × %.1f mm", id, gsm, tick, p.Name, p.Pattern.Width.MM(), p.Pattern.Height.MM())
					}
				}
			}
		}
	}
}

// Two labels in the middle of one face lie on each other, and one over a ribbon's hole is
// in its way; what a step speaks of it names.
func TestLabelsThatLieOnEachOther(t *testing.T) {
	t.Parallel()
	one := func(id int, name, face string) string {
		return fmt.Sprintf(`{"id":%d,"name":%q,"shape":"oval","width":"3 in","height":"1 in","piece":"lid","face":%q,"layers":[{"card":{"name":"Gold card","gsm":220}}]}`, id, name, face)
	}
	for name, c := range map[string]struct{ more, says string }{
		"two on one spot":   {`"labels":[` + one(1, "Label", "top") + "," + one(2, "Ring", "top") + `]`, "The ring lies over the label"},
		"over a hole":       {`"labels":[` + one(1, "Label", "top") + `],"ribbons":[{"way":"through-top","width":"1/4 in"}]`, "The label lies over the hole there"},
		"each on its own":   {`"labels":[` + one(1, "Label", "top") + `]`, ""},
		"two of one a kind": {`"labels":[` + strings.Replace(one(1, "Label", "top"), `"shape"`, `"copies":2,"shape"`, 1) + `]`, "another of its kind"},
	} {
		r := make_(t, read(t, of("tray-lid", c.more)))
		var warned []string
		for _, f := range r.Checks {
			if f.ID == "label" && f.Verdict != "ok" {
				warned = append(warned, f.Text)
			}
		}
		if got := strings.Join(warned, " "); !strings.Contains(got, c.says) || (c.says == "") != (got == "") {
			t.Errorf("%s: %q", name, got)
		}
		if regexp.MustCompile(`(?m)^(Glue|Stick|Write or print on) it\b`).MatchString(texts(r)) {
			t.Errorf("%s: a step speaks of a thing it does not name", name)
		}
	}
}

// What a step uses is cut in a size that is told.
func TestAPullTabHasASize(t *testing.T) {
	t.Parallel()
	for unit, size := range map[string]string{"in": "3/4 × 1 1/2 in", "cm": "2 × 4 cm"} {
		r := make_(t, read(t, strings.Replace(of("dispenser", `"options":{"pull":"tab","tick":"`+map[string]string{"in": "1/16 in", "cm": "1 mm"}[unit]+`"}`), `"units":"in"`, `"units":"`+unit+`"`, 1)))
		if all := texts(r); !strings.Contains(all, "Cut a strip "+size+" from a scrap") {
			t.Errorf("in %s a pull tab is cut so: %s", unit, all)
		}
	}
}
