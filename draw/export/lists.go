package export

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"strconv"
	"strings"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
)

// CSV writes what is cut and scored as a list: a line for every blank, then for
// every pass over the board and every other move that scores or cuts, in
// working order. Numbers are in mm, with a label as a hand reads it.
func CSV(r *design.Result) ([]byte, error) {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	rows := [][]string{{"piece", "copies", "card", "what", "from", "mm", "label", "text"}}
	add := func(piece string, copies int, card, what, from string, lengths []measure.Length, text string) {
		var mm, labels []string
		for _, l := range lengths {
			mm, labels = append(mm, strconv.FormatFloat(l.MM(), 'f', -1, 64)), append(labels, r.Show(l))
		}
		rows = append(rows, []string{piece, strconv.Itoa(copies), card, what, from, strings.Join(mm, " "), strings.Join(labels, "; "), text})
	}
	for _, x := range r.Blanks {
		add(x.ID, r.Inputs.Copies*x.Copies, x.Card.Name, "blank", "", []measure.Length{x.Width, x.Height}, x.Name)
	}
	for i, p := range r.Parts {
		n, list := r.Inputs.Copies*p.Copies(), r.Scores[i]
		for _, pass := range list.Passes {
			add(p.ID, n, p.Card.Name, "score", pass.Against(), pass.At, "")
		}
		for _, s := range recipe.Flat(r.Steps) {
			if s.Piece == p.ID && s.Passes == nil && (s.Kind == recipe.Score || s.Kind == recipe.Remove) {
				add(p.ID, n, p.Card.Name, s.Move, "", nil, s.Text)
			}
		}
	}
	for _, s := range r.Supplies {
		rows = append(rows, []string{"", "", "", "supply", "", "", fmt.Sprintf("%g %s", s.Amount, s.Unit), s.Text})
	}
	for _, row := range rows {
		for i, cell := range row { // never a formula to a spreadsheet
			if strings.HasPrefix(cell, "=") || strings.HasPrefix(cell, "+") || strings.HasPrefix(cell, "@") || strings.HasPrefix(cell, "-") {
				row[i] = "'" + cell
			}
		}
	}
	if err := w.WriteAll(rows); err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}
