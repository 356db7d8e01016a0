package page

import (
	"context"

	"brevium/core/design"
	"brevium/core/stuff"
)

// The settings of what a maker reckons of card and glue, and of the post.
const (
	constantsKey = "card-and-glue"
	postKey      = "post"
)

// Constants are those of card and glue that the maker changed; what can be none is left out.
func (s *Room) Constants(ctx context.Context) (map[string]float64, error) {
	kept := map[string]float64{}
	if err := s.Store.Of(ctx).Setting(ctx, constantsKey, &kept); err != nil {
		return nil, err
	}
	table := stuff.Usual()
	for id, v := range kept {
		if table.Set(id, v) != nil { // out of another's zip
			delete(kept, id)
		}
	}
	return kept, nil
}

// SetConstants keeps them.
func (s *Room) SetConstants(ctx context.Context, own map[string]float64) error {
	return s.Store.Of(ctx).Set(ctx, constantsKey, own)
}

// Classes are the classes of the maker's post.
func (s *Room) Classes(ctx context.Context) ([]stuff.Class, error) {
	kept := stuff.Classes
	if err := s.Store.Of(ctx).Setting(ctx, postKey, &kept); err != nil {
		return nil, err
	}
	if stuff.CheckClasses(kept) != nil {
		return stuff.Classes, nil
	}
	return kept, nil
}

// SetClasses keeps them.
func (s *Room) SetClasses(ctx context.Context, all []stuff.Class) error {
	return s.Store.Of(ctx).Set(ctx, postKey, all)
}

// reckons gives a new design what the maker reckons of card and glue.
func (s *Room) reckons(ctx context.Context, in *design.Inputs) error {
	own, err := s.Constants(ctx)
	if err == nil {
		in.Constants = own
	}
	return err
}
