package page

import (
	"context"
	"encoding/json"

	"brevium/core/design"
	"brevium/core/measure"
)

// toolsKey names the setting of a maker's tools.
const toolsKey = "tools"

// Tools are those on the maker's list, for a unit: what is not on it is as usual.
func (s *Room) Tools(ctx context.Context, unit measure.Unit) (design.Tools, error) {
	usual := design.Plain("tools", unit).Tools
	var kept json.RawMessage
	if err := s.Store.Of(ctx).Setting(ctx, toolsKey, &kept); err != nil || len(kept) == 0 {
		return usual, err
	}
	tools, err := design.ReadTools(kept, usual)
	if err != nil { // out of another's zip
		return usual, nil
	}
	return tools, nil
}

// SetTools keeps the maker's list.
func (s *Room) SetTools(ctx context.Context, t design.Tools) error {
	return s.Store.Of(ctx).Set(ctx, toolsKey, design.WriteTools(t))
}

// Equip gives a new design the maker's tools, and what the maker reckons of card and glue.
func (s *Room) Equip(ctx context.Context, in *design.Inputs) error {
	tools, err := s.Tools(ctx, in.Units)
	if err != nil {
		return err
	}
	in.Tools = tools
	return s.reckons(ctx, in)
}
