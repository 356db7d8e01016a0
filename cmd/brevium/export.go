package main

import (
	"fmt"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"brevium/core/fault"
	"brevium/draw/export"
	"brevium/draw/pdf"
)

func exportCommand() *cobra.Command {
	var to, folder, paper string
	var o export.Options
	var byShape bool
	var seconds float64
	c := &cobra.Command{
		Use: "export DESIGN.json", Short: "Write a design for other programs: svg, dxf, hpgl, pdf, csv, obj or stl (- reads standard input)",
		Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			format, err := export.ParseFormat(to)
			if err != nil {
				return err
			}
			if o.Paper, err = pdf.ParsePaper(paper); err != nil {
				return err
			}
			r, err := made(c, args[0])
			if err != nil {
				return err
			}
			if byShape {
				o.Packed = true
				if r, err = r.ByShape(c.Context(), seconds); err != nil {
					return err
				}
			}
			files, err := export.Files(r, format, o)
			if err != nil {
				return err
			}
			return keep(c, folder, files)
		},
	}
	f := c.Flags()
	f.StringVar(&to, "to", "svg", "svg, dxf, hpgl, pdf, csv, obj or stl")
	f.StringVar(&folder, "out", ".", "folder to write into; it is made when it is not there")
	f.StringVar(&paper, "paper", "a4", "a4 or letter, for pdf")
	f.BoolVar(&o.Mirror, "mirror", false, "inside up: for printing or cutting on the card's back")
	f.BoolVar(&o.Packed, "packed", false, "as laid on sheets, not one by one")
	f.BoolVar(&o.Perforate, "perforate", false, "scores on a layer for a blade that perforates")
	f.BoolVar(&o.Printed, "printed", false, "labels and printed papers, on paper with marks: the pdf to print, the svg or hpgl to cut")
	f.BoolVar(&byShape, "by-shape", false, "on sheets, the pieces laid by their shapes instead of for the trimmer")
	f.Float64Var(&seconds, "seconds", 5, "how long to look, with --by-shape")
	f.Float64Var(&o.Behind, "blade", 0, "for hpgl: write the way of the head, ahead of a blade that trails so many mm")
	f.Float64Var(&o.Overcut, "overcut", 0.5, "for hpgl with a blade: how far a ring runs on past its beginning, in mm")
	return c
}

// keep writes files into a folder and prints their names.
func keep(c *cobra.Command, folder string, files []export.File) error {
	if err := os.MkdirAll(folder, 0o755); err != nil {
		return fault.New(fault.NotAFolder, "out", "%s is no folder and cannot be made one: %w", folder, err)
	}
	for _, file := range files {
		path := filepath.Join(folder, file.Name)
		if err := os.WriteFile(path, file.Bytes, 0o644); err != nil {
			return fault.New(fault.NotAFolder, "out", "%s cannot be written: %w", path, err)
		}
		if _, err := fmt.Fprintln(c.OutOrStdout(), path); err != nil {
			return err
		}
	}
	return nil
}
