package people

import (
	"crypto/rand"
	"crypto/subtle"
	_ "embed"
	"encoding/base64"
	"fmt"
	"strings"
	"sync"
	"unicode/utf8"

	"golang.org/x/crypto/argon2"

	"brevium/core/fault"
)

// Limits of a password, in letters. Nothing else is asked of it.
const (
	LeastPassword = 12
	MostPassword  = 128
)

//go:embed weak.txt
var weakList string

// weak are passwords that are tried first by those who guess.
var weak = func() map[string]bool {
	out := map[string]bool{}
	for _, w := range strings.Fields(weakList) {
		out[w] = true
	}
	return out
}()

// CheckPassword refuses a new password that is too short or long, is one that is often
// used, or little else than the person's name.
func CheckPassword(password, name string) error {
	n := utf8.RuneCountInString(password)
	low := strings.ToLower(password)
	plain := strings.Map(func(r rune) rune {
		if strings.ContainsRune("0123456789 .,-_!?*#@$%&", r) {
			return -1
		}
		return r
	}, low)
	switch {
	case !utf8.ValidString(password):
		return fault.New(fault.Invalid, "password", "this is no text")
	case n < LeastPassword:
		return fault.New(fault.TooSmall, "password", "a password has at least %d letters; three or four words are easy to keep in mind", LeastPassword)
	case n > MostPassword:
		return fault.New(fault.TooLarge, "password", "a password has up to %d letters", MostPassword)
	case weak[low], weak[plain], repeats(low):
		return fault.New(fault.Invalid, "password", "this password is one of the first that are tried; choose another")
	case name != "" && strings.Contains(low, strings.ToLower(name)) && n-utf8.RuneCountInString(name) < 8:
		return fault.New(fault.Invalid, "password", "this password is little else than your name; choose another")
	}
	return nil
}

// repeats reports whether a text is one to four letters again and again, or a run of the
// keys or the alphabet.
func repeats(text string) bool {
	for k := 1; k <= 4 && k < len(text); k++ {
		if strings.Repeat(text[:k], len(text)/k+1)[:len(text)] == text {
			return true
		}
	}
	for _, run := range []string{"abcdefghijklmnopqrstuvwxyz", "01234567890123456789", "qwertyuiopasdfghjklzxcvbnm", "98765432109876543210"} {
		if strings.Contains(run, text) {
			return true
		}
	}
	return false
}

// What argon2id is given: 19 MiB, twice over, by one thread; 32 bytes come out.
const (
	hashMemory = 19 << 10 // KiB
	hashTimes  = 2
	hashBytes  = 32
	saltBytes  = 16
)

// turn lets few passwords be worked out at once, for each takes memory.
var turn = make(chan struct{}, 4)

// Hash works out what a password is checked against, in the usual text form of argon2id.
func Hash(password string) string {
	salt := make([]byte, saltBytes)
	rand.Read(salt) // never fails
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=1$%s$%s", argon2.Version, hashMemory, hashTimes, encode(salt), encode(derive(password, salt, hashTimes, hashMemory)))
}

func encode(b []byte) string { return base64.RawStdEncoding.EncodeToString(b) }

func derive(password string, salt []byte, times, memory uint32) []byte {
	turn <- struct{}{}
	defer func() { <-turn }()
	return argon2.IDKey([]byte(password), salt, times, memory, 1, hashBytes)
}

// nobody is what a password is checked against where there is no such person, so that it
// takes as long.
var nobody = sync.OnceValue(func() string { return Hash("") })

// Same reports whether a password is the one of a hash; a hash of "" is nobody's.
func Same(password, hash string) bool {
	real := hash != ""
	if !real {
		hash = nobody()
	}
	var version int
	var memory, times uint32
	parts := strings.Split(hash, "$")
	if len(parts) != 6 || parts[1] != "argon2id" || len(password) > 4*MostPassword {
		return false
	}
	if _, err := fmt.Sscanf(parts[2]+" "+parts[3], "v=%d m=%d,t=%d,p=1", &version, &memory, &times); err != nil || version != argon2.Version || memory > 1<<20 || times > 10 {
		return false
	}
	salt, err := base64.RawStdEncoding.DecodeString(parts[4])
	if err != nil {
		return false
	}
	want, err := base64.RawStdEncoding.DecodeString(parts[5])
	if err != nil {
		return false
	}
	return subtle.ConstantTimeCompare(derive(password, salt, times, memory), want) == 1 && real
}
