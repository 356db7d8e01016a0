package people

import (
	"fmt"
	"strings"
	"testing"
	"time"
)

func TestRoles(t *testing.T) {
	for _, c := range []struct {
		a, b Role
		ok   bool
	}{{Steward, Maker, true}, {Maker, Steward, false}, {Guest, Guest, true}, {Guest, Maker, false}, {"", Guest, false}, {"queen", Guest, false}, {"", "", false}} {
		if c.a.AtLeast(c.b) != c.ok {
			t.Errorf("a %q is at least a %q: %v", c.a, c.b, !c.ok)
		}
	}
}

func TestNames(t *testing.T) {
	if got, err := CleanName("  Wren \t Alder "); err != nil || got != "Wren Alder" {
		t.Errorf("%q, %v", got, err)
	}
	for _, no := range []string{"", "  ", strings.Repeat("x", 41), "a\u0007b"} {
		if got, err := CleanName(no); err == nil {
			t.Errorf("%q is taken as %q", no, got)
		}
	}
}

func TestPasswords(t *testing.T) {
	for _, no := range []string{"", "short", "password1234", "Password123456", "qwertyuiop123", "abcabcabcabc", "aaaaaaaaaaaaa", "123456789012", "Wren Alder 1", strings.Repeat("ab", 65), "\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff", "iloveyou 1234!"} {
		if err := CheckPassword(no, "Wren Alder"); err == nil {
			t.Errorf("%q is taken", no)
		}
	}
	for _, yes := range []string{"seven kraft sheets", "ünïcödé wörds hére", "a b c d e f g", strings.Repeat("long words ", 11), "Wren Alder likes paper"} {
		if err := CheckPassword(yes, "Wren Alder"); err != nil {
			t.Errorf("%q: %v", yes, err)
		}
	}
	hash := Hash("seven kraft sheets")
	if !Same("seven kraft sheets", hash) || Same("seven kraft sheet", hash) || Same("", hash) || Same("", "") || Same("x", "$argon2id$") || Same("seven kraft sheets", strings.Replace(hash, "t=2", "t=3", 1)) {
		t.Errorf("checked against %s", hash)
	}
	if Hash("seven kraft sheets") == hash || strings.Contains(hash, "kraft") {
		t.Error("two hashes of one password are the same")
	}
}

func TestCodes(t *testing.T) {
	c := NewCode()
	if len(c.Text) != 32 || string(MarkOf(strings.ToUpper(c.Written())+" ")) != string(c.Mark) || string(MarkOf(c.Text[1:])) == string(c.Mark) {
		t.Errorf("%+v, %s", c, c.Written())
	}
	if NewCode().Text == c.Text {
		t.Error("two codes are the same")
	}
}

// By hand: five tries are free, the sixth waits a second, the next two, four, …; another
// address waits for nothing, and an hour later all is forgotten.
func TestGuessingIsSlow(t *testing.T) {
	now := time.Unix(1_000_000, 0)
	x := NewThrottle(func() time.Time { return now })
	for n := range 9 {
		want := time.Duration(0)
		if n >= 5 {
			want = time.Second << (n - 5)
		}
		if got := x.Wait("Wren", "10.0.0.1"); got != want {
			t.Errorf("before try %d one waits %v, not %v", n+1, got, want)
		}
		x.Wrong("wren", "10.0.0.1")
	}
	if x.Wait("Wren", "10.0.0.2") != 0 || x.Wait("Ash", "10.0.0.1") != 0 {
		t.Error("others are kept out")
	}
	x.Right("Wren", "10.0.0.1")
	if x.Wait("Wren", "10.0.0.1") != 0 {
		t.Error("one who is let in still waits")
	}
	for n := range 40 {
		x.Wrong(fmt.Sprint("name ", n), "10.0.0.3")
	}
	if got := x.Wait("any other", "10.0.0.3"); got != longestWait {
		t.Errorf("after forty names one waits %v", got)
	}
	now = now.Add(61 * time.Minute)
	x.Wrong("any other", "10.0.0.3")
	if x.Wait("any other", "10.0.0.3") != 0 {
		t.Error("an hour later it is not forgotten")
	}
	for n := range mostTallies {
		x.Wrong("w", fmt.Sprint(n))
	}
	if len(x.tries) > mostTallies+2 {
		t.Errorf("%d are remembered", len(x.tries))
	}
}
