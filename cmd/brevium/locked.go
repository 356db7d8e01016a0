package main

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"brevium/core/fault"
	"brevium/core/people"
	"brevium/store"
	"brevium/store/copies"
)

func passphraseFlag(c *cobra.Command, what string) *string {
	return c.Flags().String("passphrase-file", "", "file whose first line is a passphrase to "+what+" with; - for standard input")
}

// passphraseOf is the first line of a file, or of standard input.
func passphraseOf(c *cobra.Command, name string) (string, error) {
	var from io.Reader = c.InOrStdin()
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return "", err
		}
		defer f.Close()
		from = f
	}
	line, err := bufio.NewReader(io.LimitReader(from, 4*people.MostPassword)).ReadString('\n')
	if err != nil && !errors.Is(err, io.EOF) {
		return "", err
	}
	return strings.TrimRight(line, "\r\n"), nil
}

// backupTo copies all data to a file, locked where a passphrase is given.
func backupTo(c *cobra.Command, data, to, lock string) error {
	if lock == "" {
		return store.BackupFile(c.Context(), data, to)
	}
	passphrase, err := passphraseOf(c, lock)
	if err != nil {
		return err
	}
	if err := people.CheckPassword(passphrase, ""); err != nil {
		return fmt.Errorf("the passphrase: %w", err)
	}
	folder, err := os.MkdirTemp("", "brevium-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	plain := filepath.Join(folder, "brevium.db")
	if err := store.BackupFile(c.Context(), data, plain); err != nil {
		return err
	}
	made := to + ".part"
	out, err := os.OpenFile(made, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	defer os.Remove(made) // gone when all went well
	if err := errors.Join(copies.LockFile(out, plain, passphrase), out.Sync(), out.Close()); err != nil {
		return err
	}
	return os.Rename(made, to)
}

// unlockedFrom is a file in which a copy can be read, which gone takes away.
func unlockedFrom(c *cobra.Command, name, lock string) (file string, gone func(), err error) {
	in, err := os.Open(name)
	if err != nil {
		return "", nil, err
	}
	defer in.Close()
	passphrase := ""
	if lock != "" {
		if passphrase, err = passphraseOf(c, lock); err != nil {
			return "", nil, err
		}
	}
	folder, err := os.MkdirTemp("", "brevium-")
	if err != nil {
		return "", nil, err
	}
	file = filepath.Join(folder, "brevium.db")
	if err := copies.WritePlain(in, file, passphrase); err != nil {
		if passphrase == "" && fault.Of(err).Code == fault.Empty {
			err = errors.New("this copy is locked: give its passphrase by --passphrase-file")
		}
		return "", nil, errors.Join(err, os.RemoveAll(folder))
	}
	return file, func() { os.RemoveAll(folder) }, nil
}
