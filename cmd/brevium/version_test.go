package main

import (
	"os"
	"os/exec"
	"regexp"
	"strings"
	"testing"

	"brevium/core/style"
)

// One file says the version, and the program, the newest of the changes and what a release
// is called agree with it.
func TestOnePlaceSaysTheVersion(t *testing.T) {
	said := strings.TrimSpace(version)
	if !regexp.MustCompile(`^\d+\.\d+\.\d+$`).MatchString(said) {
		t.Fatalf("the version is %q", said)
	}
	if out, _, _ := run(t, "", "--version"); out != "brevium version "+said+"\n" {
		t.Errorf("--version says %q", out)
	}
	changes := text(t, "../../CHANGELOG.md")
	if newest := regexp.MustCompile(`(?m)^## (.*)$`).FindStringSubmatch(changes); newest == nil || newest[1] != said {
		t.Errorf("the newest of the changes is %q, the version %s", newest, said)
	}
	dry := exec.CommandContext(t.Context(), "make", "--dry-run", "release")
	dry.Dir = "../.."
	steps, err := dry.Output()
	if err != nil {
		t.Fatal(err)
	}
	if !strings.Contains(string(steps), "dist/brevium-"+said+"-linux-amd64") {
		t.Errorf("a release of %s is made so:\n%s", said, steps)
	}
}

// words are the numbers that the README may come to say.
var words = map[string]int{"twenty-three": 23, "twenty-four": 24, "twenty-five": 25, "twenty-six": 26, "twenty-seven": 27, "twenty-eight": 28, "twenty-nine": 29, "thirty": 30, "thirty-one": 31, "thirty-two": 32, "thirty-three": 33, "thirty-four": 34, "thirty-five": 35}

// The README says how many kinds of box there are.
func TestTheReadmeCountsTheKinds(t *testing.T) {
	said := regexp.MustCompile(`There are ([a-z-]+) kinds, each drawn`).FindStringSubmatch(text(t, "../../README.md"))
	if said == nil || words[said[1]] != len(style.Boxes()) {
		t.Errorf("the README says %q kinds; there are %d", said, len(style.Boxes()))
	}
}

func text(t *testing.T, file string) string {
	t.Helper()
	out, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	return string(out)
}
