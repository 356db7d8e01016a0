package workspace

import (
	"errors"
	"maps"
	"strconv"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/paper"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/web/form"
	"brevium/web/page"
)

// alter changes the box of the address as it is now. change may be asked
// again, when somebody else was quicker.
func (s *room) alter(c *echo.Context, change func(b boxshelf.Box, in *design.Inputs) error) (boxshelf.Box, error) {
	for try := 1; ; try++ {
		b, err := s.Box(c)
		if err != nil {
			return b, err
		}
		in := b.Inputs.Clone()
		if err := change(b, &in); err != nil {
			return b, err
		}
		kept, err := s.save(c, b, in)
		if !errors.Is(err, desk.ErrStale) || try == page.Tries {
			return kept, err
		}
	}
}

// save keeps changed inputs and gives the box as it is now. It is ErrStale
// when the box was changed since it was read.
func (s *room) save(c *echo.Context, b boxshelf.Box, in design.Inputs) (boxshelf.Box, error) {
	ctx := c.Request().Context()
	in.NumberThings()
	if what := design.Difference(b.Inputs, in); what != "" {
		if err := s.Store.Of(ctx).Save(ctx, b.ID, in, boxshelf.Edit{From: b.Version, What: what, Page: page.Window(c)}); err != nil {
			return b, err
		}
	}
	return s.Store.Of(ctx).Box(ctx, b.ID)
}

// taken is what a stop's form makes of a box.
type taken struct {
	in     design.Inputs
	made   *design.Result
	unread map[string]string // fields that are no length, number or choice, when made is nil
}

// take reads a page's form onto the box as its page showed it, puts what was
// changed elsewhere since with it, and works the design out. Only the fields
// that cannot be taken are left out; they are in the form's faults.
func (s *room) take(c *echo.Context, f *form.Form, b boxshelf.Box, i int) (taken, error) {
	f.Posted.Del(f.Posted.Get("take"))
	left := refusing{posted: f.Posted, back: f.Back, refused: split(c.Request().Header.Get("X-Refused")), last: c.Request().Header.Get("X-Field")}
	all := form.Form{}
	for {
		g := form.New(left.rest(), f.Unit)
		t, err := s.attempt(c, g, b, i)
		if err != nil {
			return taken{}, err
		}
		if all.Posted == nil {
			all = *g
		}
		if t.made != nil || !left.out(g) {
			if t.made == nil && len(left.faults) > 0 {
				// No part of it can be taken: say what is wrong with the whole.
				*f = all
				maps.Copy(f.Faults, t.unread)
				return taken{in: t.in}, nil
			}
			*f = *g
			f.Cures = all.Cures
			left.show(f)
			return t, nil
		}
	}
}

// attempt works out what a form makes of a box.
func (s *room) attempt(c *echo.Context, f *form.Form, b boxshelf.Box, i int) (taken, error) {
	base, own := b.Inputs, true
	version, _ := strconv.ParseInt(f.Posted.Get("version"), 10, 64)
	stale := version != 0 && version != b.Version
	if stale {
		var err error
		if base, own, err = s.Store.Of(c.Request().Context()).State(c.Request().Context(), b.ID, version, page.Window(c)); err != nil {
			if errors.Is(err, desk.ErrForgotten) {
				err = fault.New(fault.NotTaken, "", "This page shows the box as it was long ago. Load it again, then change it.")
			}
			return taken{}, err
		}
	}
	f.Unit, f.Tick, f.Longest = base.Units, base.Units.Tick(), paper.Longest(base.Sheets)
	in := base.Clone()
	now, err := s.Before(c.Request().Context(), base)
	if err == nil {
		stops[i].read(f, &in, now)
	} else if !page.IsFault(err) {
		return taken{}, err
	}
	if stale {
		in.NumberThings()
		merged, m, err := design.Merge(base, in, b.Inputs, own)
		if err != nil {
			f.Fail(err)
			merged = b.Inputs
		}
		f.Onto(m, form.FieldName, form.FieldName, in.Units == merged.Units)
		f.Unit, f.Tick = b.Inputs.Units, b.Inputs.Units.Tick()
		in = merged
	}
	// What could not be read changes nothing; the rest is worked out without it.
	unread := maps.Clone(f.Faults)
	clear(f.Faults)
	if cure := f.Posted.Get("cure"); cure != "" {
		for _, x := range design.Cures(in) {
			if x.Key == cure {
				in = x.Inputs
				clear(f.Posted) // the fields show what it came to
			}
		}
	}
	if field := f.Posted.Get("mend"); field != "" && now != nil {
		for _, x := range now.Checks {
			if x.Mend != nil && x.Mend.Field == field {
				in.Mend(*x.Mend)
				clear(f.Posted)
			}
		}
	}
	made := s.Try(c, f, &in)
	if made == nil {
		f.Cures = design.Cures(in)
	} else {
		maps.Copy(f.Faults, unread)
	}
	return taken{in, made, unread}, nil
}
