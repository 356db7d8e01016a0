package main

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"time"

	"brevium/core/people"
	"brevium/store"
	"brevium/store/roster"
)

// doorKey is the file with the pepper of a workshop's passwords, beside the data and in no
// copy of them.
const doorKey = "door.key"

// recoverFor is how long the way in holds that is printed when the file was lost.
const recoverFor = 24 * time.Hour

// pepper reads the file, or makes it at the first start. Where it was lost no password with
// it is right any more: a link for the steward to choose another is printed.
func pepper(ctx context.Context, folder string, boxes *store.Store) (people.Pepper, error) {
	at := filepath.Join(folder, doorKey)
	text, err := os.ReadFile(at)
	if err == nil {
		if p := people.Pepper(text); p.Known() {
			return p, nil
		}
		return nil, fmt.Errorf("%s is not the file that was made here; put the right one back, or take it away for a new one", at)
	}
	if !errors.Is(err, fs.ErrNotExist) {
		return nil, err
	}
	all, err := boxes.Of(ctx).People(ctx)
	if err != nil {
		return nil, err
	}
	for _, x := range all {
		if x.Role != people.Steward || x.Struck || !people.Peppered(x.Hash) {
			continue
		}
		code, err := boxes.Of(ctx).NewCode(ctx, roster.Code{For: roster.ForRecover, Person: x.ID, Until: boxes.Now().Add(recoverFor)})
		if err != nil {
			return nil, err
		}
		fmt.Printf("%s was lost, so that no password is right any more. %s chooses a new one at /join/%s within a day, and makes links for the others.\n", doorKey, x.Name, code.Text)
	}
	p := people.NewPepper()
	if err := os.WriteFile(at, p, 0o600); err != nil { // last: once it is there, no way in is printed
		return nil, fmt.Errorf("the key of the door cannot be kept: %w", err)
	}
	return p, nil
}
