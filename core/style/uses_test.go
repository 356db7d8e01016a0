package style

import "testing"

// Every kind of box is made for something, and each use has kinds that are shown under it.
func TestEveryKindIsForSomething(t *testing.T) {
	of := map[Use]int{}
	for _, s := range Boxes() {
		if len(s.For) == 0 {
			t.Errorf("%s is for nothing", s.ID)
		}
		for _, u := range s.For {
			of[u]++
		}
	}
	for _, u := range Uses {
		if of[u] == 0 || u.Words() == "" {
			t.Errorf("%d kinds are for %q, %q", of[u], u, u.Words())
		}
		delete(of, u)
	}
	if len(of) > 0 {
		t.Errorf("what is shown under no row: %v", of)
	}
}
