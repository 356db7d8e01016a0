package data

import (
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/fault"
	"brevium/store"
	"brevium/store/desk"
	"brevium/web/page"
)

type binPage struct {
	page.Chrome
	Rows  []binRow
	Fault string
	Said  string
}

type binRow struct {
	store.Binned
	What, When string
}

var sortWords = map[desk.Sort]string{
	desk.BoxSort: "box", desk.JobSort: "job", desk.ThingSort: "thing", desk.PaperSort: "paper",
}

func (s *room) bin(c *echo.Context) error { return s.showBin(c, http.StatusOK, "", "") }

func (s *room) showBin(c *echo.Context, status int, failed, said string) error {
	all, err := s.Store.Of(c.Request().Context()).Bin(c.Request().Context())
	if err != nil {
		return err
	}
	p := binPage{Chrome: s.Chrome(c, "The bin"), Fault: failed, Said: said}
	for _, b := range all {
		p.Rows = append(p.Rows, binRow{b, sortWords[b.Sort], b.Deleted.Format("2 January, 15:04")})
	}
	return c.Render(status, "bin.html", p)
}

// ways are where something that was brought back is found again.
var ways = map[desk.Sort]string{desk.BoxSort: "/", desk.JobSort: "/jobs", desk.ThingSort: "/bin", desk.PaperSort: "/drawer"}

func (s *room) bringBack(c *echo.Context) error {
	sort, id, err := binned(c)
	if err != nil {
		return err
	}
	if err := s.Store.Of(c.Request().Context()).BringBack(c.Request().Context(), sort, id); err != nil {
		return err
	}
	if job, err := strconv.ParseInt(c.FormValue("job"), 10, 64); err == nil {
		return page.Back(c, "/jobs/%d", job)
	}
	return page.Back(c, "%s?%s", ways[sort], page.Searched(c).Encode())
}

func (s *room) forget(c *echo.Context) error {
	sort, id, err := binned(c)
	if err == nil {
		err = s.Store.Of(c.Request().Context()).Forget(c.Request().Context(), sort, id)
	}
	if page.IsFault(err) {
		return s.showBin(c, http.StatusUnprocessableEntity, fault.Of(err).Text, "")
	}
	if err != nil {
		return err
	}
	return page.Back(c, "/bin")
}

func (s *room) emptyBin(c *echo.Context) error {
	stay, err := s.Store.Of(c.Request().Context()).EmptyBin(c.Request().Context())
	if err != nil {
		return err
	}
	if stay > 0 {
		return s.showBin(c, http.StatusOK, "", "What is left here is made by a job, and stays as long as the job is there.")
	}
	return page.Back(c, "/bin")
}

// binned reads which thing in the bin an address means.
func binned(c *echo.Context) (desk.Sort, int64, error) {
	id, err := page.ID(c)
	return desk.Sort(c.Param("sort")), id, err
}
