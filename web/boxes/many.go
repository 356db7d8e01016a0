package boxes

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"net/url"
	"slices"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/fault"
	"brevium/draw/export"
	"brevium/draw/pdf"
	"brevium/store/boxshelf"
	"brevium/store/jobbook"
	"brevium/web/page"
)

// deed is what is done with the boxes that are chosen.
type deed string

const (
	tagThem    deed = "tag"
	untagThem  deed = "untag"
	favourites deed = "favourite"
	plainOnes  deed = "unfavourite"
	putAway    deed = "archive"
	takeOut    deed = "unarchive"
	copyThem   deed = "copy"
	deleteThem deed = "delete"
	bringBack  deed = "back"
	makeJob    deed = "job"
)

// undoes is the deed that takes another back, and what the list says of that.
var undoes = map[deed]struct {
	by   deed
	says string
}{
	tagThem: {untagThem, "tagged “%s”"}, untagThem: {tagThem, "without the tag “%s” now"},
	favourites: {plainOnes, "favourites now, and stand first"}, plainOnes: {favourites, "favourites no more"},
	putAway: {takeOut, "archived"}, takeOut: {putAway, "back on the shelf"},
	copyThem: {deleteThem, "copied"}, deleteThem: {bringBack, "in the bin"}, bringBack: {deleteThem, "back"},
}

// Other ways to print what is chosen than with one cut plan.
const (
	asBooklet = "booklet"
	asLabels  = "labels"
)

// printApart prints the boxes as a booklet, or the labels of all of them.
func (s *room) printApart(c *echo.Context, boxes []boxshelf.Box, as string, print pdf.Print) error {
	ctx := c.Request().Context()
	end, err := s.Shares.Take(ctx)
	if err != nil {
		return err
	}
	defer end()
	var results []*design.Result
	for _, b := range boxes {
		in := b.Inputs
		if as == asBooklet {
			in = batch.Item{Inputs: in}.One()
		}
		r, err := design.Make(ctx, in)
		if err != nil {
			return err
		}
		results = append(results, r)
	}
	write, name := pdf.WriteBooklet, "booklet of "+page.Counted(len(boxes), "box")
	if as == asLabels {
		write, name = pdf.WriteLabels, "labels of "+page.Counted(len(boxes), "box")
	}
	var out bytes.Buffer
	if err := write(&out, results, print); err != nil {
		return err
	}
	return page.Download(c, name, ".pdf", "application/pdf", out.Bytes())
}

// chosen are the numbers of the boxes that are ticked.
func chosen(posted url.Values) []int64 {
	var out []int64
	for _, text := range posted["box"] {
		if id, err := strconv.ParseInt(text, 10, 64); err == nil && !slices.Contains(out, id) {
			out = append(out, id)
		}
	}
	return out
}

// many does one thing with all boxes that are chosen, and offers to take it back.
func (s *room) many(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	ctx, ids, do := c.Request().Context(), chosen(posted), deed(posted.Get("do"))
	to := page.Searched(c)
	if do == makeJob {
		return s.jobOf(c, ids)
	}
	changed, err := s.do(ctx, do, ids, posted.Get("tag"))
	if err != nil {
		return refused(c, err)
	}
	to.Set("did", string(do))
	if tag := posted.Get("tag"); tag != "" {
		to.Set("with", tag)
	}
	for _, id := range changed {
		to.Add("box", page.Itoa(id))
	}
	return page.Back(c, "/?%s", to.Encode())
}

// refused goes back to the list, which says what was not taken.
func refused(c *echo.Context, err error) error {
	if !page.IsFault(err) {
		return err
	}
	to := page.Searched(c)
	to.Set("refused", fault.Of(err).Text)
	return page.Back(c, "/?%s", to.Encode())
}

// do does a deed, and gives the boxes it changed or made.
func (s *room) do(ctx context.Context, do deed, ids []int64, tag string) ([]int64, error) {
	d := s.Store.Of(ctx)
	switch do {
	case tagThem, untagThem:
		return d.SetTag(ctx, tag, ids, do == tagThem)
	case favourites, plainOnes:
		return d.SetMark(ctx, boxshelf.Favourite, ids, do == favourites)
	case putAway, takeOut:
		return d.SetMark(ctx, boxshelf.Archived, ids, do == putAway)
	case deleteThem:
		return d.DeleteBoxes(ctx, ids)
	case bringBack:
		return d.BringBoxes(ctx, ids)
	case copyThem:
		if err := boxshelf.CheckChosen(ids); err != nil {
			return nil, err
		}
		var made []int64
		for _, id := range ids {
			n, err := d.Copy(ctx, id)
			if err != nil {
				return made, err
			}
			made = append(made, n)
		}
		return made, nil
	}
	return nil, fault.New(fault.Empty, "do", "say what is to be done with the boxes")
}

// jobOf makes a job of the chosen boxes, as many of each as it says itself.
func (s *room) jobOf(c *echo.Context, ids []int64) error {
	ctx := c.Request().Context()
	boxes, err := s.boxesOf(ctx, ids, batch.MostItems)
	if err != nil {
		return refused(c, err)
	}
	j := jobbook.Job{Name: boxes[0].Name}
	if more := len(boxes) - 1; more > 0 {
		j.Name = design.CleanName(fmt.Sprintf("%s and %d more", j.Name, more))
	}
	for _, b := range boxes {
		j.Items = append(j.Items, jobbook.JobItem{Box: b.ID, Copies: b.Inputs.Copies})
	}
	n, err := s.Store.Of(ctx).AddJob(ctx, j)
	if err != nil {
		return err
	}
	return page.Back(c, "/jobs/%d", n)
}

// boxesOf loads the chosen boxes; more than most at once are refused.
func (s *room) boxesOf(ctx context.Context, ids []int64, most int) ([]boxshelf.Box, error) {
	if err := boxshelf.CheckChosen(ids); err != nil {
		return nil, err
	}
	if len(ids) > most {
		return nil, fault.New(fault.CountRange, "box", "up to %d boxes go into one job or print; choose fewer", most)
	}
	var out []boxshelf.Box
	for _, id := range ids {
		b, err := s.Store.Of(ctx).Box(ctx, id)
		if err != nil {
			return nil, err
		}
		if b.Broken != nil {
			return nil, fault.New(fault.Invalid, "box", "“%s” cannot be read; open it and mend it first", b.Name)
		}
		out = append(out, b)
	}
	return out, nil
}

// print gives the chosen boxes as one document, with one cut plan.
func (s *room) print(c *echo.Context) error {
	ctx, q := c.Request().Context(), c.QueryParams()
	paper := pdf.A4
	if name := q.Get("paper"); name != "" {
		var err error
		if paper, err = pdf.ParsePaper(name); err != nil {
			return err
		}
	}
	boxes, err := s.boxesOf(ctx, chosen(q), batch.MostItems)
	if err != nil {
		return err
	}
	print := pdf.Print{Paper: paper, Date: time.Now(), Photos: s.Photos(ctx)}
	if as := q.Get("as"); as == asBooklet || as == asLabels {
		return s.printApart(c, boxes, as, print)
	}
	lots, err := s.Store.Of(ctx).Lots(ctx)
	if err != nil {
		return err
	}
	end, err := s.Shares.Take(ctx)
	if err != nil {
		return err
	}
	defer end()
	var items []batch.Item
	var results []*design.Result
	var copies []int
	for _, b := range boxes {
		it := batch.Item{Inputs: b.Inputs, Copies: b.Inputs.Copies}
		if it.Made, err = design.Make(ctx, it.One()); err != nil {
			return err
		}
		items, results, copies = append(items, it), append(results, it.Made), append(copies, it.Copies)
	}
	stocks, err := batch.Gather(ctx, items, lots, batch.Choices{})
	if err != nil {
		return err
	}
	for i := range stocks {
		if err := stocks[i].Lay(ctx, batch.Quick); err != nil {
			return err
		}
	}
	var out bytes.Buffer
	err = pdf.WriteMany(&out, results, copies, stocks, print)
	if err != nil {
		return err
	}
	return page.Download(c, fmt.Sprintf("%d boxes", len(boxes)), ".pdf", "application/pdf", out.Bytes())
}

// pieceFiles are the pieces of one box for other tools, under a folder of their own: none of a box
// that cannot be made, whose design is kept all the same.
func pieceFiles(ctx context.Context, in design.Inputs, folder string) ([]export.File, error) {
	r, err := design.Make(ctx, batch.Item{Inputs: in}.One())
	if err != nil {
		return nil, ctx.Err()
	}
	var out []export.File
	for _, to := range []export.Format{export.SVG, export.DXF, export.Lists} {
		files, err := export.Files(r, to, export.Options{Paper: pdf.A4})
		if err != nil {
			return nil, err
		}
		for _, f := range files {
			out = append(out, export.File{Name: folder + f.Name, Bytes: f.Bytes})
		}
	}
	return out, nil
}

// files gives the designs of the chosen boxes in a zip, each a file that another Brevium opens.
func (s *room) files(c *echo.Context) error {
	ctx := c.Request().Context()
	boxes, err := s.boxesOf(ctx, chosen(c.QueryParams()), boxshelf.MostChosen)
	if err != nil {
		return err
	}
	end, err := s.Shares.Take(ctx)
	if err != nil {
		return err
	}
	defer end()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	used := map[string]int{}
	for _, b := range boxes {
		name := page.FileName(b.Name)
		if used[name]++; used[name] > 1 {
			name = fmt.Sprintf("%s-%d", name, used[name])
		}
		pieces, err := pieceFiles(ctx, b.Inputs, name+"/")
		if err != nil {
			return err
		}
		for _, f := range append([]export.File{{Name: name + ".json", Bytes: b.Inputs.Write()}}, pieces...) {
			w, err := z.CreateHeader(&zip.FileHeader{Name: f.Name, Method: zip.Deflate, Modified: b.Changed})
			if err != nil {
				return err
			}
			if _, err := w.Write(f.Bytes); err != nil {
				return err
			}
		}
	}
	if err := z.Close(); err != nil {
		return err
	}
	return page.Attach(c, "boxes.zip", "application/zip", out.Bytes())
}

// done is what was just done with several boxes, and what takes it back.
type done struct {
	Says  string
	Undo  deed
	With  string
	Boxes []int64
}

// doneOf reads what the address says was done; nil where it says nothing.
func doneOf(q url.Values) *done {
	u, known := undoes[deed(q.Get("did"))]
	if !known {
		return nil
	}
	ids := chosen(q)
	if len(ids) == 0 {
		return &done{Says: "Nothing was to be changed."}
	}
	says := u.says
	if u.by == tagThem || u.by == untagThem {
		says = fmt.Sprintf(says, q.Get("with"))
	}
	are := "are "
	if len(ids) == 1 {
		are = "is "
	}
	return &done{page.Counted(len(ids), "box") + " " + are + says + ".", u.by, q.Get("with"), ids}
}
