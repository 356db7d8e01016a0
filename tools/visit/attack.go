package visit

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"strings"
	"time"
)

// Attack is somebody who takes more than their share, again and again, until the context ends.
// What they are answered does not matter; an error is one of the tool.
type Attack struct {
	Name string
	Do   func(ctx context.Context) error
}

// Attacks are one of each kind. as gives a window of a maker of their own; steward is one of the
// steward's, and class the address of an open class.
func Attacks(at, class string, as func(name string) (*Browser, error), steward *Browser) ([]Attack, error) {
	kinds, err := as("Two hundred kinds")
	if err != nil {
		return nil, err
	}
	gone, err := as("Asks and goes")
	if err != nil {
		return nil, err
	}
	stranger := func() (*Browser, error) { return New(at, "stranger") }
	return []Attack{
		{"two hundred kinds of sheet", func(ctx context.Context) error {
			for n := 0; ctx.Err() == nil; n++ {
				box, err := kinds.File(ctx, "/bring", "designs", ManyKinds(n))
				if err != nil || box.Next == "" {
					continue
				}
				path := strings.TrimSuffix(box.Next, "/box")
				for _, stop := range []string{"/box", "/compare", "/sheets"} {
					_, _ = kinds.Get(ctx, path+stop)
				}
				_, _ = kinds.Post(ctx, path+"/delete")
				_, _ = kinds.Post(ctx, "/bin/empty")
			}
			return nil
		}},
		{"asks and goes", func(ctx context.Context) error {
			box, err := gone.File(ctx, "/bring", "designs", ManyKinds(-1))
			if err != nil || box.Next == "" {
				return fmt.Errorf("no box to ask for: %d, %w", box.Status, err)
			}
			path := strings.TrimSuffix(box.Next, "/box")
			for n := 0; ctx.Err() == nil; n++ {
				soon, stop := context.WithTimeout(ctx, time.Duration(20+rand.IntN(80))*time.Millisecond)
				_, _ = gone.Get(soon, fmt.Sprintf("%s/biggest?width=%d", path, 200+n))
				_, _ = gone.Get(soon, path+"/compare?from=drawer")
				stop()
			}
			return nil
		}},
		{"a zip that names one file a hundred times", func(ctx context.Context) error {
			text, err := repeated()
			for err == nil && ctx.Err() == nil {
				if a, wrong := steward.File(ctx, "/data/bring", "file", text); wrong == nil && a.Status == http.StatusSeeOther {
					return fmt.Errorf("the zip is taken")
				}
			}
			return err
		}},
		{"guesses in bursts", func(ctx context.Context) error {
			b, err := stranger()
			for n := 0; err == nil && ctx.Err() == nil; n++ {
				for i := range 20 {
					go b.Post(ctx, "/sign-in", "name", []string{"Steward", "Maker 1", fmt.Sprint("nobody ", n, i)}[i%3], "password", fmt.Sprint("guessed ", n, i)) //nolint:errcheck
				}
				pause(ctx, 200*time.Millisecond)
			}
			return err
		}},
		{"takes every seat", func(ctx context.Context) error {
			for n := 0; ctx.Err() == nil; n++ {
				b, err := stranger()
				if err != nil {
					return err
				}
				_, _ = b.Post(ctx, class, "name", fmt.Sprint("seat ", n))
				pause(ctx, 50*time.Millisecond)
			}
			return nil
		}},
	}, nil
}

func pause(ctx context.Context, d time.Duration) {
	select {
	case <-ctx.Done():
	case <-time.After(d):
	}
}

// ManyKinds is a design of fifty boxes on two hundred kinds of sheet, one of each; each number
// gives another.
func ManyKinds(n int) []byte {
	sheets := []any{}
	for i := range 200 {
		sheets = append(sheets, map[string]any{"name": fmt.Sprint("kind ", i), "width": 300 + i, "height": float64(600-i) / 2, "count": 1})
	}
	text, err := json.Marshal(map[string]any{
		"brevium": 1, "name": fmt.Sprint("Two hundred kinds ", n), "style": "tray-lid", "copies": 50, "sheets": sheets,
		"size": map[string]any{"length": 100, "width": 80, "height": 40 + float64(n%200)/10},
	})
	if err != nil {
		panic(err) // it is made of numbers and words
	}
	return text
}

// repeated is a small zip that would be large: one file of 3.9 MB that is named a hundred times.
func repeated() ([]byte, error) {
	boxes := []any{}
	for i := range 100 {
		boxes = append(boxes, map[string]any{"id": i + 1, "name": "Jars", "file": "boxes/1.json"})
	}
	list, err := json.Marshal(map[string]any{"brevium": 1, "boxes": boxes})
	if err != nil {
		return nil, err
	}
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for name, text := range map[string]string{"brevium.json": string(list), "boxes/1.json": `{"brevium":1,"style":"tray"}` + strings.Repeat(" ", 3_900_000)} {
		w, err := z.Create(name)
		if err != nil {
			return nil, err
		}
		if _, err := w.Write([]byte(text)); err != nil {
			return nil, err
		}
	}
	if err := z.Close(); err != nil {
		return nil, err
	}
	return out.Bytes(), nil
}
