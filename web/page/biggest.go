package page

import (
	"context"
	"errors"
	"fmt"
	"time"

	"brevium/core/design"
	"brevium/core/fault"
)

// PageTakes is how long a page may look for an answer: after that it shows the best so far,
// and says so.
const PageTakes = 2 * time.Second

// Biggest is the biggest box of a sheet, looked for as long as a page may and once for the
// same question, unless time ran out.
func (s *Room) Biggest(ctx context.Context, in design.Inputs, ask design.Ask) (*design.Biggest, error) {
	ctx, stop := context.WithTimeout(ctx, PageTakes)
	defer stop()
	return s.biggest.Of(fmt.Sprint("biggest ", ask), in, func() (*design.Biggest, error) {
		end, err := s.Shares.Take(ctx)
		if errors.Is(err, context.DeadlineExceeded) {
			return nil, fault.New(fault.Internal, "sheet", "others are looking for a box just now, and this one was broken off; ask again")
		}
		if err != nil {
			return nil, err
		}
		defer end()
		b, err := design.FindBiggest(ctx, in, ask)
		if err == nil && b.Cut {
			err = errShort
		}
		return b, err
	})
}
