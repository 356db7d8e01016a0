package jobs

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/store"
	"brevium/web/form"
	"brevium/web/page"
)

// work is a job with what it cuts.
type work struct {
	store.Job
	boxes  map[int64]store.Box
	stocks []batch.Stock
}

// job loads the job of the address and lays it out: as it was begun, or as it
// is planned now, with the best layouts found so far. A fault tells why a
// planned one cannot be laid out.
func (s *room) job(c *echo.Context) (*work, error) {
	n, err := page.ID(c)
	if err != nil {
		return nil, store.ErrNoJob
	}
	ctx := c.Request().Context()
	j, err := s.Store.Job(ctx, n)
	if err != nil {
		return nil, err
	}
	w := &work{Job: j, boxes: map[int64]store.Box{}}
	for _, it := range j.Items {
		b, err := s.Store.Box(ctx, it.Box)
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return nil, err
		}
		w.boxes[it.Box] = b
	}
	if j.State != store.Planned {
		w.stocks, err = batch.ReadStocks(j.Stocks)
		return w, err
	}
	return w, s.plan(ctx, w)
}

// plan gathers and lays out a planned job.
func (s *room) plan(ctx context.Context, w *work) error {
	var items []batch.Item
	for _, it := range w.Items {
		b, ok := w.boxes[it.Box]
		if ok && b.Broken != nil {
			return fault.New(fault.Unreadable, copiesName(it.Box), "the box %s of this job cannot be read; take it out", b.Name)
		}
		if !ok {
			return fault.New(fault.Deleted, copiesName(it.Box), "a box of this job is deleted; take it out, or bring the box back")
		}
		items = append(items, batch.Item{Inputs: b.Inputs, Copies: it.Copies})
	}
	lots, err := s.Store.Lots(ctx)
	if err != nil {
		return err
	}
	stocks, err := batch.Gather(ctx, items, lots, w.Choices)
	if err != nil {
		x := *fault.Of(err)
		for i, it := range w.Items {
			if strings.HasPrefix(x.Field, fault.Path("items", i)) {
				x.Field = copiesName(it.Box)
			}
		}
		return &x
	}
	batch.Recall(stocks, w.Layouts)
	for i := range stocks {
		if stocks[i].Layout == nil {
			if err := stocks[i].Lay(ctx, batch.Quick); err != nil {
				return err
			}
		}
	}
	w.stocks = stocks
	return nil
}

func (s *room) showJob(c *echo.Context) error {
	w, err := s.job(c)
	f := form.New(nil, page.UnitsOf(c))
	if w != nil && page.IsFault(err) {
		f.Fail(err)
	} else if err != nil {
		return err
	}
	return s.renderJob(c, http.StatusOK, w, f)
}

// changeJob changes what a planned job makes, and how it is cut.
func (s *room) changeJob(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil && (w == nil || !page.IsFault(err)) {
		return err
	}
	f, boxes, err := s.jobForm(c)
	if err != nil {
		return err
	}
	ctx, posted := c.Request().Context(), f.Posted
	j := w.Job
	j.Items = readItems(f, boxes)
	if extra, err := strconv.ParseInt(
		posted.Get("add"),
		10,
		64,
	); err == nil && extra > 0 &&
		!slices.ContainsFunc(j.Items, func(x store.JobItem) bool { return x.Box == extra }) {
		j.Items = append(j.Items, store.JobItem{Box: extra, Copies: 1})
		posted.Del("add")
	}
	f.Text("name", &j.Name)
	if j.Name = design.CleanName(j.Name); j.Name == "" {
		j.Name = w.Name
	}
	f.Whole("stages", &j.Choices.Stages)
	f.Length("trim", &j.Choices.Trim)
	f.Length("kerf", &j.Choices.Kerf)
	if len(j.Items) == 0 && f.OK() {
		f.Fail(fault.New(fault.Empty, "items", "a job makes at least one box; delete it if there is none"))
	}
	if f.OK() {
		next := &work{Job: j, boxes: map[int64]store.Box{}}
		for _, b := range boxes {
			next.boxes[b.ID] = b
		}
		if err := s.plan(ctx, next); page.IsFault(err) {
			f.Fail(err)
		} else if err != nil {
			return err
		} else if err := s.Store.SaveJob(ctx, j); err != nil {
			return err
		} else {
			w = next
		}
	}
	if !f.OK() {
		return s.renderJob(c, http.StatusUnprocessableEntity, w, f)
	}
	return s.afterJob(c, w)
}

// jobStep takes a job from one state to the next or back.
func (s *room) jobStep(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil && (w == nil || !page.IsFault(err)) {
		return err
	}
	ctx := c.Request().Context()
	planning := err
	switch c.Param("step") {
	case "begin":
		if err = planning; err == nil {
			err = s.Store.BeginJob(ctx, w.ID, w.stocks)
		}
	case "release":
		err = s.Store.ReleaseJob(ctx, w.ID)
	case "finish":
		err = s.Store.FinishJob(ctx, w.ID, batch.Kept(w.stocks, w.Name))
	case "unfinish":
		err = s.Store.UnfinishJob(ctx, w.ID)
	case "buy":
		err = s.Store.AddLots(ctx, batch.ToBuy(w.stocks))
	case "delete":
		if err := s.Store.DeleteJob(ctx, w.ID); err != nil {
			return err
		}
		return page.Back(c, "/jobs")
	default:
		return echo.NewHTTPError(http.StatusNotFound, "no such step")
	}
	if page.IsFault(err) {
		f := form.New(nil, page.UnitsOf(c))
		f.Fail(err)
		return s.renderJob(c, http.StatusUnprocessableEntity, w, f)
	}
	if err != nil {
		return err
	}
	return page.Back(c, "/jobs/%d", w.ID)
}
