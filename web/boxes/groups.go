package boxes

import (
	"brevium/core/contents"
	"brevium/core/recipe"
	"brevium/store/boxshelf"
)

// groupOf is the heading that a box stands under in a list that was put in order by something; ""
// where the order has no groups.
func groupOf(e entry, by boxshelf.Order) string {
	switch {
	case by != boxshelf.ByDate && by != boxshelf.ByStyle && by != boxshelf.ByThing:
		return ""
	case e.Favourite:
		return "Favourites"
	case by == boxshelf.ByStyle:
		return e.Style
	case by == boxshelf.ByDate:
		return e.Changed.Format("January 2006")
	}
	return firstThing(e.Inputs.Things)
}

func firstThing(things []contents.Thing) string {
	if len(things) == 0 || things[0].Name == "" {
		return "Nothing named"
	}
	return recipe.Capital(things[0].Name)
}

// grouped gives each box the heading that begins with it; before is the box that stands before them, if
// they are the next part of a list.
func grouped(all []entry, before int, by boxshelf.Order) []entry {
	for i := range all {
		if g := groupOf(all[i], by); i == 0 || g != groupOf(all[i-1], by) {
			all[i].Group = g
		}
	}
	return all[before:]
}
