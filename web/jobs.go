package web

import (
	"fmt"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/store"
)

// jobsPage lists the jobs, and makes new ones.
type jobsPage struct {
	chrome
	Jobs  []jobEntry
	Form  *form
	Name  field
	Boxes []jobBox
}

type jobEntry struct {
	store.Job
	Makes string
	Says  string
}

// jobBox is a box that a job may make.
type jobBox struct {
	ID     int64
	Name   string
	Copies field
}

var stateWords = map[store.State]string{store.Planned: "planned", store.Begun: "under way, its sheets reserved", store.Finished: "finished"}

func (s *server) jobs(c *echo.Context) error {
	return s.showJobs(c, http.StatusOK, newForm(c.QueryParams(), unitsOf(c)))
}

func copiesName(box int64) string { return fmt.Sprintf("copies.%d", box) }

func (s *server) showJobs(c *echo.Context, status int, f *form) error {
	ctx := c.Request().Context()
	jobs, err := s.store.Jobs(ctx)
	if err != nil {
		return err
	}
	boxes, err := s.store.Boxes(ctx)
	if err != nil {
		return err
	}
	names, page := namesOf(boxes), jobsPage{chrome: s.chrome(c, "Jobs"), Form: f}
	for _, b := range boxes {
		page.Boxes = append(page.Boxes, jobBox{b.ID, b.Name, f.control(copiesName(b.ID), "Copies of "+b.Name, "", "")})
	}
	for _, j := range jobs {
		page.Jobs = append(page.Jobs, jobEntry{j, makes(j.Items, names), stateWords[j.State]})
	}
	page.Name = f.control("name", "Name of the job", "what it is for", "")
	return c.Render(status, "jobs.html", page)
}

func namesOf(boxes []store.Box) map[int64]string {
	names := map[int64]string{}
	for _, b := range boxes {
		names[b.ID] = b.Name
	}
	return names
}

// jobForm reads the form of a job, and the boxes that it may make.
func (s *server) jobForm(c *echo.Context) (*form, []store.Box, error) {
	posted, err := c.FormValues()
	if err != nil {
		return nil, nil, badForm(err)
	}
	boxes, err := s.store.Boxes(c.Request().Context())
	return newForm(posted, unitsOf(c)), boxes, err
}

// makes writes what a job makes: "12 × Dice set, 4 × Honey jars".
func makes(items []store.JobItem, names map[int64]string) string {
	var parts []string
	for _, it := range items {
		name, ok := names[it.Box]
		if !ok {
			name = "a box that is deleted"
		}
		parts = append(parts, fmt.Sprintf("%d × %s", it.Copies, name))
	}
	return strings.Join(parts, ", ")
}

// readItems reads how many of each box are asked for.
func readItems(f *form, boxes []store.Box) []store.JobItem {
	var items []store.JobItem
	for _, b := range boxes {
		name := copiesName(b.ID)
		if strings.TrimSpace(f.posted.Get(name)) == "" {
			continue
		}
		n := 0
		if f.whole(name, &n); n == 0 && f.faults[name] == "" {
			continue
		}
		if n < 0 || n > design.MostCopies {
			f.fail(fault.New(fault.CountRange, name, "make 1 to %d of a box, not %d", design.MostCopies, n))
		}
		items = append(items, store.JobItem{Box: b.ID, Copies: n})
	}
	return items
}

func (s *server) makeJob(c *echo.Context) error {
	f, boxes, err := s.jobForm(c)
	if err != nil {
		return err
	}
	j := store.Job{Items: readItems(f, boxes)}
	f.text("name", &j.Name)
	if len(j.Items) == 0 && f.ok() {
		f.fail(fault.New(fault.Empty, "items", "say how many of at least one box"))
	}
	if len(j.Name) > design.LongestName {
		f.fail(fault.New(fault.TooLong, "name", "the name is too long"))
	}
	if !f.ok() {
		return s.showJobs(c, http.StatusUnprocessableEntity, f)
	}
	if j.Name == "" {
		j.Name = makes(j.Items[:1], namesOf(boxes))
		if more := len(j.Items) - 1; more > 0 {
			j.Name += fmt.Sprintf(" and %d more", more)
		}
	}
	n, err := s.store.AddJob(c.Request().Context(), j)
	if err != nil {
		return err
	}
	return back(c, "/jobs/%d", n)
}
