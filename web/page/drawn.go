package page

import (
	"sync"

	"brevium/core/design"
)

// Drawn keeps what was drawn of results, so that a page that is seen again is not drawn
// again; what was drawn first is forgotten first.
type Drawn struct {
	mu    sync.Mutex
	by    map[drawing]any
	order []drawing
}

// drawing is one of a result: the net, the folded box, in small.
type drawing struct {
	of   *design.Result
	what string
}

// mostDrawn is how many are kept: three of each result that is.
const mostDrawn = 3 * mostResults

// Draw gives what is kept of a result under a word, or draws it and keeps it. Nobody may change
// it. Two that ask at once may both draw it.
func Draw[V any](d *Drawn, of *design.Result, what string, draw func() V) V {
	key := drawing{of, what}
	d.mu.Lock()
	kept, there := d.by[key]
	d.mu.Unlock()
	if there {
		return kept.(V)
	}
	v := draw()
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.by == nil {
		d.by = map[drawing]any{}
	}
	if _, there := d.by[key]; !there {
		d.order = append(d.order, key)
	}
	d.by[key] = v
	if len(d.order) > mostDrawn {
		delete(d.by, d.order[0])
		d.order = d.order[1:]
	}
	return v
}
