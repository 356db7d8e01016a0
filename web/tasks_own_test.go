package web_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"

	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/core/sample"
	"brevium/web/webtest"
)

// How much patience makers have for what others ask to be done with a thing of their own.
const (
	actionsForABottle = 15
	actionsForAnInset = 15
	actionsForABand   = 25
)

// Somebody has a bottle: it gets a box that is tall enough, and its numbers.
func TestTaskABottle(t *testing.T) {
	t.Parallel()
	for way, u := range unitsOf {
		if !sample.Other(1, way) {
			continue
		}
		t.Run(u.name, func(t *testing.T) {
			x := webtest.NewTable(t)
			h := newHand(t, x, 1280, 800)
			h.visit("/")
			h.inUnit(u.button)
			h.press("link", "From what goes in")
			h.write("What is it?", "Bottle")
			h.pick("Shape", "round")
			sizes := map[measure.Unit][2]string{measure.In: {"3", "12 1/4"}, measure.CM: {"7.5", "31"}}[u.unit]
			h.write("Across", sizes[0])
			h.write("Height", sizes[1])
			h.write("How many", "1")
			h.press("button", "Make this box")
			h.press("link", "6 Making")
			h.press("DisclosureTriangle", "Print")
			h.find("link", "Instruction sheet on")
			h.within(actionsForABottle)
			in := x.Box(1).Inputs
			if len(in.Things) != 1 || in.Things[0].Shape != contents.Round || in.Style != "tall-box" {
				t.Errorf("a %s for %+v", in.Style, in.Things)
			}
		})
	}
}

// Somebody has a box, and wants a floor with holes in it.
func TestTaskAnInsetForABoxOneHas(t *testing.T) {
	t.Parallel()
	for way, u := range unitsOf {
		if !sample.Other(1, way) {
			continue
		}
		t.Run(u.name, func(t *testing.T) {
			x := webtest.NewTable(t)
			h := newHand(t, x, 1280, 800)
			h.visit("/")
			h.inUnit(u.button)
			h.press("link", "For a box you have")
			h.press("radio", "False floor")
			sizes := map[measure.Unit][2]string{measure.In: {"7 1/2", "5"}, measure.CM: {"19", "12.6"}}[u.unit]
			h.write("Inside length", sizes[0])
			h.write("Inside width", sizes[1])
			h.press("button", "Make this box")
			h.press("link", "6 Making")
			h.press("DisclosureTriangle", "Print")
			h.find("link", "Templates on")
			h.within(actionsForAnInset)
			if in := x.Box(1).Inputs; in.Style != "insert" {
				t.Errorf("made a %s", in.Style)
			}
		})
	}
}

// Somebody photographs a paper of theirs, and puts a band of it round a box.
func TestTaskABandOfOnesOwnPaper(t *testing.T) {
	t.Parallel()
	x := webtest.NewTable(t)
	x.JarBox()
	file := filepath.Join(t.TempDir(), "meadow.png")
	if err := os.WriteFile(file, webtest.PaperPicture(t, 1), 0o600); err != nil {
		t.Fatal(err)
	}
	h := newHand(t, x, 1280, 800)
	h.visit("/")
	h.press("link", "Drawer")
	h.press("link", "photograph")
	h.do(chromedp.SetUploadFiles(`#picture-file`, []string{file}))
	h.actions += 2 // the window in which one finds it, and the file
	h.press("button", "Next: straighten it")
	h.write("How wide", "6")
	h.write("How high", "4 1/2")
	h.write("What do you call it?", "Meadow")
	h.press("button", "Put it in the drawer")
	h.press("link", "Boxes")
	h.press("link", "Open Jars")
	h.press("link", "4 Papers on top")
	h.press("button", "Put a band round it")
	h.press("DisclosureTriangle", "choose another")
	h.press("button", "Meadow")
	h.until(`document.querySelector("#picture image, #picture pattern image") !== null`)
	h.within(actionsForABand)
	in := x.Box(1).Inputs
	if len(in.Bands) != 1 || in.Bands[0].Card == nil || in.Bands[0].Card.Look.Photo.ID == "" {
		t.Errorf("the band is %+v", in.Bands)
	}
}
