package reading

import "strings"

// nouns are what pieces are called, and the word they are known by.
var nouns = map[string]string{
	"base": "base", "bottom": "bottom", "lid": "lid", "top": "top", "tray": "tray", "box": "box", "carton": "carton", "sleeve": "sleeve",
	"drawer": "drawer", "wrap": "wrap", "wallet": "wallet", "bag": "bag", "cover": "cover", "body": "body", "liner": "liner", "insert": "insert",
	"band": "band", "divider": "divider", "strap": "strap", "handle": "handle", "flap": "flap", "tube": "tube", "shell": "shell", "card": "card",
	"piece": "piece", "sheet": "sheet", "cardstock": "card", "paper": "paper",
	"basket": "basket", "carrier": "carrier", "tower": "tower", "nest": "nest", "collar": "collar", "ring": "ring", "closer": "closer", "frame": "frame", "floor": "floor", "refill": "refill",
	"strip": "strip", "pouch": "pouch", "pyramid": "pyramid", "slice": "slice", "pillow": "pillow", "wall": "wall", "disc": "disc", "spine": "spine", "cross": "cross", "case": "case",
	"papers": "panel", "panel": "panel", "mat": "mat", "layer": "layer", "topper": "topper", "label": "label", "tag": "tag",
}

// plain nouns name a blank only where nothing better does.
var plainNouns = map[string]bool{"card": true, "piece": true, "sheet": true, "paper": true}

// panels are glued onto another piece.
var panels = map[string]bool{"panel": true, "mat": true, "layer": true, "topper": true, "label": true, "tag": true}

// noun is what a word calls a piece, "" for none.
func noun(w string) string {
	if n := nouns[w]; n != "" {
		return n
	}
	if n := nouns[strings.TrimSuffix(w, "s")]; n != "" {
		return n
	}
	return nouns[strings.TrimSuffix(w, "es")]
}

func set(words string) map[string]bool {
	out := map[string]bool{}
	for _, w := range strings.Fields(words) {
		out[w] = true
	}
	return out
}

// Words that begin something.
var (
	scores  = set("score scores scored scoring crease creases creased creasing scor")
	turns   = set("turn turns turned turning rotate rotated rotating")
	lesses  = set("less smaller shorter narrower")
	mores   = set("bigger larger more longer wider")
	sames   = set("same repeat again likewise ditto")
	sides   = set("side sides edge edges end ends")
	claims  = set("makes make finished gives finishes measures inside")
	besides = set("window windows ribbon ribbons opening hole holes twine cord sticker photo photograph")
	gaps    = set("? …")
	unsure  = set("± ~ ≈")
	works   = set("cut snip slit slits glue tape stick attach punch notch")
	shims   = set("pull pulled hold held shim off")
)

// filler is read over: it adds nothing to blanks and scores.
var filler = set(`a an the of to and or in on at from by with your you will need use using it its is are be this that then these those them each every
all both four any one other way ways around round whole after before both into out off up down over under along across against between inside outside
cut cuts cutting trim trimmed fold folds folded folding burnish burnished glue glued stick stuck tape taped adhere attach assemble make makes making put
corner corners square squares tab tabs slit slits line lines first second third fourth fifth last next crossing left right top bottom long short side sides edge edges
end ends snip remove away clip keep card cardstock piece pieces sheet sheets paper board fence trimmer scorer turn turned quarter give wall walls shape
lap seam measures measuring measure measurement measurements what oh size sized plus also but so as for per only just same done now finished gives blank blanks pattern stand press together
inches inch cm mm mark marks start begin place lay set facing outward degrees wedge taper notch punch number numbers good strong recipe step here there
materials method needed double sided single add carrier's window clam shim ruler scoreboard too also well hinged lidded little small large big gift treat simple box boxes has have comes come was were not no do does again both repeat them scorelines flat still where when until hold held groove grooves go goes ways directions that's it's here's only i my mine me we our`)

// nearly reports whether two words differ by one slip of the finger: a letter more,
// less or other, or two turned round.
func nearly(a, b string) bool {
	x, y := []rune(a), []rune(b)
	if len(x) > len(y) {
		x, y = y, x
	}
	if len(y)-len(x) > 1 || len(x) < 4 {
		return false
	}
	i := 0
	for i < len(x) && x[i] == y[i] {
		i++
	}
	if len(x) == len(y) {
		if i+1 < len(x) && x[i] == y[i+1] && x[i+1] == y[i] && string(x[i+2:]) == string(y[i+2:]) {
			return true
		}
		return i == len(x) || string(x[i+1:]) == string(y[i+1:])
	}
	return string(x[i:]) == string(y[i+1:])
}

// meant is the word of a set that one is, or is nearly; "" for none.
func meant(w string, of map[string]bool) string {
	if of[w] {
		return w
	}
	if filler[w] || noun(w) != "" {
		return ""
	}
	for x := range of {
		if nearly(w, x) {
			return x
		}
	}
	return ""
}

// hedges reports whether a word that says nothing elsewhere makes the numbers round it unsure:
// "just over 1 in", "between 1 and 2", "8 x 6 or 9 x 7", "from corner to corner".
func (p *parser) hedges(i int) bool {
	switch p.tok(i).text {
	case "just":
		return p.is(i+1, "over", "under", "shy", "short")
	case "over", "under":
		return p.is(i-1, "just", "slightly", "bit", "little") || p.num(i-1) && p.num(i+1)
	case "between", "only":
		return p.num(i + 1)
	case "or":
		return p.num(i+1) && p.num(i-1)
	case "corner":
		return p.is(i-1, "each", "every") && meant(p.tok(i-2).text, scores) != "" || p.is(i+1, "to") && p.is(i+2, "corner") || p.is(i-1, "to") && p.is(i-2, "corner")
	}
	return false
}
