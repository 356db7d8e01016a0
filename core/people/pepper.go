package people

import (
	"crypto/hmac"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base32"
	"encoding/base64"
	"strings"
)

// Pepper is a secret of the machine that goes into what passwords are checked against. It is
// kept apart from the data, so that whoever has the data alone, such as a copy, cannot try
// passwords on them.
type Pepper []byte

// pepperBytes is how long one is, and peppered what a hash with it begins with.
const (
	pepperBytes = 32
	peppered    = "p1"
)

// NewPepper makes one.
func NewPepper() Pepper {
	p := make(Pepper, pepperBytes)
	rand.Read(p) // never fails
	return p
}

// Known reports whether it is whole.
func (p Pepper) Known() bool { return len(p) == pepperBytes }

func (p Pepper) mix(password string) string {
	m := hmac.New(sha256.New, p)
	m.Write([]byte(password))
	return base64.RawStdEncoding.EncodeToString(m.Sum(nil))
}

// Hash works out what a password is checked against, with the pepper in it.
func (p Pepper) Hash(password string) string { return peppered + Hash(p.mix(password)) }

// Same reports whether a password is the one of a hash. One that was made without a pepper
// is right too.
func (p Pepper) Same(password, hash string) bool {
	rest, with := strings.CutPrefix(hash, peppered)
	if !with || len(password) > 4*MostPassword {
		return Same(password, hash)
	}
	return Same(p.mix(password), rest)
}

// Peppered reports whether a hash has a pepper in it.
func Peppered(hash string) bool { return strings.HasPrefix(hash, peppered) }

// Sign gives a text with a mark that only this machine makes, for a use: what is signed for
// one use is worth nothing for another.
func (p Pepper) Sign(use, text string) string {
	return base64.RawURLEncoding.EncodeToString([]byte(text)) + "." + base64.RawURLEncoding.EncodeToString(p.mark(use, text))
}

// Signed is the text that was signed for a use; false where it was not, or is another now.
func (p Pepper) Signed(use, signed string) (string, bool) {
	first, second, _ := strings.Cut(signed, ".")
	text, err := base64.RawURLEncoding.DecodeString(first)
	mark, wrong := base64.RawURLEncoding.DecodeString(second)
	return string(text), err == nil && wrong == nil && hmac.Equal(mark, p.mark(use, string(text)))
}

// Secret is a code of so many letters that this machine makes of a text for a use, the same
// again each time, and that nobody finds out who has the text alone.
func (p Pepper) Secret(use, text string, letters int) string {
	return strings.ToLower(base32.StdEncoding.EncodeToString(p.mark(use, text)))[:letters]
}

func (p Pepper) mark(use, text string) []byte {
	m := hmac.New(sha256.New, p)
	m.Write([]byte(use + "\x00" + text))
	return m.Sum(nil)
}
