// Package data is the page of a maker's own data: copies made and brought
// back, everything taken along and brought in, and the bin.
package data

import (
	"bytes"
	"context"
	"embed"
	"fmt"
	"mime/multipart"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"

	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store"
	"brevium/store/copies"
	"brevium/web/page"
)

// Templates are the room's pages.
//
//go:embed *.html
var Templates embed.FS

type room struct{ *page.Room }

// MostBytes is the largest copy or zip that is taken: 256 MiB.
const MostBytes = 256 << 20

// Routes adds the room's addresses. Those under /data/ take files of up to
// MostBytes.
func Routes(e *echo.Echo, shared *page.Room) {
	s := &room{shared}
	e.GET("/data", s.show)
	g := e.Group("/data", middleware.BodyLimit(MostBytes))
	g.POST("/copy", s.makeCopy)
	g.POST("/locked", s.locked)
	g.GET("/copies/:name", s.download)
	g.POST("/restore", s.restore)
	g.POST("/check", s.check)
	g.GET("/everything.zip", s.takeAlong)
	g.POST("/bring", s.bring)
	e.GET("/me/everything.zip", s.takeMine)
	e.GET("/bin", s.bin)
	e.POST("/bin/empty", s.emptyBin)
	e.POST("/bin/:sort/:id/back", s.bringBack)
	e.POST("/bin/:sort/:id/forget", s.forget)
}

type dataPage struct {
	page.Chrome
	Copies  []copyView
	Said    string // what was just done
	Undo    string // the copy that takes it back
	Fault   string
	Damage  string
	InBin   int
	Shop    bool // several work here
	Checked bool
}

type copyView struct {
	Name, Made, Kind, Size string
}

var kindWords = map[store.Kind]string{
	store.Daily:  "made by itself",
	store.ByHand: "made by hand",
	store.Before: "what was there before a copy or a zip was brought in",
}

func (s *room) show(c *echo.Context) error {
	p := dataPage{Checked: c.QueryParam("checked") != ""}
	switch done := c.QueryParam("done"); done {
	case "copy":
		p.Said = "The copy is made."
	case "restore":
		p.Said = "The copy is in place of what was here."
	case "exchange":
		p.Said = "The copy is in place of the damaged data, which lie beside it in a file called “damaged”."
	case "bring":
		n := func(name string) int { v, _ := strconv.Atoi(c.QueryParam(name)); return v }
		p.Said = fmt.Sprintf("Taken in: boxes %d, things %d, piles of paper %d, jobs %d. What was here already was not taken twice.",
			n("boxes"), n("things"), n("paper"), n("jobs"))
	}
	if name := c.QueryParam("undo"); name != "" {
		if _, err := s.Store.CopyFile(name); err == nil {
			p.Undo = name
		}
	}
	return s.render(c, http.StatusOK, p)
}

func (s *room) render(c *echo.Context, status int, p dataPage) error {
	p.Chrome = s.Chrome(c, "Your data")
	copies, err := s.Store.Copies()
	if err != nil {
		return err
	}
	for _, x := range copies {
		p.Copies = append(p.Copies, copyView{x.Name, x.Made.Format("Monday 2 January 2006, 15:04"), kindWords[x.Kind], bytesWords(x.Bytes)})
	}
	bin, err := s.Store.Of(c.Request().Context()).Bin(c.Request().Context())
	if err != nil {
		s.Log.Error("the bin cannot be read", "error", err) // damaged data still show their copies
	}
	p.InBin, p.Damage, p.Shop = len(bin), s.Store.Damage(), people.Of(c.Request().Context()).ID != 0
	return c.Render(status, "data.html", p)
}

func bytesWords(n int64) string {
	if n < 1<<20 {
		return fmt.Sprintf("%d kB", (n+1023)/1024)
	}
	return fmt.Sprintf("%.1f MB", float64(n)/(1<<20))
}

// refuse shows the page with what cannot be done; any other error passes.
func (s *room) refuse(c *echo.Context, err error) error {
	if !page.IsFault(err) {
		return err
	}
	return s.render(c, http.StatusUnprocessableEntity, dataPage{Fault: fault.Of(err).Text})
}

func (s *room) makeCopy(c *echo.Context) error {
	if _, err := s.Store.MakeCopy(c.Request().Context(), store.ByHand); err != nil {
		return err
	}
	return page.Back(c, "/data?done=copy")
}

func (s *room) download(c *echo.Context) error {
	file, err := s.Store.CopyFile(c.Param("name"))
	if err != nil {
		return echo.NewHTTPError(http.StatusNotFound, "no such copy")
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", c.Param("name")))
	http.ServeFile(c.Response(), c.Request(), file)
	return nil
}

// locked gives a copy of this moment that nobody reads without a passphrase.
func (s *room) locked(c *echo.Context) error {
	passphrase := c.FormValue("passphrase")
	if err := people.CheckPassword(passphrase, ""); err != nil {
		return s.refuse(c, err)
	}
	folder, err := os.MkdirTemp("", "brevium-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	file := filepath.Join(folder, "brevium.db")
	if err := s.Store.Backup(c.Request().Context(), file); err != nil {
		return err
	}
	h := c.Response().Header()
	h.Set("Content-Type", "application/octet-stream")
	h.Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", "brevium-"+s.Store.Now().Format("2006-01-02")+".db.age"))
	return copies.LockFile(c.Response(), file, passphrase)
}

// restore brings back one of the copies, or one from a file that was chosen.
func (s *room) restore(c *echo.Context) error {
	if name := c.FormValue("copy"); name != "" {
		file, err := s.Store.CopyFile(name)
		if err != nil {
			return s.refuse(c, fault.New(fault.Unreadable, "copy", "That copy is not there any more. Nothing was changed."))
		}
		return s.putInPlace(c, file)
	}
	in, _, err := s.chosen(c)
	if err != nil {
		return s.refuse(c, err)
	}
	defer in.Close()
	folder, err := os.MkdirTemp("", "brevium-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	file := filepath.Join(folder, "brevium.db")
	if err := copies.WritePlain(in, file, c.FormValue("passphrase")); err != nil {
		return s.refuse(c, err)
	}
	return s.putInPlace(c, file)
}

func (s *room) putInPlace(c *echo.Context, file string) error {
	// Once begun it is not broken off by a page that is left.
	before, aside, err := s.Store.Restore(context.WithoutCancel(c.Request().Context()), file)
	if err != nil {
		return s.refuse(c, err)
	}
	if aside != "" {
		return page.Back(c, "/data?done=exchange")
	}
	return page.Back(c, "/data?done=restore&undo=%s", before)
}

// chosen is the file that was chosen in a form, and its size in bytes.
func (s *room) chosen(c *echo.Context) (multipart.File, int64, error) {
	file, err := c.FormFile("file")
	if err != nil || file.Size == 0 {
		return nil, 0, fault.New(fault.Empty, "file", "Choose a file first. Nothing was changed.")
	}
	in, err := file.Open()
	if err != nil {
		return nil, 0, page.BadForm(err)
	}
	return in, file.Size, nil
}

func (s *room) check(c *echo.Context) error {
	if _, err := s.Store.Check(c.Request().Context(), true); err != nil {
		return err
	}
	return page.Back(c, "/data?checked=yes")
}

// takeAlong gives everything as a zip of open files.
func (s *room) takeAlong(c *echo.Context) error {
	all, err := s.Store.Of(c.Request().Context()).All(c.Request().Context())
	if err != nil {
		return err
	}
	lots, err := s.Store.Of(c.Request().Context()).Lots(c.Request().Context())
	if err != nil {
		return err
	}
	return s.zipped(c, all, lots)
}

// takeMine gives what is one's own, where several work.
func (s *room) takeMine(c *echo.Context) error {
	all, err := s.Store.Of(c.Request().Context()).Own(c.Request().Context())
	if err != nil {
		return err
	}
	return s.zipped(c, all, nil)
}

func (s *room) zipped(c *echo.Context, all copies.Everything, lots []drawer.Lot) error {
	ctx := c.Request().Context()
	var out bytes.Buffer
	err := pack(&out, all, lots, time.Now().Format(time.RFC3339), func(b copies.KeptBox) []byte {
		in, err := design.ReadKept(b.Design)
		if err != nil || ctx.Err() != nil {
			return nil
		}
		if picture := s.Sketched(ctx, in).Picture; picture != "" {
			return []byte(picture)
		}
		return nil
	})
	if err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", "brevium-"+time.Now().Format("2006-01-02")+".zip"))
	return c.Blob(http.StatusOK, "application/zip", out.Bytes())
}

// bring takes a zip of another Brevium in, beside what is here or in place of
// it.
func (s *room) bring(c *echo.Context) error {
	in, size, err := s.chosen(c)
	if err != nil {
		return s.refuse(c, err)
	}
	defer in.Close()
	end, err := s.Shares.Take(c.Request().Context())
	if err != nil {
		return err
	}
	defer end()
	all, err := unpack(in, size)
	if err != nil {
		return s.refuse(c, err)
	}
	n, before, err := s.Store.Of(context.WithoutCancel(c.Request().Context())).Bring(context.WithoutCancel(c.Request().Context()), all, c.FormValue("how") == "replace")
	if err != nil {
		return s.refuse(c, err)
	}
	if err := s.KnowStyles(c.Request().Context()); err != nil {
		return err
	}
	return page.Back(c, "/data?%s", url.Values{
		"done": {"bring"}, "undo": {before}, "boxes": {strconv.Itoa(n.Boxes)}, "things": {strconv.Itoa(n.Things)},
		"paper": {strconv.Itoa(n.Paper)}, "jobs": {strconv.Itoa(n.Jobs)},
	}.Encode())
}
