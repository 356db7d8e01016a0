package workspace

import (
	"fmt"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/stuff"
	"brevium/core/style"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// postPage is how a box goes by post, and how many a crate holds.
type postPage struct {
	page.Chrome
	Box     boxshelf.Box
	Parcel  *design.Parcel
	Classes []stuff.Class
	Form    *form.Form
	Crate   []form.Field
}

// usualCrate is a crate that two hands carry, its inside in mm.
var usualCrate = [3]measure.Length{400 * measure.Millimetre, 300 * measure.Millimetre, 250 * measure.Millimetre}

func (s *room) post(c *echo.Context) error {
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	p := postPage{Chrome: s.beside(c, "Postage", b, "making"), Box: b}
	if p.Classes, err = s.Room.Classes(ctx); err != nil {
		return err
	}
	p.Form = form.New(c.QueryParams(), b.Inputs.Units)
	crate := usualCrate
	for i, name := range []string{"crate.long", "crate.wide", "crate.high"} {
		p.Form.Length(name, &crate[i])
		p.Crate = append(p.Crate, p.Form.LengthField(name, []string{"Long inside", "Wide", "High"}[i], "", crate[i]))
	}
	r, err := s.Made(ctx, b.Inputs)
	if err != nil && !page.IsFault(err) {
		return err
	}
	if err == nil {
		x := r.Parcel(p.Classes, [3]float64{crate[0].MM(), crate[1].MM(), crate[2].MM()})
		p.Parcel = &x
	}
	return c.Render(http.StatusOK, "post.html", p)
}

// Class says by which class something goes.
func (p postPage) Class(x stuff.Posted) string {
	if x.Index < 0 {
		return "larger than any class"
	}
	return p.Classes[x.Index].Name
}

// Below says what would bring it under the class below; "" where there is none.
func (p postPage) Below(x stuff.Posted) string {
	below := x.Index - 1
	if x.Index < 0 {
		below = len(p.Classes) - 1
	}
	if below < 0 {
		return ""
	}
	var all []string
	for i, over := range x.Over {
		if over > 0 {
			l := measure.Up(measure.FromMM(over), p.Units.Ruler())
			all = append(all, measure.Label(l, p.Units, p.Units.Tick())+" less "+[]string{"long", "wide", "thick"}[i])
		}
	}
	if x.More > 0 {
		all = append(all, fmt.Sprintf("%.0f g less", x.More))
	}
	return strings.Join(all, " and ") + ", and it goes as a " + p.Classes[below].Name
}

// Size writes a parcel's size.
func (p postPage) Size(of string) string {
	if of == "flat" {
		return p.Parcel.FlatSize().TakenIn(p.Units)
	}
	return p.Parcel.FullSize().TakenIn(p.Units)
}

// Names puts pieces in a row, and High writes how high a pile is.
func (p postPage) Names(all []string) string { return style.And(all) }
func (p postPage) High(mm float64) string {
	return measure.Label(measure.Up(measure.FromMM(mm), p.Units.Ruler()), p.Units, p.Units.Ruler())
}

// Grams writes a weight.
func (p postPage) Grams(g float64) string { return fmt.Sprintf("%.0f g", g) }
