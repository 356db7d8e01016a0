package main

import (
	"github.com/spf13/cobra"

	"brevium/core/found"
	"brevium/core/measure"
)

func readCommand() *cobra.Command {
	units := "in"
	c := &cobra.Command{
		Use: "read RECIPE.txt", Short: "Read a recipe as people write it: its pieces, and the style they are of (- reads standard input)",
		Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			unit, err := measure.ParseUnit(units)
			if err != nil {
				return err
			}
			text, err := readFile(args[0], c.InOrStdin())
			if err != nil {
				return err
			}
			t, err := found.Tell(string(text), unit)
			if err != nil {
				return err
			}
			out, err := t.JSON(t.Remedies(string(text), unit), t.Ways(string(text), unit))
			return write(c.OutOrStdout(), out, err)
		},
	}
	c.Flags().StringVar(&units, "units", units, "the unit of numbers that say none and do not tell: in, cm or mm")
	return c
}
