package copies

import (
	"bufio"
	"bytes"
	"errors"
	"io"
	"os"

	"filippo.io/age"

	"brevium/core/fault"
)

// LockedMark begins a file that is locked, in the form of age-encryption.org, version 1; other
// programs that know the form open it too.
const LockedMark = "age-encryption.org/v1\n"

// lockWork is how long a passphrase takes to try, as a power of two: 64 MiB and some tenths of a
// second.
const lockWork = 16

// LockCopy writes what is read so that nobody reads it without the passphrase.
func LockCopy(to io.Writer, from io.Reader, passphrase string) error {
	key, err := age.NewScryptRecipient(passphrase)
	if err != nil {
		return err
	}
	key.SetWorkFactor(lockWork)
	w, err := age.Encrypt(to, key)
	if err != nil {
		return err
	}
	if _, err := io.Copy(w, from); err != nil {
		return err
	}
	return w.Close()
}

// LockFile writes a file so that nobody reads it without the passphrase.
func LockFile(to io.Writer, file, passphrase string) error {
	plain, err := os.Open(file)
	if err != nil {
		return err
	}
	return errors.Join(LockCopy(to, plain, passphrase), plain.Close())
}

// WritePlain writes a copy to a new file as it can be read, unlocked where it is locked. A fault is
// at the passphrase, or at the file where that is not whole.
func WritePlain(from io.Reader, file, passphrase string) error {
	begins := bufio.NewReader(from)
	first, err := begins.Peek(len(LockedMark))
	if err != nil && !errors.Is(err, io.EOF) {
		return fault.New(fault.Unreadable, "file", "This file cannot be read. Nothing was changed.")
	}
	plain := io.Reader(begins)
	if Locked(first) {
		if plain, err = UnlockCopy(begins, passphrase); err != nil {
			return err
		}
	}
	out, err := os.OpenFile(file, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	if _, err = io.Copy(out, plain); err != nil {
		out.Close()
		return err
	}
	return out.Close()
}

// Locked reports whether a file that begins so is locked.
func Locked(begins []byte) bool { return bytes.HasPrefix(begins, []byte(LockedMark)) }

// UnlockCopy reads what was locked. The fault is at the passphrase where that is not right; one at
// the file is given while it is read, where that was cut short or changed.
func UnlockCopy(from io.Reader, passphrase string) (io.Reader, error) {
	if passphrase == "" {
		return nil, fault.New(fault.Empty, "passphrase", "This copy is locked: give its passphrase. Nothing was changed.")
	}
	key, err := age.NewScryptIdentity(passphrase)
	if err != nil {
		return nil, err
	}
	key.SetMaxWorkFactor(lockWork)
	r, err := age.Decrypt(from, key)
	if err != nil {
		return nil, fault.New(fault.Invalid, "passphrase", "This is not the passphrase of this copy, or it is no copy. Nothing was changed.")
	}
	return unlocking{r}, nil
}

// unlocking says in a sentence that a locked file is not whole.
type unlocking struct{ r io.Reader }

func (u unlocking) Read(b []byte) (int, error) {
	n, err := u.r.Read(b)
	if err != nil && !errors.Is(err, io.EOF) {
		err = fault.New(fault.Unreadable, "file", "This copy is cut short or was changed. Nothing was changed here.")
	}
	return n, err
}
