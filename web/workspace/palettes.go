package workspace

import (
	"html/template"
	"net/http"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// palettesPage is the box in papers that go together, side by side.
type palettesPage struct {
	page.Chrome
	Box      boxshelf.Box
	Palettes []paletteView
}

// paletteView is a set of papers, and the box in them, each time another one first.
type paletteView struct {
	Papers []paper.Card
	Tries  []tryView
}

type tryView struct {
	K       int
	Says    string // which paper shows, and on which
	Picture template.HTML
}

// palettes shows the box in the sets of papers that the drawer and the shelf give.
func (s *room) palettes(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	lots, err := s.Store.Of(ctx).Lots(ctx)
	if err != nil {
		return err
	}
	end, err := s.Shares.Take(ctx)
	if err != nil {
		return err
	}
	defer end()
	p := palettesPage{Chrome: s.beside(c, "Papers that go together", b, "dressing"), Box: b}
	if len(b.Inputs.Mats) > 0 {
		for _, set := range paper.Palettes(thin(shelf(&b.Inputs, lots))) {
			v := paletteView{Papers: set}
			for k := range set {
				r, err := design.Make(ctx, b.Inputs.Repapered(set, k))
				if page.IsFault(err) {
					continue // a thicker paper than goes there
				} else if err != nil {
					return err
				}
				says := set[k].Name
				if layers := b.Inputs.Mats[0].Layers; len(layers) > 1 && !layers[0].Card.Same(layers[1].Card) {
					says = set[(k+1)%len(set)].Name + " on " + strings.ToLower(says)
				}
				v.Tries = append(v.Tries, tryView{k, says, page.BoxPicture(r, "in "+says)})
			}
			if len(v.Tries) > 0 {
				p.Palettes = append(p.Palettes, v)
			}
		}
	}
	return c.Render(http.StatusOK, "palettes.html", p)
}

// thickest bounds what is tried as paper: what is thicker is card to make the box from.
const thickest = 400 * measure.Micrometre

func thin(all []paper.Card) []paper.Card {
	var out []paper.Card
	for _, c := range all {
		if c.Thickness <= thickest {
			out = append(out, c)
		}
	}
	return out
}

// readPalette puts the papers of a set onto the box, from the one that was chosen first.
func readPalette(f *form.Form, in *design.Inputs) {
	k, err := strconv.Atoi(f.Posted.Get("palette"))
	var set []paper.Card
	for _, text := range f.Posted["palette.card"] {
		if c, ok := form.CardOfText(text); ok {
			set = append(set, c)
		}
	}
	if err != nil || k < 0 || len(set) != paper.InPalette {
		return
	}
	*in = in.Repapered(set, k)
}
