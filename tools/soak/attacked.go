package main

import (
	"context"
	"fmt"
	"regexp"
	"sync"
	"time"

	"brevium/tools/visit"
)

var classCode = regexp.MustCompile(`/class/\w+`)

// attacked lets one attacker of each kind loose on the server, again after each time that it is
// somewhere else, until the time is up.
func attacked(ctx context.Context, s *server, shared int64) {
	for ctx.Err() == nil {
		at := s.at()
		if at == "" {
			time.Sleep(100 * time.Millisecond)
			continue
		}
		life, stop := context.WithCancel(ctx)
		go func() {
			for life.Err() == nil && s.at() == at {
				time.Sleep(100 * time.Millisecond)
			}
			stop()
		}()
		if err := attack(life, at, shared); err != nil && life.Err() == nil {
			time.Sleep(time.Second) // the disk is full, or the file is locked
		}
		stop()
	}
}

// attack is one life of the server under attack.
func attack(ctx context.Context, at string, shared int64) error {
	as := func(name string) (*visit.Browser, error) {
		b, err := visit.New(at, name)
		if err != nil {
			return nil, err
		}
		return b, b.SignIn(ctx, name)
	}
	steward, err := as("Steward")
	if err != nil {
		return err
	}
	board := fmt.Sprintf("/boxes/%d/class", shared)
	if _, err := steward.Post(ctx, board, "do", "open"); err != nil {
		return err
	}
	page, err := steward.Get(ctx, board)
	if err != nil {
		return err
	}
	all, err := visit.Attacks(at, classCode.FindString(page.Body), as, steward)
	if err != nil {
		return err
	}
	var each sync.WaitGroup
	for _, x := range all {
		each.Go(func() {
			if err := x.Do(ctx); err != nil && ctx.Err() == nil {
				fmt.Printf("%s: %v\n", x.Name, err)
			}
		})
	}
	each.Wait()
	return nil
}
