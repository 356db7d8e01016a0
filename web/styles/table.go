package styles

import (
	"context"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/fault"
	"brevium/core/stylefile"
	"brevium/draw"
	"brevium/web/form"
	"brevium/web/page"
)

// tablePage is a style as a table that is filled in.
type tablePage struct {
	page.Chrome
	ID, Name form.Field
	Sizes    []sizeView
	Columns  []form.Field
	Rows     []rowView
	Faces    []faceView
	Edges    []edgeView
	Root     form.Field
	Begin    string // of a sheet that is still flat: what comes first
	Wrong    string
	Sketch   template.HTML // of what does not fold
	Picture  template.HTML
	Nets     []template.HTML // the first is that of the table
	Says     string
	Text     string
	Undo     bool
	Pieces   []pieceView
	Stance   []form.Field
	Divide   []form.Field // which face, from where to where
	Mark     string       // of the state that is shown
	told
	parting string // which face
	Divided []dividedView
	Bites   []biteView
	Overs   []overView
	Allow   []form.Field
}

type sizeView struct{ As, Label, Usual form.Field }

type rowView struct {
	N       int
	Formula form.Field
	Cells   []form.Field
}

type faceView struct {
	Name             string
	Role, Goes, Onto form.Field
	Reach, Wedge     form.Field
	Corner, Arch     form.Field
	Tab              bool
}

type edgeView struct {
	Label string
	Is    form.Field
	Angle form.Field
}

// told is why nothing was done: Refused at the button that parts a face, Said above all else.
type told struct{ Refused, Said string }

func (s *room) table(c *echo.Context) error {
	ctx := c.Request().Context()
	d, t, err := s.StyleDraft(ctx)
	if err != nil {
		return err
	}
	if from := c.QueryParam("from"); from != "" { // begin from one
		text := ""
		for _, x := range stylefile.Examples() {
			if x.ID == from {
				text = x.Text
			}
		}
		if from == "nothing" {
			text = string(stylefile.NewTable().Text())
		}
		began := 0
		if x, err := s.newest(ctx, from); text == "" && err == nil {
			text, began = string(x.File), x.Version
		}
		if t, err = stylefile.ReadTable([]byte(text)); err != nil {
			return echo.NewHTTPError(http.StatusNotFound, "there is no such style to begin from")
		}
		if err := s.PutDraft(ctx, &d, t); err != nil {
			return err
		}
		if err := s.BeginFrom(ctx, &d, began); err != nil {
			return err
		}
		return page.Back(c, "/styles/table")
	}
	at, _ := strconv.Atoi(c.QueryParam("piece"))
	t.Pick(at)
	return s.showTable(c, http.StatusOK, d, t, told{})
}

// fill takes a change of the table in.
func (s *room) fill(c *echo.Context) error {
	posted, err := c.FormValues()
	if err != nil {
		return page.BadForm(err)
	}
	s.Merging.Lock()
	defer s.Merging.Unlock()
	ctx := c.Request().Context()
	d, t, err := s.StyleDraft(ctx)
	if err != nil {
		return err
	}
	if saw := posted.Get("draft"); saw != "" && saw != d.Mark() {
		return s.answer(c, http.StatusUnprocessableEntity, d, posted.Get("piece"), told{Said: "This table was changed in another window meanwhile. It is shown as it stands now; nothing of yours was put in."})
	}
	if posted.Get("do") == "undo" && len(d.Before) > 0 {
		if err := s.UndoDraft(ctx, &d); err != nil {
			return err
		}
		return s.answer(c, http.StatusOK, d, posted.Get("piece"), told{})
	}
	at, _ := strconv.Atoi(posted.Get("piece"))
	t.Pick(at)
	refused := apply(t, posted)
	piece := strconv.Itoa(t.Picked())
	if err := s.PutDraft(ctx, &d, t); err != nil {
		return err
	}
	if posted.Get("do") == "keep" {
		if _, err := stylefile.Read([]byte(d.Text)); err != nil {
			return s.answer(c, http.StatusUnprocessableEntity, d, piece, told{})
		}
		newest, err := s.keep(c, []byte(d.Text), d.Began)
		if page.IsFault(err) {
			if wrong := s.BeginFrom(ctx, &d, newest); wrong != nil {
				return wrong
			}
			return s.answer(c, http.StatusUnprocessableEntity, d, piece, told{Said: fault.Of(err).Text})
		}
		return err
	}
	if refused != nil {
		return s.answer(c, http.StatusUnprocessableEntity, d, piece, told{Refused: fault.Of(refused).Text})
	}
	return s.answer(c, http.StatusOK, d, piece, told{})
}

// answer shows the table of a piece again, or goes back to it; refused is why a button did
// nothing.
func (s *room) answer(c *echo.Context, status int, d page.Draft, piece string, no told) error {
	t, err := stylefile.ReadTable([]byte(d.Text))
	if err != nil {
		return err
	}
	at, _ := strconv.Atoi(piece)
	t.Pick(at)
	here := fmt.Sprintf("/styles/table?piece=%d", t.Picked())
	if c.Request().Header.Get("HX-Request") == "" && status == http.StatusOK {
		return page.Back(c, "%s", here)
	}
	c.Response().Header().Set("HX-Replace-Url", here)
	return s.showTable(c, status, d, t, no)
}

// apply puts what was posted into the table: names of cells first, since all else goes
// by them. A button's wish that cannot be is refused; the rest is put in.
func apply(t *stylefile.Table, posted url.Values) error {
	get, has := posted.Get, posted.Has
	if has("id") || has("name") {
		t.Call(get("id"), get("name"))
	}
	for i := range t.List() {
		if has(fmt.Sprintf("size.%d.as", i)) {
			t.SetSize(i, get(fmt.Sprintf("size.%d.as", i)), get(fmt.Sprintf("size.%d.label", i)), get(fmt.Sprintf("size.%d.usual", i)))
		}
	}
	for i := range t.Columns() {
		if name := fmt.Sprintf("column.%d", i); has(name) {
			t.SetColumn(i, get(name))
		}
	}
	for i := range t.Rows() {
		if name := fmt.Sprintf("row.%d", i); has(name) {
			t.SetRow(i, get(name))
		}
	}
	faces, edges := t.Faces(), t.Edges()
	for i, e := range edges { // before cells are renamed: fields go by their order
		if name := fmt.Sprintf("edge.%d", i); has(name) {
			t.SetEdge(e.A, e.B, get(name), get(fmt.Sprintf("angle.%d", i)))
		}
	}
	for i, f := range faces {
		if name := fmt.Sprintf("role.%d", i); has(name) {
			t.SetRole(f, get(name))
			t.SetGoes(f, stylefile.Goes{Way: get(fmt.Sprintf("goes.%d", i)), Onto: get(fmt.Sprintf("onto.%d", i))})
		}
		if name := fmt.Sprintf("reach.%d", i); has(name) {
			t.SetShape(f, get(name), get(fmt.Sprintf("wedge.%d", i)))
		}
		if name := fmt.Sprintf("corner.%d", i); has(name) {
			t.SetRounded(f, stylefile.Round{Radius: get(name), Rise: get(fmt.Sprintf("arch.%d", i))})
		}
	}
	if has("root") {
		t.SetRoot(get("root"))
	}
	applyPieces(t, posted)
	for r, row := range t.Grid() {
		for k := range row {
			if name := fmt.Sprintf("cell.%d.%d", r, k); has(name) {
				t.Name(r, k, get(name))
			}
		}
	}
	what, n, _ := strings.Cut(get("do"), ".")
	at, _ := strconv.Atoi(n)
	switch what {
	case "column-first":
		t.AddColumn(true)
	case "column-last":
		t.AddColumn(false)
	case "row-first":
		t.AddRow(true)
	case "row-last":
		t.AddRow(false)
	case "column-away":
		t.RemoveColumn(at)
	case "row-away":
		t.RemoveRow(at)
	case "size":
		t.AddSize()
	default:
		return doPieces(t, what, at, posted)
	}
	return nil
}

func (s *room) showTable(c *echo.Context, status int, d page.Draft, t *stylefile.Table, no told) error {
	v := &tablePage{Chrome: s.Chrome(c, "A style as a table"), Text: d.Text, Mark: d.Mark(), Undo: len(d.Before) > 0, told: no}
	f := form.New(nil, page.UnitsOf(c))
	id, name := t.Called()
	v.ID, v.Name = f.Control("id", "Its id", "small letters and strokes, such as my-box", id), f.Control("name", "Its name", "", name)
	for i, x := range t.List() {
		v.Sizes = append(v.Sizes, sizeView{
			f.Control(fmt.Sprintf("size.%d.as", i), "In formulas, size "+fmt.Sprint(i+1), "", x.As),
			f.Control(fmt.Sprintf("size.%d.label", i), "Size "+fmt.Sprint(i+1)+" is called", "", x.Label),
			f.Control(fmt.Sprintf("size.%d.usual", i), "Usual value of size "+fmt.Sprint(i+1), "", x.Usual),
		})
	}
	for i, x := range t.Columns() {
		v.Columns = append(v.Columns, f.Control(fmt.Sprintf("column.%d", i), fmt.Sprintf("Width of column %d", i+1), "", x))
	}
	grid := t.Grid()
	for r, x := range t.Rows() {
		row := rowView{N: r, Formula: f.Control(fmt.Sprintf("row.%d", r), fmt.Sprintf("Height of row %d", r+1), "", x)}
		for k, cell := range grid[r] {
			row.Cells = append(row.Cells, f.Control(fmt.Sprintf("cell.%d.%d", r, k), fmt.Sprintf("Row %d, column %d", r+1, k+1), "", cell))
		}
		v.Rows = append(v.Rows, row)
	}
	v.faces(f, t)
	v.pieces(f, t, c.Request().PostForm)
	if err := v.draw(c.Request().Context(), d.Text, t); err != nil {
		return err
	}
	if c.Request().Header.Get("HX-Request") != "" {
		return c.Render(http.StatusOK, "own-table", v) // what is wrong stands on it
	}
	return c.Render(status, "table.html", v)
}

// words for the choices of the table.
var (
	edgeWords = map[string]string{"fold": "folded away", "towards": "folded towards you", "hinge": "folded to shut it", "slit": "slit apart", "roll": "bent over an edge, not scored", "roll-towards": "bent over an edge towards you"}
	wayWords  = map[string]string{"glue": "glued, its outside on", "inside": "glued, its inside on", "over": "glued, its inside on the outside of", "tuck": "tucked behind", "lap": "lies over", "within": "lies inside, dry"}
)

// faces readies what is asked of faces and edges.
func (v *tablePage) faces(f *form.Form, t *stylefile.Table) {
	faces := t.Faces()
	named := []form.Choice{{Value: "", Label: "no face"}}
	for _, n := range faces {
		named = append(named, form.Choice{Value: n, Label: n})
	}
	v.Root = f.ChoiceField("root", "Stays on the table", "", t.Root(), named[1:]...)
	ways := []form.Choice{{Value: "", Label: "nowhere"}}
	for _, w := range stylefile.Ways {
		ways = append(ways, form.Choice{Value: w, Label: wayWords[w]})
	}
	for i, n := range faces {
		goes := t.Goes(n)
		reach, wedge := t.Shape(n)
		role := t.Role(n)
		x := faceView{
			Name: n, Tab: role == "tab" || role == "flap",
			Role:   f.ChoiceField(fmt.Sprintf("role.%d", i), n+" is a", "", role, form.Plain(stylefile.Roles...)...),
			Goes:   f.ChoiceField(fmt.Sprintf("goes.%d", i), n+" goes", "", goes.Way, ways...),
			Onto:   f.ChoiceField(fmt.Sprintf("onto.%d", i), n+" goes to", "", goes.Onto, named...),
			Reach:  f.Control(fmt.Sprintf("reach.%d", i), n+" reaches", "empty: all of its cell", reach),
			Wedge:  f.Control(fmt.Sprintf("wedge.%d", i), n+" loses on each side", "", wedge),
			Corner: f.Control(fmt.Sprintf("corner.%d", i), "Corners of "+n+" are rounded by", "", t.Rounded(n).Radius),
			Arch:   f.Control(fmt.Sprintf("arch.%d", i), "The arc that "+n+" ends in rises by", "", t.Rounded(n).Rise),
		}
		v.Faces = append(v.Faces, x)
	}
	var kinds []form.Choice
	for _, k := range stylefile.EdgeKinds {
		kinds = append(kinds, form.Choice{Value: k, Label: edgeWords[k]})
	}
	for i, e := range t.Edges() {
		label := e.A + " and " + e.B
		if e.Arc {
			v.Edges = append(v.Edges, edgeView{Label: label})
			continue
		}
		v.Edges = append(v.Edges, edgeView{label, f.ChoiceField(fmt.Sprintf("edge.%d", i), label, "", e.Is, kinds...), f.Control(fmt.Sprintf("angle.%d", i), "Degrees between "+label, "", e.Angle)})
	}
}

// draw tries the table, and says what is wrong with it.
func (v *tablePage) draw(ctx context.Context, text string, t *stylefile.Table) error {
	one := &stylesPage{Chrome: v.Chrome, pick: true, picked: t.Picked()}
	points := t.Points(v.parting)
	for i, at := range t.Spots(v.parting) {
		one.spots = append(one.spots, draw.Spot{At: at, Key: points[i], About: "A line over " + v.parting + ", " + points[i]})
	}
	err := one.try(ctx, text)
	if page.IsFault(err) {
		f := fault.Of(err)
		if v.Wrong = where(f.Field) + f.Text; f.Code == fault.NoRoom && t.Flat() {
			v.Begin = "A flat sheet as yet, the size of its one face. Put a column or a row beside it for each wall, and give the new cells names."
		}
		if faces := t.Drawn(); len(faces) > 0 {
			wrong := strings.FieldsFunc(f.Text, func(r rune) bool { return strings.ContainsRune(` ",:;`, r) })
			v.Sketch = page.SVG(draw.Sketch{Piece: "table", Faces: faces, Wrong: wrong, Spots: one.spots}.Picture())
		}
		return nil
	}
	v.Picture, v.Nets, v.Says = one.Picture, one.Nets, one.Says
	return err
}

// where says in words which part of the table a fault is at.
func where(field string) string {
	for at, word := range map[string]string{"columns": "column", "rows": "row"} {
		if _, rest, in := strings.Cut(field, "."+at+"["); in {
			if n, err := strconv.Atoi(strings.TrimRight(rest, "]")); err == nil {
				return fmt.Sprintf("%s %d: ", strings.ToUpper(word[:1])+word[1:], n+1)
			}
		}
	}
	return ""
}
