package boxes

import (
	"context"
	"html/template"
	"slices"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
	"brevium/web/page"
)

// firstLooks is how many small pictures show an empty place how a box is made.
const firstLooks = 12

// made is one step of a box, as an empty place shows it.
type made struct {
	Picture template.HTML
	Text    string
}

// madeHere is a box being made, in small pictures: the example's moves, less those that are told
// again where they are too many; none where it cannot be made.
func (s *room) madeHere(ctx context.Context, unit measure.Unit) []made {
	in := design.New("", unit, style.Usual().ID)
	in.Things = append(in.Things, usualThing(unit))
	r, err := s.Made(ctx, in)
	if err != nil {
		return nil
	}
	pictures := page.EachMovePicture(&s.Drawn, r)
	var all []made
	for _, x := range recipe.Flat(r.Steps) {
		if p, drawn := pictures[x.Key]; drawn {
			all = append(all, made{p, x.Text})
		}
	}
	said := map[string]bool{}
	for i := 0; i < len(all) && len(all) > firstLooks; i++ {
		if said[all[i].Text] {
			all = slices.Delete(all, i, i+1)
			i--
			continue
		}
		said[all[i].Text] = true
	}
	return all[:min(len(all), firstLooks)]
}
