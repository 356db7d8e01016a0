package main

import (
	"fmt"
	"io"
	"os"
	"runtime/debug"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/layout"
	"brevium/core/nest"
	"brevium/core/strict"
	"brevium/core/style"
)

func planCommand() *cobra.Command {
	return &cobra.Command{
		Use: "plan DESIGN.json", Short: "Work a design out: pieces, scores, fits, steps (- reads standard input)",
		Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			r, err := made(c, args[0])
			if err != nil {
				return err
			}
			out, err := r.Plan()
			return write(c.OutOrStdout(), out, err)
		},
	}
}

// made works out the design in a file.
func made(c *cobra.Command, path string) (*design.Result, error) {
	text, err := readFile(path, c.InOrStdin())
	if err != nil {
		return nil, err
	}
	in, err := design.Read(text)
	if err != nil {
		return nil, err
	}
	var out *design.Result
	err = fault.Guard(func() (err error) {
		if out, err = design.Make(c.Context(), in); err == nil && in.Tools.With.ByShape() {
			out, err = out.ByShape(c.Context(), forShapes)
		}
		return err
	})
	return out, err
}

// forShapes is how long a box that is cut with scissors or by a machine is laid by shape, in seconds.
const forShapes = 2.0

func layoutCommand() *cobra.Command {
	return &cobra.Command{
		Use: "layout JOB.json", Short: "Lay pieces on sheets by edge-to-edge cuts (- reads standard input)",
		Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			text, err := readFile(args[0], c.InOrStdin())
			if err != nil {
				return err
			}
			if nest.Wants(text) {
				return layByShape(c, text)
			}
			job, effort, err := layout.ReadJob(text)
			if err != nil {
				return err
			}
			// One short search in a process of its own: memory is cheaper than
			// the time that sweeping it takes.
			debug.SetGCPercent(400)
			start := time.Now()
			r, err := layout.Solve(c.Context(), job, effort)
			if err != nil {
				return err
			}
			if r.Short {
				fmt.Fprintln(c.ErrOrStderr(), "this is the best that was met in the time there is for it; give seconds for a longer search")
			}
			out, err := r.JSON(job, time.Since(start).Seconds())
			return write(c.OutOrStdout(), out, err)
		},
	}
}

// layByShape lays a job by the pieces' true shapes.
func layByShape(c *cobra.Command, text []byte) error {
	job, effort, err := nest.ReadJob(text)
	if err != nil {
		return err
	}
	debug.SetGCPercent(400)
	start := time.Now()
	r, err := nest.Solve(c.Context(), job, effort)
	if err != nil {
		return err
	}
	out, err := job.JSON(r, time.Since(start).Seconds())
	return write(c.OutOrStdout(), out, err)
}

func stylesCommand() *cobra.Command {
	return &cobra.Command{
		Use: "styles", Short: "List the box styles with their parameters and options, as JSON",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			out, err := style.Catalogue()
			return write(c.OutOrStdout(), out, err)
		},
	}
}

func readFile(name string, stdin io.Reader) ([]byte, error) {
	if name == "-" {
		return strict.Read(stdin)
	}
	f, err := os.Open(name)
	if err != nil {
		return nil, fault.New(fault.Unreadable, "file", "%v", err)
	}
	defer f.Close()
	return strict.Read(f)
}

// write puts the whole output out at once, or nothing when it failed.
func write(w io.Writer, out []byte, err error) error {
	if err != nil {
		return err
	}
	_, err = w.Write(append(out, '\n'))
	return err
}

// oneLine keeps a message to one line whatever a file had in it.
func oneLine(s string) string {
	return strings.Join(strings.FieldsFunc(s, func(r rune) bool { return r == '\n' || r == '\r' }), " ")
}
