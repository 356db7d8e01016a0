package drawer

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/fault"
	"brevium/core/recipe"
	"brevium/core/stuff"
	"brevium/web/form"
	"brevium/web/page"
)

// matterPage is the table of what is reckoned of card and glue, and the classes of the post.
type matterPage struct {
	page.Chrome
	Form      *form.Form
	Constants []constantView
	Classes   []classView
	Kept      bool
}

type constantView struct {
	stuff.Constant
	Field form.Field
	Own   bool
}

type classView struct {
	Name, Long, Wide, Thick, Grams form.Field
}

func (s *room) matter(c *echo.Context) error {
	return s.showMatter(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showMatter(c *echo.Context, status int, f *form.Form) error {
	ctx := c.Request().Context()
	own, classes, err := s.reckoned(ctx)
	if err != nil {
		return err
	}
	f.Carry = true
	v := matterPage{Chrome: s.Chrome(c, "Card and glue"), Form: f, Kept: c.QueryParam("kept") != ""}
	v.Constants, v.Classes = constantViews(f, own), classViews(f, classes)
	return c.Render(status, "matter.html", v)
}

// reckoned are the maker's own constants, and the classes of the post.
func (s *room) reckoned(ctx context.Context) (own map[string]float64, classes []stuff.Class, err error) {
	if own, err = s.Constants(ctx); err == nil {
		classes, err = s.Room.Classes(ctx)
	}
	return own, classes, err
}

// plainNumber writes a number with four digits that count, never with a power.
func plainNumber(x float64) string {
	if x >= 1000 {
		return strconv.FormatFloat(x, 'f', 0, 64)
	}
	short, _ := strconv.ParseFloat(strconv.FormatFloat(x, 'g', 4, 64), 64)
	return strconv.FormatFloat(short, 'f', -1, 64)
}

// constantGroup are the constants of one kind of remark.
type constantGroup struct {
	Name string
	Own  int // how many are changed
	Open bool
	All  []constantView
}

// constantGroups names the groups, and the beginnings of the ids that belong to each.
var constantGroups = []struct {
	name   string
	begins []string
}{
	{"How stiff and strong card is", []string{"card", "bulk"}}, {"Folds that crack", []string{"crack"}},
	{"Floors and walls", []string{"firm", "sag"}}, {"Grain, damp and glue", []string{"grain", "curl", "cockle"}},
	{"What is carried and stacked", []string{"load", "handle", "stack"}}, {"Air under a lid, and how boxes differ", []string{"air", "scatter"}},
}

// Groups are the constants by what they are about; those are open in which something is wrong.
func (v matterPage) Groups() []constantGroup {
	var out []constantGroup
	for _, g := range constantGroups {
		x := constantGroup{Name: g.name}
		for _, c := range v.Constants {
			if about, _, _ := strings.Cut(c.ID, "."); slices.Contains(g.begins, about) {
				x.All = append(x.All, c)
				x.Open = x.Open || c.Field.Fault != ""
				if c.Own {
					x.Own++
				}
			}
		}
		out = append(out, x)
	}
	return out
}

func constantViews(f *form.Form, own map[string]float64) []constantView {
	table := stuff.Usual()
	for id, v := range own {
		_ = table.Set(id, v) // Constants left out what can be none
	}
	var out []constantView
	for _, c := range table.Constants() {
		_, changed := own[c.ID]
		out = append(out, constantView{c, f.Control("constants."+c.ID, recipe.Capital(c.Means), c.Unit, plainNumber(c.Value)), changed})
	}
	return out
}

func classViews(f *form.Form, all []stuff.Class) []classView {
	var out []classView
	for i := range stuff.MostClasses {
		at := func(part string) string { return fmt.Sprintf("classes[%d].%s", i, part) }
		name, sides, grams := "", [3]string{}, ""
		if i < len(all) {
			name, grams = all[i].Name, plainNumber(all[i].Grams)
			for k, s := range all[i].Sides {
				sides[k] = plainNumber(s)
			}
		} else if i > len(all) {
			break
		}
		out = append(out, classView{f.Control(at("name"), "Class", "", name), f.Control(at("long"), "Long, mm", "", sides[0]),
			f.Control(at("wide"), "Wide, mm", "", sides[1]), f.Control(at("thick"), "Thick, mm", "", sides[2]), f.Control(at("grams"), "Up to, g", "", grams)})
	}
	return out
}

// setMatter keeps both tables: of the constants those that are not as usual.
func (s *room) setMatter(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	s.Merging.Lock()
	defer s.Merging.Unlock()
	f := form.New(posted, page.UnitsOf(c))
	ctx := c.Request().Context()
	own, classes, err := s.reckoned(ctx)
	if err != nil {
		return err
	}
	fresh := form.New(nil, f.Unit)
	for _, v := range constantViews(fresh, own) {
		f.Meet(v.Field)
	}
	for _, v := range classViews(fresh, classes) {
		f.Meet(v.Name, v.Long, v.Wide, v.Thick, v.Grams)
	}
	readConstants(f, own)
	classes = readClasses(f, classes)
	if err := stuff.CheckClasses(classes); err != nil {
		x := *fault.Of(err)
		x.Field += ".name"
		f.Fail(&x)
	}
	if !f.OK() || f.Clashes() {
		return s.showMatter(c, http.StatusUnprocessableEntity, f)
	}
	if err := s.SetConstants(ctx, own); err != nil {
		return err
	}
	if err := s.SetClasses(ctx, classes); err != nil {
		return err
	}
	return page.Back(c, "/drawer/card-and-glue?kept=1")
}

func readConstants(f *form.Form, own map[string]float64) {
	table := stuff.Usual()
	for _, c := range table.Constants() {
		name := "constants." + c.ID
		x, is := own[c.ID] // left empty it stays as it was
		if !is {
			x = c.Usual
		}
		f.Decimal(name, &x)
		if plainNumber(x) == plainNumber(c.Usual) {
			delete(own, c.ID)
		} else if err := table.Set(c.ID, x); err != nil {
			f.Fail(err)
		} else {
			own[c.ID] = x
		}
	}
}

func readClasses(f *form.Form, now []stuff.Class) []stuff.Class {
	var out []stuff.Class
	for i := range stuff.MostClasses {
		at := func(part string) string { return fmt.Sprintf("classes[%d].%s", i, part) }
		c := stuff.Class{}
		if i < len(now) {
			c = now[i]
		}
		f.Text(at("name"), &c.Name)
		if strings.TrimSpace(c.Name) == "" {
			continue // taken away, or never there
		}
		for part, into := range map[string]*float64{"long": &c.Sides[0], "wide": &c.Sides[1], "thick": &c.Sides[2], "grams": &c.Grams} {
			f.Decimal(at(part), into)
		}
		out = append(out, c)
	}
	return out
}
