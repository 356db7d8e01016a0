package page

import (
	"context"
	"encoding/json"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/draw/export"
)

// forShapes is how long a box's pieces are laid by shape, in seconds.
const forShapes = 1.5

// Shaped is a box or a job that is laid by the true shapes of its pieces: a box's result, or a job's stocks;
// its sheets, how many they are, and how many the trimmer takes.
type Shaped struct {
	Result          *design.Result
	Stocks          []batch.Stock
	Drawings        []export.Drawing
	Sheets, Trimmer int
}

// Saves is how many sheets are saved.
func (s Shaped) Saves() int { return s.Trimmer - s.Sheets }

// Shapes is how a box or a job is laid so: worked out once for the same inputs.
type Shapes struct {
	room *Room
	key  []byte
	lay  func(context.Context) (Shaped, error)
}

// ByShape is how a box is laid that the trimmer has laid.
func (s *Room) ByShape(r *design.Result) Shapes {
	key := r.Inputs.Key()
	return Shapes{s, key[:], func(ctx context.Context) (Shaped, error) {
		layouts, err := s.layouts.Of(byShape, r.Inputs, func() (map[string]json.RawMessage, error) {
			by, err := r.ByShape(ctx, forShapes)
			if err == nil {
				err = ctx.Err() // one that was broken off may not be the best
			}
			if err != nil {
				return nil, err
			}
			return by.ShapeLayouts()
		})
		if err != nil {
			return Shaped{}, err
		}
		by, err := r.Relaid(layouts)
		if err != nil {
			return Shaped{}, err
		}
		return Shaped{Result: by, Drawings: export.Packed(by), Sheets: by.SheetCount(), Trimmer: r.SheetCount()}, nil
	}}
}

// JobByShape is how a job is laid that the trimmer has laid, as long as its sheets and pieces are the same.
func (s *Room) JobByShape(stocks []batch.Stock, made []*design.Result) Shapes {
	var key []byte
	for _, r := range made {
		of := r.Inputs.Key()
		key = append(key, of[:]...)
	}
	for _, one := range stocks {
		key = append(append(key, one.Card.Key()...), one.Job.JSON()...)
	}
	return Shapes{s, key, func(ctx context.Context) (Shaped, error) {
		by, err := batch.ByShape(ctx, stocks, made, forShapes)
		if err != nil {
			return Shaped{}, err
		}
		return Shaped{Stocks: by, Drawings: export.PackedJob(by, made), Sheets: batch.Sheets(by), Trimmer: batch.Sheets(stocks)}, nil
	}}
}

// byShape is the word for what is kept.
const byShape = "by shape"

// Finished is a design as it is made by: one that is cut with scissors or by a machine is laid by shape
// first, if it was not.
func (s *Room) Finished(ctx context.Context, in design.Inputs) (*design.Result, error) {
	r, err := s.Made(ctx, in)
	if err != nil || !in.Tools.With.ByShape() {
		return r, err
	}
	trimmed, err := s.Trimmed(ctx, in)
	if err != nil {
		return nil, err
	}
	by, err := s.ByShape(trimmed).Laid(ctx)
	return by.Result, err
}

// Known reports whether it is there without being worked out.
func (x Shapes) Known() bool { return x.room.shaped.Known(byShape, x.key) }

// Laid gives it, worked out when it is not there.
func (x Shapes) Laid(ctx context.Context) (Shaped, error) {
	return x.room.shaped.OfKey(byShape, x.key, func() (Shaped, error) {
		end, err := x.room.Shares.Take(ctx)
		if err != nil {
			return Shaped{}, err
		}
		defer end()
		by, err := x.lay(ctx)
		if err == nil {
			err = ctx.Err() // one that was broken off may not be the best
		}
		return by, err
	})
}

// On shows a page's sheets as they are laid: by shape where the query asks for it, or where chosen says that
// it is cut so and the query asks for nothing. No page waits for that: as long as it is not there the
// trimmer's sheets are shown, and the page comes again with the others.
func (x Shapes) On(c *echo.Context, p *CuttingPage, chosen bool, trimmer []export.Drawing) ([]export.Drawing, error) {
	laid := c.QueryParam("laid")
	wanted := laid == "shape" || laid == "" && chosen
	p.Laid = []Choice{{"for the trimmer", p.At + "?laid=trimmer", !wanted}, {"by shape", p.At + "?laid=shape", wanted}}
	p.Shapes = strings.TrimSuffix(p.At, "/cutting") + "/shapes?here=1"
	if !wanted {
		p.Files += "&laid=trimmer"
		return trimmer, nil
	}
	p.Files += "&laid=shape"
	if !x.Known() {
		p.Shapes += "&waiting=1"
		p.Waiting = true
		return trimmer, nil
	}
	by, err := x.Laid(c.Request().Context())
	return by.Drawings, err
}

// Saves answers what laying by shape saves; a page that waits for it comes again.
func (x Shapes) Saves(c *echo.Context, at string) error {
	by, err := x.Laid(c.Request().Context())
	if err != nil {
		return err
	}
	if c.QueryParam("waiting") != "" {
		c.Response().Header().Set("HX-Refresh", "true")
	}
	return c.Render(http.StatusOK, "shapes", ShapesView{At: at, Shaped: by, Here: c.QueryParam("here") != ""})
}

// ShapesView is what laying by shape saves, of the box or job at an address.
type ShapesView struct {
	At string
	Shaped
	Here bool // it is asked by the page that shows them
}
