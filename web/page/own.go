package page

import (
	"context"

	"brevium/core/style"
	"brevium/core/stylefile"
)

// KnowStyles makes the maker's own styles known in the catalogue, as they are kept now.
func (s *Room) KnowStyles(ctx context.Context) error {
	all, err := s.Store.Styles(ctx)
	if err != nil {
		return err
	}
	var files []stylefile.Kept
	for _, x := range all {
		files = append(files, stylefile.Kept{File: x.File, Struck: x.Struck})
	}
	style.SetOwn(stylefile.Own(files))
	return nil
}
