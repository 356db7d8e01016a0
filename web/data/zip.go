package data

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"path"
	"strings"

	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/strict"
	"brevium/photo"
	"brevium/store"
	"brevium/web/page"
)

// listName is the file in the zip that ties the others together.
const listName = "brevium.json"

// list is that file: everything but the designs, which lie in files of their
// own under boxes/.
type list struct {
	Brevium int               `json:"brevium"`
	Made    string            `json:"made"`
	Boxes   []listedBox       `json:"boxes"`
	Things  []json.RawMessage `json:"things"`
	Paper   []store.KeptPaper `json:"paper"`
	Jobs    []store.KeptJob   `json:"jobs"`
	// Supplies are those in the cupboard; lengths are in mm.
	Supplies []cupboard.Good `json:"supplies,omitempty"`
	// Notes are the logbook.
	Notes    []store.KeptNote           `json:"notes,omitempty"`
	Settings map[string]json.RawMessage `json:"settings,omitempty"`
	Styles   []store.OwnStyle           `json:"styles,omitempty"`
}

type listedBox struct {
	ID    int64             `json:"id"`
	Name  string            `json:"name"`
	File  string            `json:"file"`
	Ticks map[string]string `json:"ticks,omitempty"`
	Times []store.KeptTime  `json:"times,omitempty"`
}

const readMe = `All boxes, things, paper and jobs of a Brevium.

boxes/*.json    the design of each box, as "brevium plan" reads it; what each
                field means stands in docs/formats.md of the program
boxes/*.svg     its picture
papers/*.jpg    photographs of papers
paper.csv       the drawer, for a spreadsheet
brevium.json    things, paper and jobs, and how all belongs together

Another Brevium brings all of it in on its page "Your data". Lengths in the
JSON files are millimetres; those whose names end in _nm are nanometres.
`

// photoDir is the folder of the photographs of papers.
const photoDir = "papers"

func photoFile(id string) string { return photoDir + "/" + id + ".jpg" }

// pack writes everything as a zip of open files. picture draws a box as SVG,
// nil for one that cannot be drawn.
func pack(to io.Writer, all store.Everything, lots []drawer.Lot, made string, picture func(store.KeptBox) []byte) error {
	z := zip.NewWriter(to)
	put := func(name string, text []byte) error {
		w, err := z.Create(name)
		if err == nil {
			_, err = w.Write(text)
		}
		return err
	}
	l := list{Brevium: 1, Made: made, Boxes: []listedBox{}, Things: all.Things, Paper: all.Paper, Jobs: all.Jobs, Supplies: all.Goods, Notes: all.Notes, Settings: all.Settings, Styles: all.Styles}
	for _, b := range all.Boxes {
		base := fmt.Sprintf("boxes/%d-%s", b.ID, page.FileName(b.Name))
		l.Boxes = append(l.Boxes, listedBox{b.ID, b.Name, base + ".json", b.Ticks, b.Times})
		if err := put(base+".json", b.Design); err != nil {
			return err
		}
		if svg := picture(b); svg != nil {
			// The photographs of papers lie beside.
			if err := put(base+".svg", bytes.ReplaceAll(svg, []byte(`href="/papers/`), []byte(`href="../papers/`))); err != nil {
				return err
			}
		}
	}
	for _, p := range all.Photos {
		if err := put(photoFile(p.ID), p.JPEG); err != nil {
			return err
		}
	}
	text, err := json.MarshalIndent(l, "", " ")
	if err != nil {
		return err
	}
	for name, text := range map[string][]byte{listName: text, "paper.csv": drawer.WriteCSV(lots), "README.txt": []byte(readMe)} {
		if err := put(name, text); err != nil {
			return err
		}
	}
	return z.Close()
}

// unpack reads what pack wrote. Every file may be as large as a design may be,
// and the list ten times that.
func unpack(text []byte) (store.Everything, error) {
	var out store.Everything
	z, err := zip.NewReader(bytes.NewReader(text), int64(len(text)))
	if err != nil {
		return out, fault.New(fault.Unreadable, "file", "This is no zip file of a Brevium. Nothing was taken.")
	}
	files := map[string]*zip.File{}
	for _, f := range z.File {
		files[path.Clean(f.Name)] = f
	}
	read := func(name string, most int64) ([]byte, error) {
		f, there := files[path.Clean(name)]
		if !there {
			return nil, fault.New(fault.Unreadable, "file", "This zip has no file %s in it, so nothing was taken.", name)
		}
		r, err := f.Open()
		if err != nil {
			return nil, fault.New(fault.Unreadable, "file", "%s in this zip cannot be read: %v", name, err)
		}
		defer r.Close()
		text, err := io.ReadAll(io.LimitReader(r, most+1))
		if err != nil || int64(len(text)) > most {
			return nil, fault.New(fault.Unreadable, "file", "%s in this zip cannot be read, or is far too large", name)
		}
		return text, nil
	}
	text, err = read(listName, 10*strict.MostBytes)
	if err != nil {
		return out, err
	}
	var l list
	if err := json.Unmarshal(text, &l); err != nil {
		return out, fault.New(fault.NotJSON, "file", "%s in this zip is not what Brevium writes: %v", listName, err)
	}
	if l.Brevium != 1 {
		return out, fault.New(fault.UnknownFormat, "file", "this zip is of format %d; this program reads format 1", l.Brevium)
	}
	out.Things, out.Paper, out.Jobs, out.Goods, out.Notes, out.Settings, out.Styles = l.Things, l.Paper, l.Jobs, l.Supplies, l.Notes, l.Settings, l.Styles
	for _, b := range l.Boxes {
		text, err := read(b.File, strict.MostBytes)
		if err != nil {
			return out, err
		}
		name := b.Name
		if in, err := design.ReadKept(text); err == nil {
			name = in.Name
		}
		out.Boxes = append(out.Boxes, store.KeptBox{ID: b.ID, Name: name, Design: text, Ticks: b.Ticks, Times: b.Times})
	}
	for _, f := range z.File {
		if path.Dir(path.Clean(f.Name)) != photoDir || len(out.Photos) == store.MostPhotos {
			continue
		}
		text, err := read(f.Name, photo.MostBytes)
		if err != nil {
			return out, err
		}
		// It is made anew, whatever somebody put there; a file of ours stays as it is.
		p, err := photo.Again(strings.TrimSuffix(path.Base(f.Name), ".jpg"), text)
		if err != nil {
			return out, fault.New(fault.NotAPicture, "file", "%s in this zip is no picture of a paper", f.Name)
		}
		out.Photos = append(out.Photos, p)
	}
	return out, nil
}
