package stylefile

import (
	"fmt"
	"strings"

	"brevium/core/measure"
)

// Size is a size as the table asks for it.
type Size struct{ ID, As, Label, Usual string }

func (s size) named() string {
	if s.As != "" {
		return s.As
	}
	return s.ID
}

// List gives the sizes.
func (t *Table) List() []Size {
	var out []Size
	for _, s := range t.Sizes {
		out = append(out, Size{s.ID, s.named(), s.Label, string(s.Usual)})
	}
	return out
}

// SetSize changes what a size is called, in formulas and by people, and its usual value.
func (t *Table) SetSize(i int, as, label, usual string) {
	if i >= 0 && i < len(t.Sizes) {
		s := &t.Sizes[i]
		s.As, s.Label = strings.TrimSpace(as), strings.TrimSpace(label)
		s.Usual = measure.Text(strings.TrimSpace(usual))
	}
}

// AddSize asks for one more.
func (t *Table) AddSize() {
	if len(t.Sizes) >= mostSizes {
		return
	}
	n := len(t.Sizes) + 1
	t.Sizes = append(t.Sizes, size{ID: fmt.Sprintf("size-%d", n), As: fmt.Sprintf("S%d", n), Label: fmt.Sprintf("Size %d", n), Usual: "1 in"})
}

// Call names the style.
func (t *Table) Call(id, name string) {
	t.ID, t.file.Name = strings.TrimSpace(id), strings.TrimSpace(name)
}

// Called is what it is called: its id and its name.
func (t *Table) Called() (id, name string) { return t.ID, t.file.Name }
