package people

import (
	"strings"
	"testing"
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
	for _, no := range []string{"P@ssw0rd1234", "123456789abc", "workshop1234", "summer2026!!!", "Winter 2027 !!", "wrenalder1987", "", "short", "password1234", "Password123456", "qwertyuiop123", "abcabcabcabc", "aaaaaaaaaaaaa", "123456789012", "Wren Alder 1", strings.Repeat("ab", 65), "\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff", "iloveyou 1234!"} {
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

// Names that look alike are told, whatever script or width their letters are of.
func TestNamesThatLookAlike(t *testing.T) {
	for _, c := range []struct {
		a, b  string
		alike bool
	}{
		{"Ash", "\u0410sh", true}, {"Ash", "\uff21\uff53\uff48", true}, {"Will", "WiII", true}, {"Ash", "ash", true}, {"Rowan", "R\u043ewan", true}, {"Rowan", "Row\u200ban", false},
		{"Ash", "Alder", false}, {"Tom", "Tim", false}, {"Rowan", "Rowena", false},
	} {
		if Alike(c.a, c.b) != c.alike {
			t.Errorf("%q and %q look alike: %v", c.a, c.b, !c.alike)
		}
	}
	if got, err := CleanName("\uff21\uff53\uff48"); err != nil || got != "Ash" {
		t.Errorf("of full width: %q, %v", got, err)
	}
	if got, err := CleanName("Row\u200ban"); err == nil {
		t.Errorf("a letter that cannot be seen is kept: %q", got)
	}
}
