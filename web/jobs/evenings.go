package jobs

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/evenings"
	"brevium/core/fault"
	"brevium/core/logbook"
	"brevium/core/recipe"
	"brevium/web/form"
	"brevium/web/page"
)

// table is who is at the table, when, with what; as a maker typed it.
type table struct {
	Evenings string `json:"evenings"`
	Hands    string `json:"hands"`
	Ready    string `json:"ready,omitempty"` // a day
	Trimmers int    `json:"trimmers"`
	Boards   int    `json:"boards"`
}

// tableKey is where the table that was set last is kept, for the next job.
const tableKey = "evenings"

// table reads a job's table, its own or the last that was set, and what is done of it.
func (s *room) table(ctx context.Context, job int64) (t table, done map[string]int, err error) {
	t = table{Evenings: "Tuesday 19 to 21\nSaturday 9 to 12", Trimmers: 1, Boards: 1}
	if err := s.Store.Of(ctx).Setting(ctx, tableKey, &t); err != nil {
		return t, nil, err
	}
	t.Ready = "" // of another job
	done, err = s.Store.Of(ctx).Evenings(ctx, job, &t)
	return t, done, err
}

// read gives what a table says from a time on.
func (t table) read(now time.Time) (when []evenings.Session, who []evenings.Hand, tools evenings.Tools, err error) {
	var ready time.Time
	if t.Ready != "" {
		if ready, err = time.ParseInLocation(time.DateOnly, t.Ready, now.Location()); err != nil {
			return nil, nil, tools, fault.New(fault.Invalid, "ready", "%q is no day; write it like 2026-12-05", t.Ready)
		}
		if ready.AddDate(0, 0, 1).Before(now) {
			return nil, nil, tools, fault.New(fault.OutOfRange, "ready", "that day is over")
		}
	}
	if t.Trimmers < 1 || t.Trimmers > evenings.MostHands {
		return nil, nil, tools, fault.New(fault.CountRange, "trimmers", "there are 1 to %d trimmers", evenings.MostHands)
	}
	if t.Boards < 1 || t.Boards > evenings.MostHands {
		return nil, nil, tools, fault.New(fault.CountRange, "boards", "there are 1 to %d scoring boards", evenings.MostHands)
	}
	if who, err = evenings.ReadHands(t.Hands); err != nil {
		return nil, nil, tools, under("hands", err)
	}
	if when, err = evenings.ReadSessions(t.Evenings, now, ready); err != nil {
		return nil, nil, tools, under("evenings", err)
	}
	return when, who, evenings.Tools{Trimmers: t.Trimmers, Boards: t.Boards}, nil
}

// under puts a fault of a line at the field the line is in.
func under(field string, err error) error {
	f := *fault.Of(err)
	if strings.HasPrefix(f.Field, "line ") {
		f.Text = capital(f.Field) + ": " + f.Text
	}
	f.Field = field
	return &f
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// eveningsPage is a job in evenings.
type eveningsPage struct {
	page.Chrome
	ID       int64
	Name     string
	Form     *form.Form
	Fields   []form.Field
	Sessions []sessionView
	Answer   string
	Proof    string
	Warn     string
	Progress int
	Slips    []studentView // the boxes, for their slips
}

type sessionView struct {
	Day, Time string
	Tonight   bool
	Hands     []handView
}

type handView struct {
	Name string
	Lots []lotView
}

type lotView struct {
	At, Says, Takes, Sets string
	Key                   string
	Upto                  int
}

func (s *room) evenings(c *echo.Context) error {
	return s.showEvenings(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showEvenings(c *echo.Context, status int, f *form.Form) error {
	w, err := s.job(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	items, ids, err := s.made(ctx, w)
	if err != nil {
		return err
	}
	t, done, err := s.table(ctx, w.ID)
	if err != nil {
		return err
	}
	times, err := s.Store.Of(ctx).Times(ctx, 0)
	if err != nil {
		return err
	}
	slips := boxesOf(items, ids)
	v := &eveningsPage{Chrome: s.Chrome(c, "Schedule · "+w.Name), ID: w.ID, Name: w.Name, Form: f, Slips: slips}
	now := s.Store.Now()
	when, who, tools, wrong := t.read(now)
	if page.IsFault(wrong) {
		f.Fail(wrong)
	} else if wrong != nil {
		return wrong
	} else {
		v.planned(evenings.Tasks(items, ids, logbook.Paces(times), done), when, who, tools, now)
	}
	f.Carry = true
	v.Fields = t.fields(f, now)
	return c.Render(status, "evenings.html", v)
}

// fields ask who is at the table, when, with what.
func (t table) fields(f *form.Form, now time.Time) []form.Field {
	lines := func(name, label, hint, stored string) form.Field {
		x := f.Control(name, label, hint, stored)
		x.Kind = "lines"
		return x
	}
	return []form.Field{
		lines("evenings", "Time at the table", "like Tuesday 19 to 21, Saturday morning", t.Evenings),
		f.Control("ready", "Ready by", "a date such as "+now.AddDate(0, 0, 14).Format(time.DateOnly)+"; the weekdays above repeat until then", t.Ready),
		lines("hands", "Who is there", "one person per line; their tasks after a colon, as in Ben: fold, glue", t.Hands),
		f.Control("trimmers", "Trimmers", "", fmt.Sprint(t.Trimmers)),
		f.Control("boards", "Scoring boards", "", fmt.Sprint(t.Boards)),
	}
}

// planned fills in the plan.
func (v *eveningsPage) planned(tasks []evenings.Task, when []evenings.Session, who []evenings.Hand, tools evenings.Tools, now time.Time) {
	p := evenings.Make(tasks, when, who, tools, now)
	v.Sessions = sessionsOf(p, now)
	all, over := 0.0, 0.0
	for _, t := range tasks {
		all += t.Seconds(0, t.Copies)
		over += t.Seconds(0, t.Done)
	}
	v.Progress = int(100 * over / max(1, all))
	switch {
	case p.Lacking != "":
		v.Warn = fmt.Sprintf("Nobody there does this: %s. Say who does.", kindWords[p.Lacking])
	case p.Left > 0:
		v.Warn = fmt.Sprintf("These evenings are too few: about %s more are needed. Add a time, or a pair of hands.", recipe.Clock(p.Left/60))
	case p.Ready.IsZero():
		v.Answer = "All of it is done."
	default:
		v.Answer = "Ready " + p.Ready.Format("Monday 2 January, about 15:04")
		if start, can := evenings.LatestStart(tasks, when, who, tools, now); can {
			v.Proof = "Latest start: " + start.From.Format("Monday 2 January, 15:04")
		}
	}
}

var kindWords = map[recipe.Kind]string{
	recipe.Cut: "cut", recipe.Score: "score", recipe.Fold: "fold", recipe.Remove: "cut away", recipe.Decorate: "decorate",
	recipe.Glue: "glue", recipe.Assemble: "put together", recipe.Fill: "fill", recipe.Close: "close",
}

// sessionsOf parts a plan by session and hand; sessions in which nothing is done are
// left out.
func sessionsOf(p evenings.Plan, now time.Time) []sessionView {
	var out []sessionView
	for n, s := range p.Sessions {
		v := sessionView{Day: s.From.Format("Monday 2 January"), Time: s.From.Format("15:04") + " to " + s.To.Format("15:04")}
		v.Tonight = s.From.Format(time.DateOnly) == now.Format(time.DateOnly)
		for h, hand := range p.Hands {
			x := handView{Name: hand.Name}
			for _, l := range p.Runs(n, h) {
				y := lotView{At: l.From.Format("15:04"), Says: p.Says(l), Takes: recipe.Clock(l.To.Sub(l.From).Minutes()), Key: p.Tasks[l.Task].Key, Upto: l.First + l.Copies}
				if p.Tasks[l.Task].Set > 0 {
					y.Sets = fmt.Sprintf("leave it %d min to set", int(p.Tasks[l.Task].Set.Minutes()))
				}
				x.Lots = append(x.Lots, y)
			}
			if len(x.Lots) > 0 {
				v.Hands = append(v.Hands, x)
			}
		}
		if len(v.Hands) > 0 {
			out = append(out, v)
		}
	}
	return out
}

// setEvenings keeps who is at the table and when, or that a lot is done.
func (s *room) setEvenings(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	s.Merging.Lock()
	defer s.Merging.Unlock()
	ctx := c.Request().Context()
	f := form.New(posted, page.UnitsOf(c))
	if key := posted.Get("key"); key != "" {
		if err := s.lotDone(ctx, f, n, key); err != nil {
			return err
		}
		return page.Back(c, "/jobs/%d/evenings", n)
	}
	t, _, err := s.table(ctx, n)
	if err != nil {
		return err
	}
	f.Meet(t.fields(form.New(nil, f.Unit), s.Store.Now())...)
	for name, into := range map[string]*string{"evenings": &t.Evenings, "hands": &t.Hands, "ready": &t.Ready} {
		if posted.Has(name) {
			*into = strings.TrimSpace(strings.ReplaceAll(posted.Get(name), "\r\n", "\n"))
		}
	}
	f.Whole("trimmers", &t.Trimmers)
	f.Whole("boards", &t.Boards)
	if _, _, _, err := t.read(s.Store.Now()); page.IsFault(err) {
		f.Fail(err)
	} else if err != nil {
		return err
	}
	if !f.OK() {
		return s.showEvenings(c, http.StatusUnprocessableEntity, f)
	}
	if err := s.Store.Of(ctx).SetEvenings(ctx, n, t); err != nil {
		return err
	}
	if err := s.Store.Of(ctx).Set(ctx, tableKey, t); err != nil {
		return err
	}
	return page.Back(c, "/jobs/%d/evenings", n)
}

// lotDone notes that copies of a task are done up to a number: what others did further on
// stays done. 0 takes it back.
func (s *room) lotDone(ctx context.Context, f *form.Form, job int64, key string) error {
	upto := 0
	f.Whole("upto", &upto)
	if upto <= 0 {
		return s.Store.Of(ctx).SetDone(ctx, job, key, 0)
	}
	_, done, err := s.table(ctx, job)
	if err != nil {
		return err
	}
	return s.Store.Of(ctx).SetDone(ctx, job, key, max(done[key], upto))
}
