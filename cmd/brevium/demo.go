package main

import (
	"context"
	"embed"
	"fmt"
	"io/fs"

	"brevium/core/design"
	"brevium/store"
)

//go:embed demo/*.json
var demoFiles embed.FS

// loadDemo puts the demo boxes into an empty database; one that has boxes is
// left as it is.
func loadDemo(ctx context.Context, boxes *store.Store) error {
	have, err := boxes.Boxes(ctx)
	if err != nil || len(have) > 0 {
		return err
	}
	names, err := fs.Glob(demoFiles, "demo/*.json")
	if err != nil {
		return err
	}
	// The last one added is listed first.
	for i := range names {
		name := names[len(names)-1-i]
		text, err := demoFiles.ReadFile(name)
		if err != nil {
			return err
		}
		in, err := design.Read(text)
		if err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		if _, err := boxes.Add(ctx, in); err != nil {
			return err
		}
	}
	return nil
}
