package jobs

import (
	"cmp"
	"context"
	"errors"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/merge"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/web/form"
	"brevium/web/page"
)

// work is a job with what it cuts.
type work struct {
	jobbook.Job
	boxes  map[int64]boxshelf.Box
	gone   map[int64]string // names of its boxes that lie in the bin
	lots   []drawer.Lot     // that it was laid out with, while it is planned
	stocks []batch.Stock
	fresh  bool            // no layout was kept of a card
	needs  []cupboard.Need // of the cupboard
}

// nameOf is what a box of the job is called, wherever it is.
func (w *work) nameOf(box int64) string {
	if b, there := w.boxes[box]; there {
		return b.Name
	}
	return cmp.Or(w.gone[box], "a box that is gone")
}

// job loads the job of the address and lays it out: as it was begun, or as it
// is planned now, with the best layouts found so far. A fault tells why a
// planned one cannot be laid out.
func (s *room) job(c *echo.Context) (*work, error) {
	n, err := page.ID(c)
	if err != nil {
		return nil, desk.ErrNoJob
	}
	ctx := c.Request().Context()
	j, err := s.Store.Of(ctx).Job(ctx, n)
	if err != nil {
		return nil, err
	}
	w := &work{Job: j, boxes: map[int64]boxshelf.Box{}}
	if err := s.gather(ctx, w); err != nil {
		return nil, err
	}
	if j.State != jobbook.Planned {
		if w.stocks, err = batch.ReadStocks(j.Stocks); err != nil {
			return w, err
		}
		w.needs, err = s.Store.Of(ctx).JobGoods(ctx, j.ID)
		return w, err
	}
	return w, s.plan(ctx, w)
}

// gather loads the job's boxes, and the names of those in the bin.
func (s *room) gather(ctx context.Context, w *work) error {
	w.gone = map[int64]string{}
	for _, it := range w.Items {
		b, err := s.Store.Of(ctx).Box(ctx, it.Box)
		if errors.Is(err, desk.ErrNotFound) {
			w.gone[it.Box], err = s.Store.Of(ctx).BinnedBox(ctx, it.Box)
			if errors.Is(err, desk.ErrNotFound) {
				continue
			}
		} else if err == nil {
			w.boxes[it.Box] = b
		}
		if err != nil {
			return err
		}
	}
	return nil
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
			return fault.New(fault.Deleted, copiesName(it.Box), "%s is deleted; bring it back, or remove it", w.nameOf(it.Box))
		}
		item := batch.Item{Inputs: b.Inputs, Copies: it.Copies}
		item.Made, _ = s.Made(ctx, item.One()) // what is wrong with it is said below
		items = append(items, item)
		if item.Made != nil {
			w.needs = cupboard.Sum(w.needs, cupboard.Times(cupboard.Needs(item.Made.Supplies), it.Copies))
		}
	}
	lots, err := s.Store.Of(ctx).Lots(ctx)
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
			w.fresh = true
		}
	}
	w.stocks, w.lots = stocks, lots
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
	for try := 1; ; try++ {
		err := s.changeOnce(c)
		if !errors.Is(err, desk.ErrStale) || try == page.Tries {
			return err
		}
	}
}

// changeOnce puts the form onto the job as it is now; it is ErrStale when the
// job was changed in the same moment.
func (s *room) changeOnce(c *echo.Context) error {
	w, err := s.job(c)
	if err != nil && (w == nil || !page.IsFault(err)) {
		return err
	}
	f, boxes, err := s.jobForm(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	j, err := s.asked(c, f, w.Job, boxes)
	if err != nil {
		return err
	}
	if len(j.Items) == 0 && f.OK() {
		f.Fail(fault.New(fault.Empty, "items", "a job makes at least one box; delete it if there is none"))
	}
	if f.OK() || f.Clashes() {
		next := &work{Job: j, boxes: map[int64]boxshelf.Box{}}
		if err := s.gather(ctx, next); err != nil {
			return err
		}
		if err := s.plan(ctx, next); page.IsFault(err) {
			f.Fail(err)
		} else if err != nil {
			return err
		} else if err := s.Store.Of(ctx).SaveJob(ctx, j, page.Window(c)); err != nil {
			return err
		} else {
			w = next
		}
		if w.Job, err = s.Store.Of(ctx).Job(ctx, w.ID); err != nil {
			return err
		}
	}
	if !f.OK() {
		return s.renderJob(c, http.StatusUnprocessableEntity, w, f)
	}
	return s.afterJob(c, w)
}

// asked is what the job asks for by the form: read onto the job as the form's
// page showed it, with what was changed elsewhere since.
func (s *room) asked(c *echo.Context, f *form.Form, now jobbook.Job, boxes []boxshelf.Named) (jobbook.Job, error) {
	base, own, text := now, true, now.Asked()
	version, _ := strconv.ParseInt(f.Posted.Get("version"), 10, 64)
	stale := version != 0 && version != now.Version
	if stale {
		var err error
		text, own, err = s.Store.Of(c.Request().Context()).JobState(c.Request().Context(), now.ID, version, page.Window(c))
		if errors.Is(err, desk.ErrForgotten) {
			err = fault.New(fault.NotTaken, "", "This page shows the job as it was long ago. Load it again, then change it.")
		}
		if err == nil {
			err = base.Ask(text)
		}
		if err != nil {
			return now, err
		}
	}
	f.Posted.Del(f.Posted.Get("take"))
	mine := s.readJob(f, base, boxes)
	if !stale {
		return mine, nil
	}
	m, err := merge.Objects(text, mine.Asked(), now.Asked(), merge.Rules{Keys: map[string]string{"items": "box"}, Prefer: own})
	if err != nil {
		return now, err
	}
	out := now
	if err := out.Ask(m.State); err != nil {
		return now, err
	}
	name := func(path string) string {
		for _, j := range []jobbook.Job{mine, out} {
			for i, it := range j.Items {
				if path == fault.Path("items", i) || path == fault.Path("items", i, "copies") {
					return copiesName(it.Box)
				}
			}
		}
		return strings.TrimPrefix(path, "choices.")
	}
	f.Onto(m, name, name, true)
	return out, nil
}

// readJob reads the form onto a job.
func (s *room) readJob(f *form.Form, j jobbook.Job, boxes []boxshelf.Named) jobbook.Job {
	if away := f.Posted.Get("remove"); away != "" {
		f.Posted.Set("copies."+away, "0")
	}
	j.Items = readItems(f, j.Items, boxes)
	extra, err := strconv.ParseInt(f.Posted.Get("add"), 10, 64)
	if err == nil && extra > 0 && !slices.ContainsFunc(j.Items, func(x jobbook.JobItem) bool { return x.Box == extra }) {
		j.Items = append(j.Items, jobbook.JobItem{Box: extra, Copies: 1})
	}
	f.Posted.Del("add")
	f.Text("name", &j.Name)
	f.With("with", &j.Choices.With)
	switch name := design.CleanName(j.Name); {
	case name == "":
		f.Fail(fault.New(fault.Empty, "name", "A job needs a name. The old one is kept."))
		j.Name = ""
	case utf8.RuneCountInString(name) > design.LongestName:
		f.Fail(fault.New(fault.TooLong, "name", "That name is too long. The old one is kept."))
	default:
		j.Name = name
	}
	f.Whole("stages", &j.Choices.Stages)
	f.Length("trim", &j.Choices.Trim)
	f.Length("kerf", &j.Choices.Kerf)
	return j
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
			err = s.Store.Of(ctx).BeginJob(ctx, w.ID, w.stocks, w.needs)
		}
	case "release":
		err = s.Store.Of(ctx).ReleaseJob(ctx, w.ID)
	case "finish":
		err = s.Store.Of(ctx).FinishJob(ctx, w.ID, batch.Kept(w.stocks, w.Name))
	case "unfinish":
		err = s.Store.Of(ctx).UnfinishJob(ctx, w.ID)
	case "buy":
		err = s.Store.Of(ctx).AddLots(ctx, batch.ToBuy(w.stocks))
	case "delete":
		if err := s.Store.Of(ctx).DeleteJob(ctx, w.ID); err != nil {
			return err
		}
		return page.Back(c, "/jobs?deleted=%d", w.ID)
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
