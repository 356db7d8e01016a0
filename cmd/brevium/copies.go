package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"brevium/store"
)

// database is the file that a data folder holds.
func database(folder string) string { return filepath.Join(folder, "brevium.db") }

func dataFlag(c *cobra.Command) *string {
	return c.Flags().String("data", env("BREVIUM_DATA", "data"), "folder of the database (env BREVIUM_DATA)")
}

func backupCommand() *cobra.Command {
	c := &cobra.Command{
		Use: "backup FILE", Short: "Copy all data to a file, also while Brevium runs", Args: cobra.ExactArgs(1),
	}
	folder, lock := dataFlag(c), passphraseFlag(c, "lock the copy")
	c.RunE = func(c *cobra.Command, args []string) error {
		if err := backupTo(c, database(*folder), args[0], *lock); err != nil {
			return err
		}
		_, err := fmt.Fprintf(c.OutOrStdout(), "All data of %s are in %s.\n", *folder, args[0])
		return err
	}
	return c
}

func restoreCommand() *cobra.Command {
	c := &cobra.Command{
		Use: "restore FILE", Short: "Put a copy in place of all data, also while Brevium runs; what was there is copied first",
		Args: cobra.ExactArgs(1),
	}
	folder, lock := dataFlag(c), passphraseFlag(c, "open a locked copy")
	c.RunE = func(c *cobra.Command, args []string) error {
		from, gone, err := unlockedFrom(c, args[0], *lock)
		if err != nil {
			return err
		}
		defer gone()
		kept, err := restore(c.Context(), *folder, from)
		if err != nil {
			return err
		}
		says := "The copy is in place."
		if kept != "" {
			says = fmt.Sprintf("The copy is in place. What was there before is in %s.", kept)
		}
		_, err = fmt.Fprintln(c.OutOrStdout(), says)
		return err
	}
	return c
}

// restore puts a copy in place and tells where that is kept which was there
// before, "" for nothing.
func restore(ctx context.Context, folder, from string) (kept string, err error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return "", fmt.Errorf("the data folder cannot be made: %w", err)
	}
	file := database(folder)
	lock, err := store.TakeLock(folder, "brevium restore")
	running := errors.Is(err, store.ErrInUse)
	if err != nil && !running {
		return "", err
	}
	if !running {
		defer func() { err = errors.Join(err, lock.Free()) }()
		if info, err := os.Stat(file); err != nil || info.Size() == 0 {
			_, err := store.Replace(ctx, file, from)
			return "", err
		}
	}
	data, err := store.Open(ctx, file)
	said := ""
	if err == nil {
		said, err = data.Check(ctx, false)
	}
	if err != nil || said != "" {
		if data != nil {
			err = errors.Join(err, data.Close())
		}
		if running || errors.Is(err, store.ErrNewer) {
			return "", errors.Join(err, errors.New("the data are damaged: bring the copy back on the page “Your data” of the Brevium that runs on them, or stop it first"))
		}
		return store.Replace(ctx, file, from)
	}
	defer func() { err = errors.Join(err, data.Close()) }()
	name, aside, err := data.Restore(ctx, from)
	if aside != "" {
		return aside, err
	}
	return filepath.Join(folder, "backups", name), err
}

// notEmptied refuses to begin anew where data were: an empty or missing
// database beside copies of it.
func notEmptied(folder string) error {
	if info, err := os.Stat(database(folder)); err == nil && info.Size() > 0 {
		return nil
	}
	copies, err := store.CopiesOf(database(folder))
	if err != nil || len(copies) == 0 {
		return err
	}
	newest := copies[0]
	return fmt.Errorf("%s is gone or empty, but there are copies of it, the newest of %s; bring it back with: brevium restore --data %s %s (or begin anew in another folder with --data)",
		database(folder), newest.Made.Format("2 January 2006, 15:04"), folder, filepath.Join(folder, "backups", newest.Name))
}
