package reading

import (
	"strings"
	"unicode"
)

// tongue is a language that is read besides English: its words are taken as those of the grammar,
// in the order in which they stand.
type tongue struct {
	// sure are words that no other language here has; where there is one of them the small ones
	// count too, which mean something else in English.
	sure, small map[string]string
	// ends are what long words end with.
	ends map[string]string
	// behind reports whether a word that tells a side comes after it: "le côté long".
	behind bool
}

// tongues are what is read besides English.
var tongues = []tongue{
	{
		sure: words(`cut: schneide schneiden zuschneiden ausschneiden geschnitten zugeschnitten
			score: rille rillen gerillt ritze ritzen geritzt falze falzen gefalzt nute nuten genutet
			fold: falte falten gefaltet
			base: boden unterteil
			lid: deckel oberteil
			box: schachtel schachteln kästchen dose
			tray: schale schälchen tablett
			drawer: schublade schubladen
			sleeve: hülle schuber
			band: banderole
			strip: streifen
			insert: einlage einsatz
			card: karte karton tonkarton tonpapier fotokarton pappe papier
			piece: stück stücke teil teile
			papers: papiere dekorpapiere
			mat: matte matten
			panel: aufleger
			label: etikett
			side: seite kante rand
			sides: seiten kanten ränder
			all: alle allen aller
			each: jede jeder jedem jeden je jeweils
			both: beide beiden beiderseits
			two: zwei
			three: drei
			four: vier
			five: fünf
			six: sechs
			seven: sieben
			eight: acht
			nine: neun
			ten: zehn
			long: lange langen langer längere längeren
			short: kurze kurzen kurzer kürzere kürzeren
			left: links linken
			right: rechts rechten
			top: oben oberen
			bottom: unteren
			from: von vom
			and: und
			by: mal
			turn: drehe drehen gedreht drehst
			repeat: wiederhole wiederholen
			same: gleiche gleichen ebenso genauso dasselbe
			round: rundum rundherum ringsum
			middle: mitte
			with: mit
			glue: klebe kleben geklebt ankleben festkleben
			corners: ecken
			tabs: laschen klebelaschen
			along: entlang
			lengthways: längs
			crossways: quer
			less: weniger kleiner
			more: größer
			sorry: nein entschuldigung sondern
			then: dann danach
			makes: ergibt
			your: dein deine du brauchst für nimm
			inches: zoll`),
		small:  words(`the: die der das den dem des` + "\n" + `a: ein eine einen einem einer` + "\n" + `at: bei an auf im` + "\n" + `bottom: unten`),
		ends:   words("base: boden\nlid: deckel\nbox: schachtel\ncard: karton papier"),
		behind: false,
	},
	{
		sure: words(`cut: couper coupez coupe découper découpez découpe
			score: rainurer rainurez rainure rainurée rainurées rainuré plier pliez plie pli plis pliée plié pliées marquer marquez marquée
			base: fond
			lid: couvercle
			box: boîte boite boîtes
			tray: plateau barquette
			drawer: tiroir
			sleeve: fourreau étui
			band: bande bandes
			card: carte papier cartonnée feuille
			piece: morceau pièce
			papers: papiers
			label: étiquette
			side: côté bord
			sides: côtés bords
			all: tous toutes tout
			each: chaque
			two: deux
			three: trois
			four: quatre
			five: cinq
			eight: huit
			nine: neuf
			ten: dix
			long: grand grands long longs longue
			short: petit petits court courts courte
			left: gauche
			right: droite droit
			top: haut
			bottom: bas
			turn: tourner tournez tourne pivoter pivotez
			repeat: répéter répétez
			same: pareil idem même
			round: autour
			middle: milieu
			with: avec
			glue: coller collez colle
			corners: coins
			tabs: languettes pattes
			less: moins
			sorry: non pardon
			then: puis ensuite
			your: pour votre il faut
			inches: pouces pouce`),
		small:  words("the: le la les\nfrom: de des du\nat: à au aux\nand: et\non: sur\na: un une\nby: par"),
		behind: true,
	},
}

// words are lines of an English word and those that stand for it.
func words(lines string) map[string]string {
	out := map[string]string{}
	for line := range strings.Lines(lines) {
		english, others, _ := strings.Cut(strings.TrimSpace(line), ":")
		for _, w := range strings.Fields(others) {
			out[w] = english
		}
	}
	return out
}

// word is what a word means in a tongue, "" for nothing; small tells whether words count that
// English has as well.
func (x tongue) word(w string, small bool) string {
	if e := x.sure[w]; e != "" {
		return e
	}
	if small && x.small[w] != "" {
		return x.small[w]
	}
	for end, e := range x.ends {
		if strings.HasSuffix(w, end) {
			return e
		}
	}
	return ""
}

// spoken is the tongue that a text is in beside English, nil for none.
func spoken(text string) *tongue {
	best, most := -1, 0
	all := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return !unicode.IsLetter(r) })
	for i, x := range tongues {
		n := 0
		for _, w := range all {
			if x.word(w, false) != "" {
				n++
			}
		}
		if n > most {
			best, most = i, n
		}
	}
	if best < 0 {
		return nil
	}
	return &tongues[best]
}

// translated puts the words of a tongue into those of the grammar; they keep their place in the
// text. "All round" is told by one word in some.
func (x *tongue) translated(in []token) []token {
	var out []token
	for _, t := range in {
		if t.kind != word {
			out = append(out, t)
			continue
		}
		for _, short := range []string{"l'", "l’", "d'", "d’"} {
			if x.behind {
				t.text = strings.TrimPrefix(t.text, short)
			}
		}
		e := x.word(t.text, true)
		if e == "" {
			out = append(out, t)
			continue
		}
		n := len(out)
		switch {
		case e == "round" && (n == 0 || out[n-1].text != "all"):
			all := t
			all.text = "all"
			out = append(out, all)
		case x.behind && (e == "long" || e == "short" || e == "left" || e == "right") && n > 0 && sides[out[n-1].text]:
			side := out[n-1]
			t.text, out[n-1] = e, t
			out[n-1].text = e
			out = append(out, side)
			continue
		case e == "inches" && n > 0 && out[n-1].kind == number && out[n-1].unit == "":
			out[n-1].unit, out[n-1].to = "in", t.to
			continue
		}
		t.text = e
		out = append(out, t)
	}
	return out
}
