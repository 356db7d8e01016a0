package data

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"io"

	"brevium/core/cupboard"
	"brevium/core/drawer"
	"brevium/store/boxshelf"
	"brevium/store/copies"
	"brevium/store/stockroom"
	"brevium/web/page"
)

// listName is the file in the zip that ties the others together.
const listName = "brevium.json"

// list is that file: everything but the designs, which lie in files of their
// own under boxes/.
type list struct {
	Brevium int                `json:"brevium"`
	Made    string             `json:"made"`
	Boxes   []listedBox        `json:"boxes"`
	Things  []json.RawMessage  `json:"things"`
	Paper   []copies.KeptPaper `json:"paper"`
	Jobs    []copies.KeptJob   `json:"jobs"`
	// Supplies are those in the cupboard; lengths are in mm.
	Supplies []cupboard.Good `json:"supplies,omitempty"`
	// Notes are the logbook.
	Notes    []boxshelf.KeptNote        `json:"notes,omitempty"`
	Settings map[string]json.RawMessage `json:"settings,omitempty"`
	Styles   []stockroom.OwnStyle       `json:"styles,omitempty"`
}

type listedBox struct {
	ID    int64             `json:"id"`
	Name  string            `json:"name"`
	File  string            `json:"file"`
	Ticks map[string]string `json:"ticks,omitempty"`
	Times []copies.KeptTime `json:"times,omitempty"`
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
func pack(to io.Writer, all copies.Everything, lots []drawer.Lot, made string, picture func(copies.KeptBox) []byte) error {
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
