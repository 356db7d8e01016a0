package main

import (
	"context"
	"embed"
	"fmt"
	"io/fs"
	"maps"
	"slices"

	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/measure"
	"brevium/store"
	"brevium/store/jobbook"
)

//go:embed demo/*.json demo/drawer.csv demo/cupboard.csv
var demoFiles embed.FS

// loadDemo puts the demo boxes into an empty database; one that has boxes is
// left as it is.
func loadDemo(ctx context.Context, boxes *store.Store) error {
	have, err := boxes.Of(ctx).Boxes(ctx)
	if err != nil || len(have) > 0 {
		return err
	}
	names, err := fs.Glob(demoFiles, "demo/*.json")
	if err != nil {
		return err
	}
	byName := map[string]int64{}
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
		if byName[in.Name], err = boxes.Of(ctx).Add(ctx, in); err != nil {
			return err
		}
	}
	if err := loadPaper(ctx, boxes, byName); err != nil {
		return err
	}
	return loadNotes(ctx, boxes, byName)
}

// demoJobs are the jobs of the fair: how many of which box.
var demoJobs = []struct {
	name  string
	makes map[string]int
}{
	{"Stall by the door", map[string]int{"Tea-lights, two by three": 5, "Dice set": 6}},
	{"Honey table", map[string]int{"Four honey jars": 3, "Vials and story cards": 4}},
}

// loadPaper fills the drawer and the cupboard and makes the jobs.
func loadPaper(ctx context.Context, boxes *store.Store, byName map[string]int64) error {
	text, err := demoFiles.ReadFile("demo/drawer.csv")
	if err != nil {
		return err
	}
	lots, faults := drawer.ReadCSV(text, measure.MM)
	if len(faults) > 0 {
		return fmt.Errorf("demo/drawer.csv: %w", faults[0])
	}
	if err := boxes.Of(ctx).AddLots(ctx, lots); err != nil {
		return err
	}
	if text, err = demoFiles.ReadFile("demo/cupboard.csv"); err != nil {
		return err
	}
	goods, faults := cupboard.ReadCSV(text)
	if len(faults) > 0 {
		return fmt.Errorf("demo/cupboard.csv: %w", faults[0])
	}
	if err := boxes.Of(ctx).SetGoods(ctx, goods); err != nil {
		return err
	}
	for _, d := range demoJobs {
		j := jobbook.Job{Name: d.name}
		for _, name := range slices.Sorted(maps.Keys(d.makes)) {
			id, ok := byName[name]
			if !ok {
				return fmt.Errorf("the demo job %s makes %q, which is no demo box", d.name, name)
			}
			j.Items = append(j.Items, jobbook.JobItem{Box: id, Copies: d.makes[name]})
		}
		if _, err := boxes.Of(ctx).AddJob(ctx, j); err != nil {
			return err
		}
	}
	return nil
}
