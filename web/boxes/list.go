package boxes

import (
	"context"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/inspect"
	"brevium/core/layout"
	"brevium/core/style"
	"brevium/store/boxshelf"
	"brevium/web/form"
	"brevium/web/page"
)

// How many boxes the list shows at first, and each time one scrolls on.
const (
	firstBoxes = 9
	moreBoxes  = 24
	mostWords  = 6
)

// listPage is the list of boxes, or the next part of it.
type listPage struct {
	page.Chrome
	Boxes   []entry
	Deleted int64
	Waits   string // the job that makes the deleted box
	All     int    // that were found
	Any     bool   // boxes at all
	Ways    []Way  // to begin one, when there are none
	Made    []made // how one is made, when there are none
	Next    string // where the next part is; "" at the end
	Find    string
	OrderBy string // as it was asked for
	Order   form.Field
	// Tags are those to list by, Tag the one that is; Away says that those put away are listed, and
	// Stored how many they are.
	Tags    []boxshelf.Tag
	Tag     string
	Away    bool
	Stored  int
	Done    *done
	Refused string
}

// entry is one box in the list.
type entry struct {
	boxshelf.Box
	look
	When string
	// Chosen says that something was just done with it, and may be again.
	Chosen bool
	Group  string     // the heading that it begins, or ""
	Whose  page.Whose // where several work
}

// look is what the list shows of a box; it follows from its inputs.
type look struct {
	Style, Size, Problem string
	Picture              template.HTML
	Verdict              inspect.Verdict
	Inside               style.Extent
}

// mostLooks bounds the boxes whose look is kept in memory, some kilobytes
// each.
const mostLooks = 2000

var orderWords = map[boxshelf.Order]string{
	"": "the last changed first", boxshelf.ByDate: "by month", boxshelf.ByName: "by name", boxshelf.ByStyle: "by kind of box", boxshelf.ByThing: "by what goes in",
}

func (s *room) list(c *echo.Context) error {
	ctx, q := c.Request().Context(), c.QueryParams()
	view := listPage{Chrome: s.Chrome(c, "Boxes"), Find: strings.TrimSpace(q.Get("find")), OrderBy: q.Get("order")}
	view.Tag, view.Away, view.Done, view.Refused = q.Get("tag"), q.Has("archived"), doneOf(q), q.Get("refused")
	near, rest := sizeIn(view.Find, view.Units)
	l := boxshelf.Listing{Words: words(rest), Tag: view.Tag, Archived: view.Away, Order: boxshelf.Order(q.Get("order")), Count: firstBoxes}
	if from, err := strconv.Atoi(q.Get("from")); err == nil && from > 0 {
		l.From, l.Count = from, moreBoxes
	}
	end, before := l.From+l.Count, min(l.From, 1) // with the one before, for its heading
	l.From, l.Count = l.From-before, l.Count+before
	boxes, all, err := s.listed(ctx, l, near)
	if err != nil {
		return err
	}
	if view.Tags, err = s.Store.Of(ctx).Tags(ctx); err != nil {
		return err
	}
	if view.Stored, err = s.Store.Of(ctx).CountArchived(ctx); err != nil {
		return err
	}
	view.All, view.Any = all, all > 0 || view.Find != "" || view.Tag != "" || view.Away || view.Stored > 0
	if !view.Any {
		view.Ways = ways("")
		view.Made = s.madeHere(c.Request().Context(), view.Units)
	}
	view.Boxes = s.entries(ctx, boxes)
	if before = min(before, len(boxes)); near == nil {
		view.Boxes = grouped(view.Boxes, before, l.Order)
	} else {
		view.Boxes = view.Boxes[before:]
	}
	if view.Done != nil {
		for i, e := range view.Boxes {
			view.Boxes[i].Chosen = slices.Contains(view.Done.Boxes, e.ID)
		}
	}
	if end < all {
		next := url.Values{"from": {strconv.Itoa(end)}}
		for _, name := range []string{"find", "order", "tag", "archived"} {
			if q.Has(name) {
				next.Set(name, q.Get(name))
			}
		}
		view.Next = "/?" + next.Encode()
	}
	var orders []form.Choice
	for _, o := range append([]boxshelf.Order{""}, boxshelf.Orders...) {
		orders = append(orders, form.Choice{Value: string(o), Label: orderWords[o]})
	}
	view.Order = form.New(q, view.Units).ChoiceField("order", "In order", "", "", orders...)
	if n, err := strconv.ParseInt(q.Get("deleted"), 10, 64); err == nil {
		if _, err := s.Store.Of(ctx).BinnedBox(ctx, n); err == nil { // else it is back, or somebody else's
			view.Deleted = n
			if view.Waits, err = s.Store.Of(ctx).JobWith(ctx, n); err != nil {
				return err
			}
		}
	}
	if c.Request().Header.Get("HX-Request") != "" {
		return c.Render(http.StatusOK, "boxes", view)
	}
	return c.Render(http.StatusOK, "list.html", view)
}

// words are what is looked for, each with the styles whose name has it.
func words(find string) []boxshelf.Word {
	var out []boxshelf.Word
	for _, w := range strings.Fields(find) {
		if len(out) == mostWords {
			break
		}
		x := boxshelf.Word{Text: w}
		for _, s := range style.Listed() {
			if strings.Contains(strings.ToLower(s.Name), strings.ToLower(w)) {
				x.Styles = append(x.Styles, s.ID)
			}
		}
		out = append(out, x)
	}
	return out
}

// entries readies the boxes for the list; they do not wait for one another.
func (s *room) entries(ctx context.Context, boxes []boxshelf.Box) []entry {
	out := make([]entry, len(boxes))
	layout.Each(ctx, len(boxes), layout.AtOnce, func(i int) {
		b := boxes[i]
		whose, err := s.Whose(ctx, "boxes", b.ID, b.Maker, b.Shared)
		if err != nil {
			s.Log.Error("whose a box is cannot be read", "error", err)
		}
		out[i] = entry{Box: b, look: s.lookOf(ctx, b), When: b.Changed.Format("2 January 2006"), Whose: whose}
	})
	return out
}

// lookOf is what a box looks like; one that can no longer be read or worked
// out says why, and takes no other down.
func (s *room) lookOf(ctx context.Context, b boxshelf.Box) look {
	if b.Broken != nil {
		return look{Problem: fault.Of(b.Broken).Text}
	}
	in := b.Inputs
	in.Name, in.Photograph = "", "" // the same box by another name looks the same
	out, _ := s.looks.Of("look", in, func() (look, error) {
		var l look
		err := fault.Guard(func() error {
			end, err := s.Shares.Take(ctx)
			if err != nil {
				return err
			}
			defer end()
			r, err := design.Make(ctx, in)
			if err == nil {
				l = look{Style: r.Style.Name, Size: sizeLine(r), Picture: page.BoxPicture(r, ""), Verdict: inspect.Worst(r.Checks), Inside: r.Inside}
			}
			return err
		})
		if err != nil {
			l.Problem = fault.Of(err).Text
		}
		return l, ctx.Err()
	})
	return out
}

// sizeLine is a box's clear inside in half a line, in the unit it is made in: the same
// numbers as on its own pages.
func sizeLine(r *design.Result) string {
	return r.Inside.FreeIn(r.Inputs.Units) + " inside"
}
