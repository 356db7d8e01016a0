package desk

import (
	"brevium/core/people"
)

// What codes that are shown again and again are for: classes and links to boxes.
const (
	ClassUse = "class"
	LinkUse  = "link"
)

// codeLetters is how long such a code is: 80 bits.
const codeLetters = 16

// NewSeed is what a code is made of, with its mark. Seed and mark alone give no code: it takes
// the machine's secret to make it of the seed, and the mark only tells one that is shown.
func (d Desk) NewSeed(use string) (seed string, mark []byte) {
	seed = people.NewCode().Text
	return seed, people.MarkOf(d.CodeOfSeed(use, seed))
}

// CodeOfSeed is the code that a seed is shown as.
func (d Desk) CodeOfSeed(use, seed string) string {
	return d.Pepper.Secret(use, seed, codeLetters)
}
