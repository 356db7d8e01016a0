package drawer

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/web/form"
	"brevium/web/page"
)

// toolsPage is the list of a maker's tools.
type toolsPage struct {
	page.Chrome
	Form                  *form.Form
	Table, Owned, Machine []form.Field
	Kept                  bool
}

func (s *room) tools(c *echo.Context) error {
	return s.showTools(c, http.StatusOK, form.New(c.QueryParams(), page.UnitsOf(c)))
}

func (s *room) showTools(c *echo.Context, status int, f *form.Form) error {
	t, err := s.Tools(c.Request().Context(), f.Unit)
	if err != nil {
		return err
	}
	f.Carry = true
	v := toolsPage{Chrome: s.Chrome(c, "Tools"), Form: f, Kept: c.QueryParam("kept") != ""}
	v.Table, v.Owned = toolFields(f, t)
	v.Machine = f.MachineFields(t.Owned.Machine)
	return c.Render(status, "tools.html", v)
}

// toolFields ask for trimmer and board, and for what is owned besides.
func toolFields(f *form.Form, t design.Tools) (table, owned []form.Field) {
	return []form.Field{
		f.LengthField("tools.trimmer", "Longest cut of the trimmer", "usually 12 in or 30.5 cm", t.Trimmer),
		f.WithField("tools.with", t.With),
		f.ChoiceField("tools.fence", "The scoring board's fence is on the", "", string(t.Fence), form.Plain("left", "right")...),
	}, f.ToolFields(t.Owned)
}

// setTools keeps the list.
func (s *room) setTools(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	s.Merging.Lock()
	defer s.Merging.Unlock()
	f := form.New(posted, page.UnitsOf(c))
	ctx := c.Request().Context()
	t, err := s.Tools(ctx, f.Unit)
	if err != nil {
		return err
	}
	table, owned := toolFields(form.New(nil, f.Unit), t)
	f.Meet(append(append(table, owned...), form.New(nil, f.Unit).MachineFields(t.Owned.Machine)...)...)
	f.LongLength("tools.trimmer", &t.Trimmer)
	f.Text("tools.fence", (*string)(&t.Fence))
	f.With("tools.with", &t.With)
	f.ReadTools(&t.Owned)
	f.ReadMachine(&t.Owned.Machine)
	if f.OK() {
		in := design.Plain("tools", f.Unit)
		in.Tools = t
		if err := in.Check(); err != nil {
			f.Fail(listed(err))
		}
	}
	if !f.OK() || f.Clashes() {
		return s.showTools(c, http.StatusUnprocessableEntity, f)
	}
	if err := s.SetTools(ctx, t); err != nil {
		return err
	}
	return page.Back(c, "/drawer/tools?kept=1")
}

// listed is a fault of one tool of a list at the field of the whole list.
func listed(err error) error {
	x := *fault.Of(err)
	for _, list := range []string{"tools.punches", "tools.rounders", "tools.dies"} {
		if form.Within(x.Field, list) {
			x.Field = list
		}
	}
	if x.Field == "tools.machine.mat" {
		x.Field = "tools.machine"
	}
	if x.Field == "tools.circles" {
		x.Field = "tools.circles.from"
	}
	return &x
}
