package store

import (
	"bytes"
	"io"
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/store/copies"
)

// What is locked is read by its passphrase alone, and only whole.
func TestLockedCopies(t *testing.T) {
	const pass, text = "seven kraft sheets", "all the boxes of the winter fair"
	var file bytes.Buffer
	if err := copies.LockCopy(&file, strings.NewReader(strings.Repeat(text, 5000)), pass); err != nil {
		t.Fatal(err)
	}
	if !copies.Locked(file.Bytes()) || copies.Locked([]byte("SQLite format 3\x00")) || bytes.Contains(file.Bytes(), []byte(text)) {
		t.Error("it is not locked, or does not say so")
	}
	read := func(file []byte, pass string) (string, error) {
		r, err := copies.UnlockCopy(bytes.NewReader(file), pass)
		if err != nil {
			return "", err
		}
		out, err := io.ReadAll(r)
		return string(out), err
	}
	if got, err := read(file.Bytes(), pass); err != nil || got != strings.Repeat(text, 5000) {
		t.Errorf("%d bytes are read back, %v", len(got), err)
	}
	changed := bytes.Clone(file.Bytes())
	changed[len(changed)/2] ^= 1
	for name, c := range map[string]struct {
		file []byte
		pass string
		code fault.Code
	}{
		"another passphrase": {file.Bytes(), "seven kraft sheet", fault.Invalid},
		"none":               {file.Bytes(), "", fault.Empty},
		"cut short":          {file.Bytes()[:file.Len()-100], pass, fault.Unreadable},
		"changed":            {changed, pass, fault.Unreadable},
		"a mark alone":       {[]byte(copies.LockedMark), pass, fault.Invalid},
		"work without end":   {[]byte(copies.LockedMark + "-> scrypt AAAAAAAAAAAAAAAAAAAAAA 30\nAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA\n--- AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA\n"), pass, fault.Invalid},
	} {
		if _, err := read(c.file, c.pass); err == nil || fault.Of(err).Code != c.code {
			t.Errorf("%s: %v", name, err)
		}
	}
}
