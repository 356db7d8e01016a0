package style

import (
	"fmt"
	"strings"

	"brevium/core/measure"
)

// Remark is what is not as it should be of a box that can be made all the same: makers have
// reasons of their own. It says what comes of it, in lengths, and which one change would mend it.
type Remark struct {
	// Field is the size or option that it is about, as a design names it, and Name what that is
	// called.
	Field, Name string
	ForFit      bool // it is a question of fit
	Text        string
	// To is the nearest value at which there is nothing to remark.
	To measure.Length
}

// limited is a size or an option whose values may be remarked upon.
type limited struct {
	field, id, label string
	forFit           bool
}

func (p *Parameter) limited() limited { return limited{"size." + p.ID, p.ID, p.Label, false} }
func (o *Option) limited() limited    { return limited{"options." + o.ID, o.ID, o.Label, o.ForFit} }

// most remarks that a size is over a limit, and what comes of it; the box is made all the same.
func (s Spec) most(x limited, limit measure.Length, comes string) {
	if v := s.Lengths[x.id]; v > limit {
		s.remark(x, measure.Down(max(0, limit), s.Tick.Ruler()), fmt.Sprintf("%s. That is %s more than %s: %s", s.show(v), s.show(v-limit), s.show(limit), comes))
	}
}

// least remarks that a size is under a limit.
func (s Spec) least(x limited, limit measure.Length, comes string) {
	if v := s.Lengths[x.id]; v < limit {
		s.remark(x, measure.Up(limit, s.Tick.Ruler()), fmt.Sprintf("%s. That is %s less than %s: %s", s.show(v), s.show(limit-v), s.show(limit), comes))
	}
}

func (s Spec) remark(x limited, to measure.Length, text string) {
	if s.remarks == nil {
		return
	}
	*s.remarks = append(*s.remarks, Remark{Field: x.field, Name: strings.ToLower(x.label), ForFit: x.forFit, To: to, Text: fmt.Sprintf("%s: %s.", x.label, text)})
}

// mostAllowance is the most that one part may be made larger than another: makers do so to leave
// room for a wide ribbon between them. What is worked out stays under fit.LargestAllowance.
const mostAllowance = 2 * measure.Inch
