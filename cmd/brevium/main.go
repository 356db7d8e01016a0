// Command brevium turns what goes in into the box: as a web application
// (serve, demo) and as commands that read and write JSON (plan, layout,
// styles).
package main

import (
	_ "embed"
	"errors"
	"fmt"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"brevium/core/fault"
)

// version is what this is called; the changes and the releases are called so too.
//
//go:embed version.txt
var version string

func main() {
	root := &cobra.Command{
		Use: "brevium", Short: "Cardstock boxes, from what goes in to the cut sheet",
		Version: strings.TrimSpace(version), SilenceErrors: true, SilenceUsage: true,
		CompletionOptions: cobra.CompletionOptions{DisableDefaultCmd: true},
	}
	root.AddCommand(serveCommand(), demoCommand(), planCommand(), layoutCommand(), exportCommand(), cutCommand(), stylesCommand(), readCommand(), licencesCommand(), backupCommand(), restoreCommand())
	if err := root.Execute(); err != nil {
		if errors.Is(err, errNotAsPlanned) {
			os.Exit(2)
		}
		// One line: the field, if any, and what to do.
		var f *fault.Fault
		if !errors.As(err, &f) {
			f = &fault.Fault{Text: err.Error()}
		}
		fmt.Fprintln(os.Stderr, "brevium: "+oneLine(f.Error()))
		os.Exit(1)
	}
}
