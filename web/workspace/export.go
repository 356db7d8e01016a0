package workspace

import (
	"bytes"
	"context"
	"fmt"
	"net"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/design"
	"brevium/core/inspect"
	"brevium/draw"
	"brevium/draw/export"
	"brevium/draw/pdf"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/web/page"
)

// result works the box of the address out.
func (s *room) result(c *echo.Context) (boxshelf.Box, *design.Result, error) {
	return s.worked(c, s.Made)
}

// finished is result for what is made by, and not only looked at.
func (s *room) finished(c *echo.Context) (boxshelf.Box, *design.Result, error) {
	return s.worked(c, s.Finished)
}

func (s *room) worked(c *echo.Context, out func(context.Context, design.Inputs) (*design.Result, error)) (boxshelf.Box, *design.Result, error) {
	b, err := s.Box(c)
	if err != nil {
		return b, nil, err
	}
	r, err := out(c.Request().Context(), b.Inputs)
	return b, r, err
}

// designFile gives a box's design; of one that cannot be read, what is stored.
func (s *room) designFile(c *echo.Context) error {
	n, err := page.ID(c)
	if err != nil {
		return err
	}
	b, err := s.Store.Of(c.Request().Context()).Box(c.Request().Context(), n)
	if err != nil {
		return err
	}
	text := b.Inputs.Write()
	if b.Broken != nil {
		text = []byte(b.Text)
	}
	return page.Download(c, b.Name, ".json", "application/json", text)
}

func (s *room) planFile(c *echo.Context) error {
	b, r, err := s.finished(c)
	if err != nil {
		return err
	}
	text, err := r.Plan()
	if err != nil {
		return err
	}
	return page.Download(c, b.Name, "-plan.json", "application/json", text)
}

// export gives the box in a format of others: one file as it is, several in a
// zip.
func (s *room) export(c *echo.Context) error {
	b, r, err := s.finished(c)
	if err != nil {
		return err
	}
	q := c.QueryParams()
	to, err := export.ParseFormat(q.Get("to"))
	if err != nil {
		return echo.NewHTTPError(http.StatusNotFound, "no such format")
	}
	paper, err := paperOf(c)
	if err != nil {
		return err
	}
	layers, knife, err := s.ForMachine(c)
	if err != nil {
		return err
	}
	layers.Perforate, layers.Notes = layers.Perforate || q.Has("perforate"), q.Has("notes")
	o := export.Options{Paper: paper, Mirror: q.Has("mirror"), Packed: q.Has("packed"), Layers: layers, Knife: knife}
	o.Printed = q.Has("printed")
	if laid := q.Get("laid"); laid != "" {
		if r, err = s.Trimmed(c.Request().Context(), b.Inputs); err != nil {
			return err
		}
		if laid == "shape" {
			by, err := s.ByShape(r).Laid(c.Request().Context())
			if err != nil {
				return err
			}
			r = by.Result
		}
	}
	files, err := export.Files(r, to, o)
	if err != nil {
		return err
	}
	if len(files) == 1 {
		return page.Download(c, b.Name, "."+to.Ending(), export.Kinds[to], files[0].Bytes)
	}
	text, err := export.Zip(files)
	if err != nil {
		return err
	}
	return page.Download(c, b.Name+"-"+string(to), ".zip", "application/zip", text)
}

// benchURL is the address of a box's bench page as others reach it, or of the class that
// follows the box, or the job that the page is asked for; "" on a machine that only serves
// itself.
func (s *room) benchURL(c *echo.Context, id int64) string {
	host, _, err := net.SplitHostPort(c.Request().Host)
	if err != nil {
		host = c.Request().Host
	}
	if ip := net.ParseIP(host); host == "localhost" || host == "" || ip != nil && ip.IsLoopback() {
		return ""
	}
	here := fmt.Sprintf("%s://%s", c.Scheme(), c.Request().Host)
	job, _ := strconv.ParseInt(c.QueryParam("job"), 10, 64)
	for _, of := range []struct {
		sort desk.Sort
		id   int64
	}{{desk.JobSort, job}, {desk.BoxSort, id}} {
		if class, err := s.Store.Of(c.Request().Context()).ClassOf(c.Request().Context(), of.sort, of.id); err == nil {
			return here + "/class/" + class.Code
		}
	}
	return fmt.Sprintf("%s/boxes/%d/bench", here, id)
}

// printOf is what a page asks to be printed.
func (s *room) printOf(c *echo.Context, b boxshelf.Box) (pdf.Print, error) {
	q := c.QueryParams()
	paper, err := paperOf(c)
	return pdf.Print{
		Paper: paper, Date: time.Now(), Address: c.Scheme() + "://" + c.Request().Host + page.StopURL(b.ID, "making"),
		Bench: s.benchURL(c, b.ID), Plain: q.Has("plain"), Photos: s.Photos(c.Request().Context()),
		Large: q.Has("large"), What: pdf.What(q.Get("what")), Mirror: q.Has("mirror"),
	}, err
}

// pieceSVG gives one piece by itself.
func (s *room) pieceSVG(c *echo.Context) error {
	b, r, err := s.result(c)
	if err != nil {
		return err
	}
	piece, _ := strings.CutSuffix(c.Param("piece"), ".svg")
	i := slices.IndexFunc(r.Parts, func(p design.Part) bool { return p.ID == piece })
	if i < 0 {
		return echo.NewHTTPError(http.StatusNotFound, "no such piece")
	}
	return page.Download(c, b.Name+"-"+piece, ".svg", "image/svg+xml", export.OfPiece(r.Parts[i]).SVG(export.Layers{}))
}

// paperOf is the paper asked for, A4 when none is; one that nobody prints on is refused.
func paperOf(c *echo.Context) (pdf.Paper, error) {
	name := c.QueryParam("paper")
	if name == "" {
		return pdf.A4, nil
	}
	return pdf.ParsePaper(name)
}

func (s *room) sheetPDF(c *echo.Context) error {
	b, r, err := s.finished(c)
	if err != nil {
		return err
	}
	print, err := s.printOf(c, b)
	if err != nil {
		return err
	}
	if !slices.Contains(pdf.Whats, print.What) {
		return echo.NewHTTPError(http.StatusNotFound, "nothing of that name is printed")
	}
	if print.What == pdf.Instructions { // of one box, however many are made
		one := b.Inputs.Clone()
		one.Copies = 1
		if r, err = s.Finished(c.Request().Context(), one); err != nil {
			return err
		}
	}
	var out bytes.Buffer
	if err := pdf.Write(&out, r, print); err != nil {
		return err
	}
	name := b.Name
	if print.What != pdf.Instructions {
		name += "-" + string(print.What)
	}
	return page.Download(c, name, ".pdf", "application/pdf", out.Bytes())
}

// netOf is how a part of the design is drawn flat.
func netOf(r *design.Result, p design.Part) draw.Net {
	var bad []inspect.Finding
	for _, c := range r.Checks {
		if c.Verdict != inspect.OK {
			bad = append(bad, c)
		}
	}
	return draw.Net{
		PaperUp:  p.PaperUp(),
		Run:      r.Run(p.ID),
		From:     draw.FromOf(p),
		Part:     p.Part,
		Mats:     r.Mats,
		Labels:   r.LabelMats(),
		Findings: bad,
		Fence:    r.Inputs.Tools.Fence,
		Units:    r.Inputs.Units,
		Tick:     r.Inputs.Tools.Tick,
	}
}
