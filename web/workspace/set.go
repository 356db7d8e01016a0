package workspace

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"brevium/core/contents"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/store/jobbook"
	"brevium/web/form"
	"brevium/web/page"
)

// setFields ask for the second size of what goes in.
func setFields(f *form.Form, t contents.Thing) []form.Field {
	if t.Shape == contents.Round {
		return []form.Field{f.LengthField("set.length", "Across", "", t.Length), f.LengthField("set.height", "Height", "", t.Height)}
	}
	return []form.Field{f.LengthField("set.length", "Length", "", t.Length), f.LengthField("set.width", "Width", "", t.Width), f.LengthField("set.height", "Height", "", t.Height)}
}

// set makes a second box of the same kind, card and papers for what goes in in
// another size, and a job that cuts both from the same sheets.
func (s *room) set(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	b, err := s.Box(c)
	if err != nil {
		return err
	}
	in := b.Inputs.Clone()
	if len(in.Things) != 1 {
		return fault.New(fault.NotTaken, "set", "A set is of one kind of thing: take the others out first.")
	}
	f, t := form.New(posted, in.Units), &in.Things[0]
	f.Length("set.length", &t.Length)
	if t.Width = t.Length; t.Shape != contents.Round {
		t.Width = b.Inputs.Things[0].Width
		f.Length("set.width", &t.Width)
	}
	f.Length("set.height", &t.Height)
	in.Stand = ""
	in.Name = design.CleanName(b.Name + ", second size")
	if f.OK() {
		if err := t.Check(); err != nil {
			f.Fail(fault.At("set.length", err))
		} else {
			s.Try(c, f, &in)
		}
	}
	if !f.OK() {
		i, _ := stopByID("contents")
		return s.workspace(c, http.StatusUnprocessableEntity, b, i, f, nil)
	}
	ctx := c.Request().Context()
	second, err := s.Store.Of(ctx).Add(ctx, in)
	if err != nil {
		return err
	}
	job, err := s.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: design.CleanName(b.Name + ", a set of two sizes"), Items: []jobbook.JobItem{{Box: b.ID, Copies: b.Inputs.Copies}, {Box: second, Copies: in.Copies}}})
	if err != nil {
		return err
	}
	return page.Back(c, "/jobs/%d", job)
}
