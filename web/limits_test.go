package web_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"brevium/core/contents"
	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/people"
	"brevium/core/sample"
	"brevium/photo"
	"brevium/store/jobbook"
	"brevium/store/roster"
	"brevium/web/form"
	"brevium/web/webtest"
)

// dearLimits take as long as all the others: one run tries a part of them, make whole each.
var dearLimits = []string{
	"dots of a photograph, in all", "rows of a zip's list, with ticks and times", "bytes of a zip when it is unpacked",
	"notes, each in a workshop", "piles of paper at a table",
}

// Of everything in the table of limits as many are taken, and one more is refused with a
// sentence, nothing of it kept.
func TestOneMoreThanEachLimit(t *testing.T) {
	t.Parallel()
	text, err := os.ReadFile("../docs/limits.md")
	if err != nil {
		t.Fatal(err)
	}
	rows := regexp.MustCompile(`(?m)^\| ([^|]+) \| ([\d,]+) \|`).FindAllStringSubmatch(string(text), -1)
	tries := limitTries()
	if len(rows) != len(tries) {
		t.Errorf("the table has %d rows, and %d are tried", len(rows), len(tries))
	}
	for _, row := range rows {
		most, err := strconv.Atoi(strings.ReplaceAll(row[2], ",", ""))
		if err != nil {
			t.Fatal(err)
		}
		if dear := slices.Index(dearLimits, row[1]); dear >= 0 && !sample.Takes(t, dear) {
			if tries[row[1]] == nil {
				t.Errorf("%s is in the table and not tried", row[1])
			}
			continue
		}
		t.Run(row[1], func(t *testing.T) {
			t.Parallel()
			try := tries[row[1]]
			if try == nil {
				t.Fatal("it is in the table and not tried")
			}
			send := try(t)
			if status, said := send(most); status >= 400 {
				t.Errorf("%d: %d, %.300s", most, status, said)
			}
			if status, said := send(most + 1); status < 400 || status >= 500 || len(strings.Fields(said)) < 4 {
				t.Errorf("one more: %d, %.300s", status, said)
			}
		})
	}
}

// sender sends so many of something, and gives the answer's status and text.
type sender func(n int) (int, string)

// of makes an answer of what the store says.
func of(err error) (int, string) {
	if err != nil {
		return http.StatusUnprocessableEntity, err.Error()
	}
	return http.StatusOK, ""
}

// zipOf is a zip of a list and files beside it.
func zipOf(t *testing.T, list any, files map[string][]byte) []byte {
	t.Helper()
	text, err := json.Marshal(list)
	if err != nil {
		t.Fatal(err)
	}
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	put := func(name string, body []byte) {
		w, err := z.Create(name)
		if err == nil {
			_, err = w.Write(body)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	put("brevium.json", text)
	for name, body := range files {
		put(name, body)
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// plainPicture is a PNG of one colour.
func plainPicture(t *testing.T, wide, high int) []byte {
	t.Helper()
	var out bytes.Buffer
	if err := png.Encode(&out, image.NewPaletted(image.Rect(0, 0, wide, high), color.Palette{color.White, color.Black})); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// limitMaker is a maker of a workshop.
func limitMaker(t *testing.T) (*webtest.Atelier, *webtest.Visitor) {
	t.Helper()
	w := webtest.NewAtelier(t)
	w.Person("Wren", people.Steward)
	return w, w.Person("Ash", people.Maker)
}

func limitTries() map[string]func(t *testing.T) sender {
	// many adds up to a number, so that the next call adds but one.
	many := func(add func(i int) error) sender {
		done := 0
		return func(n int) (int, string) {
			for ; done < n; done++ {
				if err := add(done); err != nil {
					return of(err)
				}
			}
			return of(nil)
		}
	}
	sent := func(path string, file func(t *testing.T, n int) []byte) func(t *testing.T) sender {
		return func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return func(n int) (int, string) { status, said, _ := x.Send(path, file(t, n)); return status, said }
		}
	}
	photoOf := func(n int) photo.Picture {
		return photo.Picture{ID: fmt.Sprintf("%032x", n), JPEG: []byte{1}, Wide: 1, High: 1}
	}
	brought := func(list func(n int) (any, map[string][]byte)) func(t *testing.T) sender {
		return func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return func(n int) (int, string) {
				l, files := list(n)
				before, err := x.Store.Of(t.Context()).Boxes(t.Context())
				if err != nil {
					t.Fatal(err)
				}
				status, said, _ := x.Send("/data/bring", zipOf(t, l, files))
				if all, err := x.Store.Of(t.Context()).Boxes(t.Context()); status >= 400 && (err != nil || len(all) > len(before)) {
					return http.StatusInternalServerError, "something was kept"
				}
				return status, said
			}
		}
	}
	return map[string]func(t *testing.T) sender{
		"bytes of a form, a list, a design": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return func(n int) (int, string) {
				const begins = "units=cm&more="
				q := httptest.NewRequest(http.MethodPost, "/units", strings.NewReader(begins+strings.Repeat("x", n-len(begins))))
				q.Header.Set("Content-Type", "application/x-www-form-urlencoded")
				r := httptest.NewRecorder()
				x.HTTP.ServeHTTP(r, q)
				return r.Code, r.Body.String()
			}
		},
		"designs brought in at once": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return func(n int) (int, string) {
				var body bytes.Buffer
				f := multipart.NewWriter(&body)
				for i := range n {
					part, err := f.CreateFormFile("designs", fmt.Sprint(i, ".json"))
					if err != nil {
						t.Fatal(err)
					}
					if _, err := part.Write([]byte(`{"brevium":1,"style":"tray"}`)); err != nil {
						t.Fatal(err)
					}
				}
				if err := f.Close(); err != nil {
					t.Fatal(err)
				}
				q := httptest.NewRequest(http.MethodPost, "/bring", &body)
				q.Header.Set("Content-Type", f.FormDataContentType())
				r := httptest.NewRecorder()
				x.HTTP.ServeHTTP(r, q)
				return r.Code, r.Body.String()
			}
		},
		"letters of a recipe": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return func(n int) (int, string) {
				status, said, _ := x.Get("/read?text=" + "tray+4+x+4+x+1.+" + strings.Repeat("a", n-len("tray 4 x 4 x 1. ")))
				return status, said
			}
		},
		"bytes of a style file": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			text, err := os.ReadFile("../core/stylefile/examples/hinged-carton.json")
			if err != nil {
				t.Fatal(err)
			}
			return func(n int) (int, string) {
				status, said, _ := x.Post("/styles", "style", string(text)+strings.Repeat(" ", n-len(text)))
				return status, said
			}
		},
		"versions of styles of one's own": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return many(func(kept int) error {
				_, err := x.Store.Of(t.Context()).AddStyle(t.Context(), "kept", kept, func(int) ([]byte, error) { return []byte(`{}`), nil })
				return err
			})
		},
		"bytes of a photograph": sent("/papers", func(t *testing.T, n int) []byte {
			text := plainPicture(t, 200, 200)
			return append(text, make([]byte, n-len(text))...)
		}),
		"dots of a photograph, one way": sent("/papers", func(t *testing.T, n int) []byte { return plainPicture(t, n, 16) }),
		"dots of a photograph, in all": sent("/papers", func(t *testing.T, n int) []byte {
			return plainPicture(t, 5000, (n+4999)/5000)
		}),
		"photographs kept, for one maker alone": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return many(func(i int) error { return x.Store.Of(t.Context()).PutPhoto(t.Context(), photoOf(i), false) })
		},
		"photographs kept, each in a workshop": func(t *testing.T) sender {
			w, _ := limitMaker(t)
			ctx := w.As("Ash")
			return many(func(i int) error { return w.Store.Of(ctx).PutPhoto(ctx, photoOf(i), false) })
		},
		"bytes of a copy or a zip": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return func(n int) (int, string) {
				// The length is told first; what would follow is not waited for.
				q := httptest.NewRequest(http.MethodPost, "/data/restore", http.NoBody)
				q.Header.Set("Content-Type", "multipart/form-data; boundary=x")
				q.ContentLength = int64(n)
				r := httptest.NewRecorder()
				x.HTTP.ServeHTTP(r, q)
				if r.Code == http.StatusUnprocessableEntity && strings.Contains(r.Body.String(), "Choose a file first") {
					return http.StatusOK, "" // it was read, and has no file
				}
				return r.Code, r.Body.String()
			}
		},
		"bytes of a zip when it is unpacked": brought(func(n int) (any, map[string][]byte) {
			const many = 40
			files, boxes := map[string][]byte{}, []any{}
			design := design.New("Jars", measure.MM, "tray").Write()
			for i := range many {
				name, size := fmt.Sprintf("boxes/%d.json", i), n/many
				if i == 0 {
					size += n % many
				}
				files[name] = append(slices.Clone(design), bytes.Repeat([]byte(" "), size-len(design))...)
				boxes = append(boxes, map[string]any{"id": i + 1, "name": "Jars", "file": name})
			}
			list := map[string]any{"brevium": 1, "boxes": boxes}
			text, err := json.Marshal(list)
			if err != nil {
				panic(err)
			}
			const first = "boxes/0.json" // the list counts too
			files[first] = files[first][:len(files[first])-len(text)]
			return list, files
		}),
		"rows of a zip's list, with ticks and times": brought(func(n int) (any, map[string][]byte) {
			ticks := map[string]string{}
			for i := range n - 1 {
				ticks[strconv.Itoa(i)] = ""
			}
			return map[string]any{"brevium": 1, "boxes": []any{map[string]any{"id": 1, "name": "Jars", "file": "boxes/1.json", "ticks": ticks}}},
				map[string][]byte{"boxes/1.json": design.New("Jars", measure.MM, "tray").Write()}
		}),
		"photographs in a zip": func(t *testing.T) sender {
			picture := plainPicture(t, 16, 16)
			return brought(func(n int) (any, map[string][]byte) {
				files := map[string][]byte{}
				for i := range n {
					files[fmt.Sprintf("papers/%032x.jpg", i)] = picture
				}
				return map[string]any{"brevium": 1}, files
			})(t)
		},
		"times a zip names one file": brought(func(n int) (any, map[string][]byte) {
			boxes := []any{}
			for i := range n {
				boxes = append(boxes, map[string]any{"id": i + 1, "name": "Jars", "file": "boxes/1.json"})
			}
			return map[string]any{"brevium": 1, "boxes": boxes}, map[string][]byte{"boxes/1.json": design.New("Jars", measure.MM, "tray").Write()}
		}),
		"boxes, each in a workshop": func(t *testing.T) sender {
			w, _ := limitMaker(t)
			ctx := w.As("Ash")
			return many(func(int) error {
				_, err := w.Store.Of(ctx).Add(ctx, design.New("Jars", measure.MM, "tray"))
				return err
			})
		},
		"jobs, each in a workshop": func(t *testing.T) sender {
			w, _ := limitMaker(t)
			ctx := w.As("Ash")
			box, err := w.Store.Of(ctx).Add(ctx, design.New("Jars", measure.MM, "tray"))
			if err != nil {
				t.Fatal(err)
			}
			return many(func(int) error {
				_, err := w.Store.Of(ctx).AddJob(ctx, jobbook.Job{Name: "Fair", Items: []jobbook.JobItem{{Box: box, Copies: 1}}})
				return err
			})
		},
		"kept things, each in a workshop": func(t *testing.T) sender {
			w, _ := limitMaker(t)
			ctx := w.As("Ash")
			return many(func(i int) error {
				thing := form.NewThing(contents.Round)
				thing.Name = fmt.Sprint("jar ", i)
				return w.Store.Of(ctx).KeepThing(ctx, thing)
			})
		},
		"notes, each in a workshop": func(t *testing.T) sender {
			w, _ := limitMaker(t)
			ctx := w.As("Ash")
			design := design.New("Jars", measure.MM, "tray").Write()
			bring := false
			return func(n int) (int, string) {
				notes := []logbook.Note{}
				for i := range n {
					notes = append(notes, logbook.Note{Made: time.UnixMilli(int64(i) + 1), Name: "Jars", Style: "tray", Design: design})
				}
				if bring {
					notes = notes[n-1:]
				}
				bring = true
				_, err := w.Store.Of(ctx).BringNotes(ctx, notes)
				return of(err)
			}
		},
		"piles of paper at a table": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			sheet, _ := paper.SheetNamed("A4")
			pile := func(i int) drawer.Lot {
				return drawer.Lot{Card: paper.Card{Name: fmt.Sprint("card ", i), GSM: 200, Thickness: 270_000, Direction: paper.NoDirection}, Sheet: sheet.Name, Width: sheet.Width, Height: sheet.Height, Count: 1}
			}
			return func(n int) (int, string) {
				lots, err := x.Store.Of(t.Context()).Lots(t.Context())
				if err != nil {
					return of(err)
				}
				var more []drawer.Lot
				for i := len(lots); i < n; i++ {
					more = append(more, pile(i))
				}
				return of(x.Store.Of(t.Context()).AddLots(t.Context(), more))
			}
		},
		"supplies at a table": func(t *testing.T) sender {
			x := webtest.NewTable(t)
			return many(func(i int) error {
				return x.Store.Of(t.Context()).SetGoods(t.Context(), []cupboard.Good{{Kind: cupboard.Kinds[0], Name: fmt.Sprint("glue ", i), Amount: 1}})
			})
		},
		"seats of a class": func(t *testing.T) sender {
			w := webtest.NewAtelier(t)
			_, _, path := webtest.OpenClass(t, w)
			taken := 0
			return func(n int) (status int, said string) {
				for ; taken < n; taken++ {
					if status, said, _ = w.Visitor("10.0.0.9").Post(path, "name", fmt.Sprint("pupil ", taken)); status >= 400 {
						return status, said
					}
				}
				return status, said
			}
		},
		"seats of a class on one device": func(t *testing.T) sender {
			w := webtest.NewAtelier(t)
			_, _, path := webtest.OpenClass(t, w)
			phone, taken := w.Visitor("10.0.0.9"), 0
			return func(n int) (status int, said string) {
				for ; taken < n; taken++ {
					if status, said, _ = phone.Post(path, "name", fmt.Sprint("pupil ", taken), "second", "1"); status >= 400 {
						return status, said
					}
				}
				return status, said
			}
		},
		"passkeys of one person": func(t *testing.T) sender {
			w, _ := limitMaker(t)
			p := people.Of(w.As("Ash"))
			return many(func(i int) error {
				return w.Store.Of(t.Context()).AddPasskey(t.Context(), roster.Passkey{ID: slices.Concat([]byte("key"), []byte(strconv.Itoa(i))), Person: p.ID, Key: []byte(`{}`)})
			})
		},
	}
}
