package data

import (
	"archive/zip"
	"encoding/json"
	"io"
	"path"
	"strings"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/core/strict"
	"brevium/photo"
	"brevium/store/boxshelf"
	"brevium/store/copies"
)

// What a zip may bring in, in all: bytes when it is unpacked, rows of the list, and the dots of
// its pictures. It is refused before anything is kept.
const (
	MostUnpacked = 64 << 20
	MostRows     = 200_000
	mostDots     = 600_000_000
)

// opening is a zip that is read: each file once, and no more than may be brought in.
type opening struct {
	files map[string]*zip.File // those not read yet
	left  int64                // bytes
}

func refused(form string, args ...any) error {
	return fault.New(fault.Unreadable, "file", form+". Nothing was taken.", args...)
}

// read gives a file of up to so many bytes.
func (o *opening) read(name string, most int64) ([]byte, error) {
	f, there := o.files[path.Clean(name)]
	switch {
	case !there:
		return nil, refused("This zip has no file %s in it, or names it twice", name)
	case f == nil:
		return nil, refused("This zip has two files %s in it", name)
	}
	delete(o.files, path.Clean(name))
	r, err := f.Open()
	if err != nil {
		return nil, refused("%s in this zip cannot be read: %v", name, err)
	}
	defer r.Close()
	text, err := io.ReadAll(io.LimitReader(r, min(most, o.left)+1))
	switch {
	case err != nil || int64(len(text)) > most:
		return nil, refused("%s in this zip cannot be read, or is far too large", name)
	case int64(len(text)) > o.left:
		return nil, refused("This zip holds more than %d MiB, the most that is brought in at once; a copy of the data may be larger", MostUnpacked>>20)
	}
	o.left -= int64(len(text))
	return text, nil
}

// unpack reads what pack wrote. Every file may be as large as a design may be, and the list ten
// times that.
func unpack(from io.ReaderAt, size int64) (copies.Everything, error) {
	var out copies.Everything
	z, err := zip.NewReader(from, size)
	if err != nil {
		return out, refused("This is no zip file of a Brevium")
	}
	o := &opening{map[string]*zip.File{}, MostUnpacked}
	for _, f := range z.File {
		name := path.Clean(f.Name)
		if _, twice := o.files[name]; twice {
			f = nil
		}
		o.files[name] = f
	}
	text, err := o.read(listName, 10*strict.MostBytes)
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
	if n := l.rows(); n > MostRows {
		return out, refused("This zip lists %d things, and %d are the most that are brought in at once", n, MostRows)
	}
	out.Things, out.Paper, out.Jobs, out.Goods, out.Notes, out.Settings, out.Styles = l.Things, l.Paper, l.Jobs, l.Supplies, l.Notes, l.Settings, l.Styles
	for _, b := range l.Boxes {
		text, err := o.read(b.File, strict.MostBytes)
		if err != nil {
			return out, err
		}
		name := b.Name
		if in, err := design.ReadKept(text); err == nil {
			name = in.Name
		}
		out.Boxes = append(out.Boxes, copies.KeptBox{ID: b.ID, Name: name, Design: text, Ticks: b.Ticks, Times: b.Times})
	}
	out.Photos, err = o.pictures(z.File)
	return out, err
}

// rows are how many things a list has, with what is ticked off and timed of them.
func (l *list) rows() int {
	n := len(l.Boxes) + len(l.Things) + len(l.Paper) + len(l.Jobs) + len(l.Supplies) + len(l.Notes) + len(l.Settings) + len(l.Styles)
	for _, b := range l.Boxes {
		n += len(b.Ticks) + len(b.Times)
	}
	for _, j := range l.Jobs {
		n += len(j.Items) + len(j.Paper)
	}
	return n
}

// pictures reads the photographs of papers. Each is made anew, whatever somebody put there; a
// file of ours stays as it is.
func (o *opening) pictures(files []*zip.File) (out []photo.Picture, err error) {
	dots := 0
	for _, f := range files {
		name := path.Clean(f.Name)
		if path.Dir(name) != photoDir {
			continue
		}
		if len(out) == boxshelf.MostPhotos {
			return nil, refused("This zip has more than %d photographs", boxshelf.MostPhotos)
		}
		text, err := o.read(name, photo.MostBytes)
		if err != nil {
			return nil, err
		}
		if dots += photo.Dots(text); dots > mostDots {
			return nil, refused("The photographs in this zip have more dots than are brought in at once")
		}
		p, err := photo.Again(strings.TrimSuffix(path.Base(name), ".jpg"), text)
		if err != nil {
			return nil, fault.New(fault.NotAPicture, "file", "%s in this zip is no picture of a paper. Nothing was taken.", name)
		}
		out = append(out, p)
	}
	return out, nil
}
