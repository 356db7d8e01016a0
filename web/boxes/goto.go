package boxes

import (
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/people"
	"brevium/store/boxshelf"
	"brevium/web/page"
)

// goPage is where one can go, by what is looked for.
type goPage struct {
	page.Chrome
	Find  string
	Found []page.Place
}

// mostFound is how many boxes are offered.
const mostFound = 12

// pages are those that one goes to by name.
var pages = []page.Place{
	{Name: "Your boxes", Path: "/"}, {Name: "Make a new box", Path: "/new"}, {Name: "All kinds of box", Path: "/kinds"}, {Name: "Read a recipe", Path: "/read"},
	{Name: "Jobs", Path: "/jobs"}, {Name: "The drawer of paper", Path: "/drawer"}, {Name: "The cupboard of supplies", Path: "/drawer/cupboard"}, {Name: "Tools", Path: "/drawer/tools"},
	{Name: "Card and glue", Path: "/drawer/card-and-glue"}, {Name: "Photograph a paper", Path: "/papers/new"}, {Name: "The logbook", Path: "/logbook"},
	{Name: "Your own kinds of box", Path: "/styles"}, {Name: "The bin", Path: "/bin"}, {Name: "Help", Path: "/help"}, {Name: "See how a box comes about", Path: "/walk"},
}

// goTo lists pages and boxes by their names.
func (s *room) goTo(c *echo.Context) error {
	ctx := c.Request().Context()
	p := goPage{Chrome: s.Chrome(c, "Everything here"), Find: strings.TrimSpace(c.QueryParam("go"))}
	has := func(name string) bool {
		for _, w := range strings.Fields(strings.ToLower(p.Find)) {
			if !strings.Contains(strings.ToLower(name), w) {
				return false
			}
		}
		return true
	}
	all := pages
	if who := people.Of(ctx); who.Name == "" || who.Role.AtLeast(people.Steward) {
		all = append(all[:len(all):len(all)], page.Place{Name: "Your data", Path: "/data"})
	}
	for _, to := range all {
		if has(to.Name) {
			p.Found = append(p.Found, to)
		}
	}
	if p.Find != "" {
		boxes, _, err := s.Store.Of(ctx).List(ctx, boxshelf.Listing{Words: words(p.Find), Count: mostFound})
		if err != nil {
			return err
		}
		var found []page.Place
		for _, b := range boxes {
			found = append(found, page.Place{Name: b.Name, Path: "/boxes/" + page.Itoa(b.ID)})
		}
		p.Found = append(found, p.Found...)
	}
	return c.Render(http.StatusOK, "go.html", p)
}
