// Package jobs is boxes cut together from the drawer.
package jobs

import (
	"context"
	"embed"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"sync"
	"unicode/utf8"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/tool"
	"brevium/store"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/web/form"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct {
	*page.Room
	// searching is held by the one search that runs; the others wait, so that
	// a core is always left for pages.
	searching chan struct{}
	// whose are the people who have a search under way or waiting: each has one, so that
	// they take turns.
	whose  sync.Map
	blanks blanks
}

// Routes adds the room's addresses.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{Room: shared, searching: make(chan struct{}, 1)}
	e.GET("/jobs", s.jobs)
	e.POST("/jobs", s.makeJob)
	e.GET("/jobs/:id", s.showJob)
	e.POST("/jobs/:id", s.changeJob)
	e.GET("/jobs/:id/piece", s.piece)
	e.GET("/jobs/:id/cost", s.cost)
	e.GET("/jobs/:id/evenings", s.evenings)
	e.GET("/jobs/:id/kits", s.kits)
	e.GET("/jobs/:id/cutting", s.cutting)
	e.GET("/jobs/:id/shapes", s.shapes)
	e.GET("/jobs/:id/cut-files", s.cutFiles)
	e.POST("/jobs/:id/evenings", s.setEvenings)
	e.POST("/jobs/:id/cost", s.setCost)
	e.POST("/jobs/:id/hold", s.hold)
	e.POST("/jobs/:id/search", s.search)
	e.POST("/jobs/:id/:step", s.jobStep)
}

// jobsPage lists the jobs, and makes new ones.
type jobsPage struct {
	page.Chrome
	Jobs  []jobEntry
	Form  *form.Form
	Name  form.Field
	Boxes []jobBox
	Older []jobBox // those that were not changed lately
	// Deleted is the job that was just put into the bin, 0 for none.
	Deleted int64
}

// mostRecent is how many boxes are offered at once.
const mostRecent = 30

type jobEntry struct {
	jobbook.Job
	Makes string
	Says  string
}

// jobBox is a box that a job may make.
type jobBox struct {
	ID     int64
	Name   string
	Copies form.Field
}

var stateWords = map[jobbook.State]string{jobbook.Planned: "planned", jobbook.Begun: "under way, its sheets reserved", jobbook.Finished: "finished"}

func (s *room) jobs(c *echo.Context) error {
	return s.showJobs(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func copiesName(box int64) string { return fmt.Sprintf("copies.%d", box) }

func (s *room) showJobs(c *echo.Context, status int, f *form.Form) error {
	ctx := c.Request().Context()
	jobs, err := s.Store.Of(ctx).Jobs(ctx)
	if err != nil {
		return err
	}
	boxes, err := s.Store.Of(ctx).Names(ctx)
	if err != nil {
		return err
	}
	names, view := namesOf(boxes), jobsPage{Chrome: s.Chrome(c, "Jobs"), Form: f}
	for _, b := range boxes {
		x := jobBox{b.ID, b.Name, f.Control(copiesName(b.ID), "Copies of "+b.Name, "", "")}
		if len(view.Boxes) < mostRecent || x.Copies.Value != "" {
			view.Boxes = append(view.Boxes, x)
		} else {
			view.Older = append(view.Older, x)
		}
	}
	for _, j := range jobs {
		view.Jobs = append(view.Jobs, jobEntry{j, makes(j.Items, names), stateWords[j.State]})
	}
	view.Name = f.Control("name", "Name of the job", "what it is for", "")
	if n, err := strconv.ParseInt(c.QueryParam("deleted"), 10, 64); err == nil {
		binned, err := s.Store.Of(ctx).Bin(ctx)
		if err != nil {
			return err
		}
		if slices.ContainsFunc(binned, func(b store.Binned) bool { return b.Sort == desk.JobSort && b.ID == n }) { // else it is back
			view.Deleted = n
		}
	}
	return c.Render(status, "jobs.html", view)
}

func namesOf(boxes []boxshelf.Named) map[int64]string {
	names := map[int64]string{}
	for _, b := range boxes {
		names[b.ID] = b.Name
	}
	return names
}

// jobForm reads the form of a job, and the boxes that it may make.
func (s *room) jobForm(c *echo.Context) (*form.Form, []boxshelf.Named, error) {
	posted, err := c.FormValues()
	if err != nil {
		return nil, nil, page.BadForm(err)
	}
	boxes, err := s.Store.Of(c.Request().Context()).Names(c.Request().Context())
	return form.New(posted, page.UnitsOf(c)), boxes, err
}

// makes writes what a job makes: "12 × Dice set, 4 × Honey jars".
func makes(items []jobbook.JobItem, names map[int64]string) string {
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

// readItems reads how many of each box are asked for; those that the form
// does not name stay as they are.
func readItems(f *form.Form, now []jobbook.JobItem, boxes []boxshelf.Named) []jobbook.JobItem {
	items := slices.Clone(now)
	var ids []int64
	for _, b := range boxes {
		ids = append(ids, b.ID)
	}
	for _, it := range now { // of a deleted box, too
		ids = append(ids, it.Box)
	}
	for _, id := range ids {
		name := copiesName(id)
		if strings.TrimSpace(f.Posted.Get(name)) == "" {
			continue
		}
		n := 0
		if f.Whole(name, &n); f.Faults[name] != "" {
			continue
		}
		at := slices.IndexFunc(items, func(it jobbook.JobItem) bool { return it.Box == id })
		switch {
		case n < 0 || n > design.MostCopies:
			f.Fail(fault.New(fault.CountRange, name, "make 1 to %d of a box, not %d", design.MostCopies, n))
		case n == 0 && at >= 0:
			items = slices.Delete(items, at, at+1)
		case n > 0 && at >= 0:
			items[at].Copies = n
		case n > 0:
			items = append(items, jobbook.JobItem{Box: id, Copies: n})
		}
	}
	return items
}

// cutWith is what the boxes of a new job are cut with, if that is the same for all.
func (s *room) cutWith(ctx context.Context, items []jobbook.JobItem) (tool.With, error) {
	with := tool.Trimmer
	for i, it := range items {
		b, err := s.Store.Of(ctx).Box(ctx, it.Box)
		if err != nil {
			return with, err
		}
		if now := b.Inputs.Tools.With; i > 0 && now != with {
			return tool.Trimmer, nil
		}
		with = b.Inputs.Tools.With
	}
	return with, nil
}

func (s *room) makeJob(c *echo.Context) error {
	f, boxes, err := s.jobForm(c)
	if err != nil {
		return err
	}
	j := jobbook.Job{Items: readItems(f, nil, boxes)}
	f.Text("name", &j.Name)
	if len(j.Items) == 0 && f.OK() {
		f.Fail(fault.New(fault.Empty, "items", "say how many of at least one box"))
	}
	if j.Name = design.CleanName(j.Name); utf8.RuneCountInString(j.Name) > design.LongestName {
		f.Fail(fault.New(fault.TooLong, "name", "the name is too long"))
	}
	if !f.OK() {
		return s.showJobs(c, http.StatusUnprocessableEntity, f)
	}
	if j.Name == "" {
		j.Name = makes(j.Items[:1], namesOf(boxes))
		if more := len(j.Items) - 1; more > 0 {
			j.Name += fmt.Sprintf(" and %d more", more)
		}
	}
	if j.Choices.With, err = s.cutWith(c.Request().Context(), j.Items); err != nil {
		return err
	}
	n, err := s.Store.Of(c.Request().Context()).AddJob(c.Request().Context(), j)
	if err != nil {
		return err
	}
	return page.Back(c, "/jobs/%d", n)
}
