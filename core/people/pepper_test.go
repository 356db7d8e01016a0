package people

import "testing"

// A password is right with the pepper it was hashed with alone; one that was hashed without
// any stays right.
func TestPepper(t *testing.T) {
	p, other := NewPepper(), NewPepper()
	const password = "seven kraft sheets"
	hash := p.Hash(password)
	if !p.Same(password, hash) || p.Same("seven kraft sheet", hash) || other.Same(password, hash) || Same(password, hash) || p.Same("", "") {
		t.Error("a password is right or wrong where it is not")
	}
	if plain := Hash(password); !p.Same(password, plain) || Peppered(plain) || !Peppered(hash) {
		t.Error("one without a pepper is wrong")
	}
	if p.Same(string(make([]byte, 5*MostPassword)), hash) || Pepper("short").Known() || !p.Known() {
		t.Error("what is too long or too short is taken")
	}
}
