package people

import (
	"crypto/rand"
	"crypto/subtle"
	_ "embed"
	"encoding/base64"
	"fmt"
	"strconv"
	"strings"
	"sync"
	"unicode/utf8"

	"github.com/trustelem/zxcvbn"
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

// common are words that a guesser of this workshop's passwords begins with: what it is about,
// and the years and months in which a password is made.
var common = func() []string {
	out := strings.Fields("workshop brevium steward maker guest library winter fair cardstock paper card box boxes gift january february march april june july august september october november december")
	for year := firstYear; year < lastYear; year++ {
		out = append(out, strconv.Itoa(year))
	}
	return out
}()

// The years that people put in a password, and how far one is judged, in letters: the rest
// makes it no easier to guess, and takes long.
const (
	firstYear = 1940
	lastYear  = 2060
	judged    = 40
)

// Strength is how hard a password is to guess, from 0 to 4, for one who knows the person's
// name and what the workshop is about: 3 is more than 10⁸ tries. It is estimated as by
// D. Wheeler, "zxcvbn: low-budget password strength estimation", 2016; marks at its ends,
// which everybody adds, do not count.
func Strength(password, name string) int {
	letters := []rune(password)
	text := string(letters[:min(len(letters), judged)])
	known := append(strings.Fields(name), name, strings.ReplaceAll(name, " ", ""))
	known = append(known, common...)
	bare := strings.Trim(text, " .,-_!?*#@$%&")
	return min(zxcvbn.PasswordStrength(text, known).Score, zxcvbn.PasswordStrength(bare, known).Score)
}

// leastStrength is what a password must have.
const leastStrength = 3

// CheckPassword refuses a new password that is too short or long, or that can be guessed:
// one that is often used, or made of common words, runs of keys, years, or the person's name.
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
	case weak[low], weak[plain], Strength(password, name) < leastStrength:
		return fault.New(fault.Invalid, "password", "this password is too easy to guess; take three or four words that do not belong together")
	}
	return nil
}

// What argon2id is given: 19 MiB, twice over, by one thread; 32 bytes come out.
const (
	hashMemory = 19 << 10 // KiB
	hashTimes  = 2
	hashBytes  = 32
	saltBytes  = 16
)

// Hash works out what a password is checked against, in the usual text form of argon2id.
func Hash(password string) string {
	salt := make([]byte, saltBytes)
	rand.Read(salt) // never fails
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=1$%s$%s", argon2.Version, hashMemory, hashTimes, encode(salt), encode(derive(password, salt, hashTimes, hashMemory)))
}

func encode(b []byte) string { return base64.RawStdEncoding.EncodeToString(b) }

func derive(password string, salt []byte, times, memory uint32) []byte {
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
