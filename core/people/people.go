// Package people is who may do what in a workshop: persons and their roles, passwords,
// one-time codes, and how guessing is slowed down. It keeps nothing; the store does.
package people

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base32"
	"strings"
	"time"
	"unicode"

	"github.com/mtibben/confusables"
	"golang.org/x/text/secure/precis"
	"golang.org/x/text/unicode/norm"

	"brevium/core/fault"
)

// Role is what a person may do.
type Role string

// A steward may do everything, and lets others in; a maker works; a guest looks on.
const (
	Steward Role = "steward"
	Maker   Role = "maker"
	Guest   Role = "guest"
)

// Roles are all of them, the one with the most rights first.
var Roles = []Role{Steward, Maker, Guest}

// rank of a role; a stranger has none.
var rank = map[Role]int{Guest: 1, Maker: 2, Steward: 3}

// AtLeast reports whether a role has the rights of another.
func (r Role) AtLeast(other Role) bool { return rank[r] > 0 && rank[r] >= rank[other] }

// Known reports whether it is a role.
func (r Role) Known() bool { return rank[r] > 0 }

// Person is somebody who is let in.
type Person struct {
	ID    int64
	Name  string
	Role  Role
	Since time.Time
	Seen  time.Time // signed in last
	// Struck is one who is not let in any more.
	Struck bool
	// Place is the table they sit at, whose drawer and cupboard they share with all who sit
	// there; "" is the workshop's own.
	Place string
	// Hash is what the password is checked against, and Epoch counts what ends all
	// sessions: a new password, signing out everywhere, being struck.
	Hash  string
	Epoch int64
}

type key struct{}

// With gives a context of what a person does.
func With(ctx context.Context, p Person) context.Context { return context.WithValue(ctx, key{}, p) }

// Of is the person that a context is of; one without a name where nobody signed in, as
// where one maker works alone.
func Of(ctx context.Context) Person {
	p, _ := ctx.Value(key{}).(Person)
	return p
}

// mostName is how long a name may be, in letters.
const mostName = 40

// CleanName gives a name as it is kept: one to forty letters in one line, single spaces
// between words, letters of full width and the like as plain ones (RFC 8266).
func CleanName(text string) (string, error) {
	name := strings.Join(strings.Fields(text), " ")
	switch {
	case name == "":
		return "", fault.New(fault.Empty, "name", "give a name")
	case len([]rune(name)) > mostName:
		return "", fault.New(fault.TooLarge, "name", "a name has up to %d letters", mostName)
	}
	name, err := precis.Nickname.String(name)
	if err != nil || strings.ContainsFunc(name, func(r rune) bool { return !unicode.IsPrint(r) }) {
		return "", fault.New(fault.Invalid, "name", "a name is made of letters that can be seen")
	}
	return name, nil
}

// Alike reports whether two names look the same to a reader though their letters differ, such
// as a Cyrillic А and a Latin A (Unicode TS 39, skeletons).
func Alike(a, b string) bool { return looks(a) == looks(b) }

func looks(name string) string {
	return strings.ToLower(confusables.Skeleton(strings.ToLower(confusables.Skeleton(norm.NFKC.String(name)))))
}

// Code is a one-time code: what is given away, and what is kept to know it by.
type Code struct {
	Text string
	Mark []byte
}

// codeBytes is how much chance is in a code: 160 bits cannot be guessed.
const codeBytes = 20

// NewCode makes a code.
func NewCode() Code {
	b := make([]byte, codeBytes)
	rand.Read(b) // never fails
	text := strings.ToLower(base32.StdEncoding.EncodeToString(b))
	return Code{text, MarkOf(text)}
}

// MarkOf is what a code is known by: strokes, spaces and capitals do not matter.
func MarkOf(text string) []byte {
	text = strings.ToLower(strings.Map(func(r rune) rune {
		if r == '-' || unicode.IsSpace(r) {
			return -1
		}
		return r
	}, text))
	sum := sha256.Sum256([]byte(text))
	return sum[:]
}

// Written is a code in groups, to be read from a screen and typed.
func (c Code) Written() string {
	var out []string
	for at := 0; at < len(c.Text); at += 4 {
		out = append(out, c.Text[at:min(at+4, len(c.Text))])
	}
	return strings.Join(out, "-")
}
