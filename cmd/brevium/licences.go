package main

import (
	_ "embed"

	"github.com/spf13/cobra"
)

// licences is what tools/licences gathered.
//
//go:embed licences.txt
var licences []byte

func licencesCommand() *cobra.Command {
	return &cobra.Command{
		Use: "licences", Short: "The licences of Brevium and of everything linked into it",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return write(c.OutOrStdout(), licences, nil) },
	}
}
