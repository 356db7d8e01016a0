package style

import "brevium/core/measure"

// Small is a small box that an assembly is made of: one that could stand by
// itself, of a style of its own.
type Small struct {
	ID, Name string
	Style    *Style
	// Sizes and Options are its parameters and length options, and Choices its
	// other options.
	Sizes, Options map[string]measure.Length
	Choices        map[string]string
	// Pieces are the assembly's parts by the ids that its own style gives them.
	Pieces map[string]string
}

// smallBox describes a small box by a spec of its own style.
func smallBox(id, name string, s Spec, pieces map[string]string) Small {
	out := Small{ID: id, Name: name, Style: s.Style, Sizes: map[string]measure.Length{}, Options: map[string]measure.Length{}, Choices: map[string]string{}, Pieces: pieces}
	for _, p := range s.Style.Parameters {
		out.Sizes[p.ID] = s.Lengths[p.ID]
	}
	for _, o := range s.Style.Options {
		if o.Kind == LengthKind {
			out.Options[o.ID] = s.Lengths[o.ID]
		} else {
			out.Choices[o.ID] = s.Choices[o.ID]
		}
	}
	return out
}

// smallTray is a small open tray of an assembly.
func (s Spec) smallTray(part, name string, l, w, h measure.Length) Small {
	as := s.as(tray)
	as.Lengths[length.ID], as.Lengths[width.ID], as.Lengths[height.ID] = l, w, h
	return smallBox(part, name, as, map[string]string{"tray": part})
}
