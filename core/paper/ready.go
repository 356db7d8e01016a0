package paper

import "brevium/core/measure"

// Ready are cards and papers to begin with, where the drawer has none: their looks
// are those of their names.
var Ready = []Card{
	ready("Snow card", 240, 300, Plain), ready("Kraft card", 280, 350, Fleck), ready("Plum card", 240, 300, Plain),
	ready("Pine card", 240, 300, Plain), ready("Navy card", 240, 300, Plain), ready("Red card", 240, 300, Plain),
	ready("Star paper", 120, 150, Stars), ready("Sprig paper", 120, 150, Sprigs), ready("Gingham paper", 120, 150, Gingham),
	ready("Striped paper", 120, 150, Stripes), ready("Dotted paper", 120, 150, Dots), ready("Tartan paper", 120, 150, Tartan),
	ready("Wave paper", 120, 150, Waves), ready("Diamond paper", 120, 150, Diamonds), Flocked,
}

// Flocked is paper with a nap, for the inside of a box.
var Flocked = ready("Flocked paper, wine", 160, 400, Plain)

func ready(name string, gsm float64, micrometres measure.Length, print Print) Card {
	return Card{Name: name, GSM: gsm, Thickness: micrometres * measure.Micrometre, Direction: print.Direction()}
}
