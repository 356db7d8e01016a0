package main

import (
	"fmt"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"github.com/spf13/cobra"

	"brevium/core/fault"
	"brevium/core/strokes"
	"brevium/core/tool"
	"brevium/draw/export"
	"brevium/plotter"
)

// errNotAsPlanned ends the command with a status of its own: it was cut, but not as the plan says.
var errNotAsPlanned = fmt.Errorf("not as the plan says")

func cutCommand() *cobra.Command {
	var mat, sheet, plan string
	var force, passes []string
	var asJSON bool
	o := plotter.Usual(tool.Mat{}, 0.3)
	c := &cobra.Command{
		Use: "cut FILE", Short: "Try a design, an SVG or an HPGL file on a simulated cutting mat (- reads a design from standard input)",
		Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			var err error
			if o.Mat, err = tool.ParseMat(mat); err != nil {
				return err
			}
			if err := each(force, "force", func(t strokes.Tool, v float64) { o.Force[t] = v }); err != nil {
				return err
			}
			if err := each(passes, "passes", func(t strokes.Tool, v float64) { o.Passes[t] = int(v) }); err != nil {
				return err
			}
			files, pieces, whole, err := toCut(c, args[0], sheet, plan, &o, c.Flags().Changed("card"))
			if err != nil {
				return err
			}
			reports, err := cutAll(files, o, pieces, whole)
			if err != nil {
				return err
			}
			return tell(c, reports, asJSON, whole)
		},
	}
	f := c.Flags()
	f.StringVar(&mat, "mat", "12x12", "12x12, 12x24, a4 or a3")
	f.Int64Var(&o.Seed, "seed", 1, "chance: how a printed sheet lies")
	f.StringVar(&sheet, "sheet", "", "the sheet's size in mm, such as 304.8x304.8, for HPGL")
	f.Float64Var(&o.Card, "card", 0.3, "the card's thickness in mm")
	f.Float64Var(&o.Blade, "blade", o.Blade, "how far the blade trails, in mm")
	f.Float64Var(&o.Overcut, "overcut", o.Overcut, "how far a ring runs on past its beginning, in mm")
	f.BoolVar(&o.Raw, "raw", false, "do not swing the blade at corners")
	f.StringSliceVar(&force, "force", nil, "grams by tool, such as cut=240")
	f.StringSliceVar(&passes, "passes", nil, "passes by tool, such as cut=2")
	f.StringVar(&plan, "plan", "", "the plan that says what should come off")
	f.IntVar(&o.Marks, "marks", 0, "find a printed sheet by 3 or 4 marks")
	f.BoolVar(&asJSON, "json", false, "the whole report")
	return c
}

// each reads words such as cut=240.
func each(words []string, field string, set func(strokes.Tool, float64)) error {
	for _, w := range words {
		name, value, ok := strings.Cut(w, "=")
		tool := slices.Index(strokes.Names, name)
		v, err := strconv.ParseFloat(value, 64)
		if !ok || tool < 0 || err != nil || !(v > 0 && v <= 1e5) {
			return fault.New(fault.Invalid, field, "%q is no tool and number; write for instance cut=240", w)
		}
		set(strokes.Tool(tool), v)
	}
	return nil
}

// toCut reads what is to be cut, sheet by sheet, and what should come off; whole tells that all of the
// plan is in it.
func toCut(c *cobra.Command, path, sheet, plan string, o *plotter.Options, card bool) (files []*plotter.File, pieces []strokes.Piece, whole bool, err error) {
	if o.Marks != 0 && o.Marks != 3 && o.Marks != 4 {
		return nil, nil, false, fault.New(fault.OutOfRange, "marks", "there are 0, 3 or 4 marks")
	}
	if !(o.Card > 0 && o.Card <= 5) || !(o.Blade >= 0 && o.Blade <= 2) || !(o.Overcut >= 0 && o.Overcut <= 5) {
		return nil, nil, false, fault.New(fault.OutOfRange, "card", "a card is up to 5 mm thick, a blade trails up to 2 mm and runs on up to 5")
	}
	if plan != "" {
		text, err := readFile(plan, c.InOrStdin())
		if err == nil {
			pieces, err = plotter.ReadPlan(text)
		}
		if err != nil {
			return nil, nil, false, err
		}
	}
	switch strings.ToLower(filepath.Ext(path)) {
	case ".svg", ".plt", ".hpgl", ".hpg":
		text, err := readFile(path, c.InOrStdin())
		if err != nil {
			return nil, nil, false, err
		}
		f, err := plotter.Read(filepath.Ext(path), text, sheet, *o)
		if err == nil && !card {
			o.Card = f.For(o.Card)
		}
		return []*plotter.File{f}, pieces, false, err
	}
	r, err := made(c, path)
	if err != nil {
		return nil, nil, false, err
	}
	if !card {
		o.Card = 0 // each sheet its own
	}
	for _, d := range export.Packed(r) {
		f, err := plotter.ReadSVG(d.SVG(export.Layers{}))
		if err != nil {
			return nil, nil, false, err
		}
		f.Card = d.Card.Thickness.MM()
		files = append(files, f)
	}
	if pieces == nil {
		pieces = export.Wanted(r)
	}
	return files, pieces, true, nil
}

// cutAll cuts the sheets one after the other; what came off one is not looked for on the next.
func cutAll(files []*plotter.File, o plotter.Options, pieces []strokes.Piece, whole bool) ([]*plotter.Report, error) {
	var out []*plotter.Report
	off := map[string]int{}
	for n, f := range files {
		one := o
		if one.Card == 0 {
			one.Card = f.Card
		}
		var left []strokes.Piece
		for _, p := range pieces {
			if p.Copies -= off[p.Name]; p.Copies > 0 {
				left = append(left, p)
			}
		}
		r, err := plotter.Cut(f, one, left)
		if err != nil {
			return nil, err
		}
		for i := range r.Free {
			r.Free[i].Sheet = n + 1
			if p := r.Free[i].Piece; p != "" {
				off[p]++
				r.Free[i].Copy = off[p]
			}
		}
		if whole && n+1 < len(files) {
			r.Missing = nil // they may be on the sheets that come
		}
		out = append(out, r)
	}
	return out, nil
}

// tell prints the report, or a sentence a sheet.
func tell(c *cobra.Command, all []*plotter.Report, asJSON, whole bool) error {
	asPlanned := true
	for _, r := range all {
		asPlanned = asPlanned && r.AsPlanned() && !(whole && len(r.Missing) > 0)
	}
	if asJSON {
		out, err := plotter.JSON(all)
		if err := write(c.OutOrStdout(), out, err); err != nil {
			return err
		}
	} else {
		for i, r := range all {
			if _, err := fmt.Fprintf(c.OutOrStdout(), "Sheet %d: %s\n", i+1, r.Says()); err != nil {
				return err
			}
		}
	}
	if !asPlanned {
		return errNotAsPlanned
	}
	return nil
}
