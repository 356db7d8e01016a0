package web

import (
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"regexp"
	"strings"
	"sync"
)

// assets are the files that ship inside the program, compressed once. An
// address that names a file's sum may be kept for a year: other content has
// another address.
type assets map[string]*asset

type asset struct {
	kind, sum   string
	body, small []byte // small is body by gzip; nil where that saves nothing
}

// year is how long a file may be kept that is named by its sum.
const year = "public, max-age=31536000, immutable"

// shipped are all of them, read and squeezed one time.
var shipped = sync.OnceValues(func() (assets, error) {
	files, err := fs.Sub(static, "static")
	if err != nil {
		return nil, err
	}
	return readAssets(files)
})

func readAssets(files fs.FS) (assets, error) {
	out := assets{}
	for _, styles := range []bool{false, true} { // styles name others by their sums
		if err := out.read(files, styles); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// inStyles is an address of another file in a style sheet.
var inStyles = regexp.MustCompile(`url\("([^":]+)"\)`)

// read reads the style sheets, or all other files.
func (a assets) read(files fs.FS, styles bool) error {
	return fs.WalkDir(files, ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || (path.Ext(name) == ".css") != styles {
			return err
		}
		body, err := fs.ReadFile(files, name)
		if err != nil {
			return err
		}
		if styles {
			body = inStyles.ReplaceAllFunc(body, func(at []byte) []byte {
				other := path.Join(path.Dir(name), string(inStyles.FindSubmatch(at)[1]))
				return fmt.Appendf(nil, "url(%q)", a.address(other))
			})
		}
		sum := sha256.Sum256(body)
		f := &asset{kind: mime.TypeByExtension(path.Ext(name)), sum: hex.EncodeToString(sum[:8]), body: body}
		if f.kind == "" {
			f.kind = http.DetectContentType(body)
		}
		if f.small, err = squeezed(body); err != nil {
			return err
		}
		a[name] = f
		return nil
	})
}

// squeezed is a body by gzip, nil where that is hardly smaller.
func squeezed(body []byte) ([]byte, error) {
	var small bytes.Buffer
	z, err := gzip.NewWriterLevel(&small, gzip.BestCompression)
	if err != nil {
		return nil, err
	}
	if _, err := z.Write(body); err != nil {
		return nil, err
	}
	if err := z.Close(); err != nil || small.Len() > len(body)*9/10 {
		return nil, err
	}
	return small.Bytes(), nil
}

// address is where a file is served, by its sum.
func (a assets) address(name string) string {
	if f, there := a[name]; there {
		return "/static/" + name + "?v=" + f.sum
	}
	return "/static/" + name
}

func (a assets) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	f, there := a[strings.TrimPrefix(r.URL.Path, "/static/")]
	if !there {
		http.NotFound(w, r) // folders are not listed
		return
	}
	h := w.Header()
	h.Set("Content-Type", f.kind)
	h.Set("Vary", "Accept-Encoding")
	h.Set("Cache-Control", "no-cache") // ask whether it is still the same
	if r.URL.Query().Get("v") == f.sum {
		h.Set("Cache-Control", year)
	}
	body, tag := f.body, `"`+f.sum+`"`
	if f.small != nil && strings.Contains(r.Header.Get("Accept-Encoding"), "gzip") {
		h.Set("Content-Encoding", "gzip")
		body, tag = f.small, `"`+f.sum+`-gzip"`
	}
	h.Set("ETag", tag)
	if strings.Contains(r.Header.Get("If-None-Match"), f.sum) {
		w.WriteHeader(http.StatusNotModified)
		return
	}
	if _, err := w.Write(body); err != nil {
		return // the browser has gone
	}
}
