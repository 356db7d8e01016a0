package photo

import (
	"bytes"
	"encoding/base64"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/fault"
)

// chequered is a paper of 6 × 4 squares, dark and light in turn, as a camera that
// is held askew sees it: its corners lie where corners says, in parts of the
// picture.
func chequered(w, h int, corners [4]Corner) *image.RGBA {
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	lies := projection(corners)
	for y := range h {
		for x := range w {
			out.SetRGBA(x, y, color.RGBA{90, 120, 90, 255})
		}
	}
	const fine = 2400
	for j := range fine {
		for i := range fine {
			x, y := (float64(i)+0.5)/fine, (float64(j)+0.5)/fine
			u, v := lies(x, y)
			c := color.RGBA{240, 235, 220, 255}
			if (int(x*6)+int(y*4))%2 == 0 {
				c = color.RGBA{60, 30, 80, 255}
			}
			out.SetRGBA(int(u*float64(w)), int(v*float64(h)), c)
		}
	}
	return out
}

func asPNG(t *testing.T, img image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// A paper photographed askew comes out straight: the squares lie where they do on
// the paper, to a pixel and a half.
func TestStraighten(t *testing.T) {
	corners := [4]Corner{{0.12, 0.08}, {0.93, 0.15}, {0.86, 0.9}, {0.07, 0.82}}
	sent, err := Read(asPNG(t, chequered(1200, 900, corners)))
	if err != nil {
		t.Fatal(err)
	}
	p, err := Straighten(sent.JPEG, corners, 180, 120)
	if err != nil {
		t.Fatal(err)
	}
	if p.Wide != 960 || p.High != 640 || len(p.ID) != 32 || len(p.JPEG) > mostKept {
		t.Fatalf("%d × %d in %d bytes, %q", p.Wide, p.High, len(p.JPEG), p.ID)
	}
	img, err := jpeg.Decode(bytes.NewReader(p.JPEG))
	if err != nil {
		t.Fatal(err)
	}
	dark := func(x, y int) bool { r, _, _, _ := img.At(x, y).RGBA(); return r>>8 < 150 }
	for row := range 4 {
		y := 80 + 160*row
		for k := 1; k < 6; k++ { // where one square meets the next
			at := 0
			for x := 160*k - 20; x < 160*k+20; x++ {
				if dark(x, y) != dark(x+1, y) {
					at = x + 1
				}
			}
			if math.Abs(float64(at-160*k)) > 2 {
				t.Errorf("row %d: the %d. edge is at %d px; want %d", row, k, at, 160*k)
			}
		}
	}
}

// Corners that cross, lie outside or are no numbers, and sizes that are none.
func TestStraightenRefuses(t *testing.T) {
	sent, err := Read(asPNG(t, chequered(200, 200, [4]Corner{{0, 0}, {1, 0}, {1, 1}, {0, 1}})))
	if err != nil {
		t.Fatal(err)
	}
	whole := [4]Corner{{0, 0}, {1, 0}, {1, 1}, {0, 1}}
	for name, c := range map[string]struct {
		corners    [4]Corner
		wide, high float64
	}{
		"crossed":   {[4]Corner{{0, 0}, {1, 1}, {1, 0}, {0, 1}}, 100, 100},
		"backwards": {[4]Corner{{0, 0}, {0, 1}, {1, 1}, {1, 0}}, 100, 100},
		"outside":   {[4]Corner{{-1, 0}, {1, 0}, {1, 1}, {0, 1}}, 100, 100},
		"no number": {[4]Corner{{math.NaN(), 0}, {1, 0}, {1, 1}, {0, 1}}, 100, 100},
		"no width":  {whole, 0, 100},
		"a thread":  {whole, 1, 1000},
		"endless":   {whole, math.Inf(1), 10},
	} {
		if _, err := Straighten(sent.JPEG, c.corners, c.wide, c.high); fault.Of(err).Code != fault.Invalid {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// headOf is a PNG that says it is so large, and has nothing in it.
func headOf(w, h uint32) []byte {
	var b bytes.Buffer
	b.WriteString("\x89PNG\r\n\x1a\n")
	body := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32([]byte("IHDR"), w), h)
	body = append(body, 8, 2, 0, 0, 0)
	binary.Write(&b, binary.BigEndian, uint32(13))
	b.Write(body)
	binary.Write(&b, binary.BigEndian, crc32.ChecksumIEEE(body))
	return b.Bytes()
}

// tinyWebP is a WebP of one red dot.
const tinyWebP = "UklGRiIAAABXRUJQVlA4IBYAAAAwAQCdASoBAAEADsD+JaQAA3AAAAAA"

// smallWebP is one of 24 × 18 dots.
const smallWebP = "UklGRnoAAABXRUJQVlA4IG4AAADQBACdASoYABIAPqlAm0mxo6KhN/qoAjAVCWgAnTKEdQDR7AAzHEA9kobYD7gwgAD+95dvewJVnb3Rxfd3gFPPm8dOM5YqCOf65j2/dhVE/UUOuFDRJyoq/E1n+7Sy08VorfS3p/1VBwTIWwAAAA=="

func TestReadWebP(t *testing.T) {
	webp, err := base64.StdEncoding.DecodeString(smallWebP)
	if err != nil {
		t.Fatal(err)
	}
	if p, err := Read(webp); err != nil || p.Wide != 24 || p.High != 18 {
		t.Errorf("%d × %d, %v", p.Wide, p.High, err)
	}
}

func TestReadRefuses(t *testing.T) {
	good := asPNG(t, chequered(300, 200, [4]Corner{{0, 0}, {1, 0}, {1, 1}, {0, 1}}))
	webp, err := base64.StdEncoding.DecodeString(tinyWebP)
	if err != nil {
		t.Fatal(err)
	}
	for name, c := range map[string]struct {
		sent []byte
		code fault.Code
		says string
	}{
		"nothing":        {nil, fault.Empty, "Choose a picture"},
		"text":           {[]byte("dear maker"), fault.NotAPicture, "no picture"},
		"SVG and script": {[]byte(`<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>`), fault.NotAPicture, "no picture"},
		"GIF":            {[]byte("GIF89a\x10\x00\x10\x00\x00\x00\x00;"), fault.NotAPicture, "no picture"},
		"huge header":    {headOf(30_000, 30_000), fault.TooLarge, "30000 × 30000"},
		"long header":    {headOf(25_000, 20), fault.TooLarge, "dots"},
		"cut off":        {good[:len(good)/2], fault.NotAPicture, "breaks off"},
		"only a head":    {headOf(300, 300), fault.NotAPicture, "breaks off"},
		"a dot":          {webp, fault.TooSmall, "1 × 1"},
		"9 MB":           {append(bytes.Clone(good), make([]byte, 9<<20)...), fault.TooLarge, "8 MB"},
	} {
		_, err := Read(c.sent)
		if f := fault.Of(err); err == nil || f.Code != c.code || !strings.Contains(f.Text, c.says) {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// withEXIF is a JPEG with a note that the camera was turned a quarter.
func withEXIF(t *testing.T, img image.Image, orientation byte) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, nil); err != nil {
		t.Fatal(err)
	}
	tiff := []byte("MM\x00*\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00" + string(orientation) + "\x00\x00\x00\x00\x00\x00")
	note := append([]byte("Exif\x00\x00"), tiff...)
	segment := append([]byte{0xff, 0xe1, byte((len(note) + 2) >> 8), byte(len(note) + 2)}, note...)
	return joined(b.Bytes()[:2], segment, b.Bytes()[2:])
}

func joined(all ...[]byte) []byte { return bytes.Join(all, nil) }

// A picture is turned as the camera noted, and nothing but its dots is kept.
func TestReadTurnsAndStrips(t *testing.T) {
	img := image.NewRGBA(image.Rect(0, 0, 60, 30))
	for y := range 30 {
		for x := range 60 {
			img.SetRGBA(x, y, color.RGBA{uint8(x * 4), 40, 40, 255}) // bright on the right
		}
	}
	p, err := Read(withEXIF(t, img, 6)) // to be turned a quarter with the clock
	if err != nil {
		t.Fatal(err)
	}
	if p.Wide != 30 || p.High != 60 || bytes.Contains(p.JPEG, []byte("Exif")) {
		t.Fatalf("%d × %d, Exif kept: %v", p.Wide, p.High, bytes.Contains(p.JPEG, []byte("Exif")))
	}
	out, err := jpeg.Decode(bytes.NewReader(p.JPEG))
	if err != nil {
		t.Fatal(err)
	}
	top, _, _, _ := out.At(15, 3).RGBA()
	foot, _, _, _ := out.At(15, 56).RGBA()
	if top >= foot {
		t.Error("the right side of the picture is not its foot")
	}
}

// By hand: of the eight ways to hold a camera each brings the dot that was at the top left of
// the scene back there, in either order of bytes; a note that breaks off anywhere is none.
func TestEveryWayToHoldACamera(t *testing.T) {
	// Where the top left of the scene lies in the file of 3 × 2 dots, by the tag.
	lies := map[byte]image.Point{1: {0, 0}, 2: {2, 0}, 3: {2, 1}, 4: {0, 1}, 5: {0, 0}, 6: {0, 1}, 7: {2, 1}, 8: {2, 0}}
	for way, at := range lies {
		img := image.NewRGBA(image.Rect(0, 0, 3, 2))
		img.Set(at.X, at.Y, color.White)
		file := withEXIF(t, img, way)
		if got := orientation(file); got != int(way) {
			t.Errorf("held in way %d it reads %d", way, got)
		}
		up := held{img, int(way)}
		if want := image.Pt(3, 2); way >= 5 && up.Bounds().Max != image.Pt(2, 3) || way < 5 && up.Bounds().Max != want {
			t.Errorf("way %d is seen %v", way, up.Bounds())
		}
		if r, _, _, _ := up.At(0, 0).RGBA(); r == 0 {
			t.Errorf("way %d: the top left is elsewhere", way)
		}
		for cut := range len(file) {
			if got := orientation(file[:cut]); got != 1 && got != int(way) {
				t.Fatalf("cut after %d bytes it reads %d", cut, got)
			}
		}
	}
	little := []byte("\xff\xd8\xff\xe1\x00\x1eExif\x00\x00II*\x00\x08\x00\x00\x00\x01\x00\x12\x01\x03\x00\x01\x00\x00\x00\x06\x00")
	if got := orientation(append(little, 0, 0, 0xff, 0xda)); got != 6 {
		t.Errorf("in the other order of bytes it reads %d", got)
	}
}

// What is large is kept small; what has an id keeps it.
func TestReadMakesSmall(t *testing.T) {
	p, err := Read(asPNG(t, chequered(3000, 2000, [4]Corner{{0, 0}, {1, 0}, {1, 1}, {0, 1}})))
	if err != nil || p.Wide != 1600 || len(p.JPEG) > 1<<20 {
		t.Fatalf("%d × %d in %d bytes, %v", p.Wide, p.High, len(p.JPEG), err)
	}
	again, err := Again(p.ID, p.JPEG)
	if err != nil || again.ID != p.ID || again.Wide != p.Wide {
		t.Errorf("%+v, %v", again.ID, err)
	}
	if _, err := Again("../etc", p.JPEG); err == nil {
		t.Error("a path was taken for an id")
	}
}

// Noise, which no JPEG makes small, is refused or still small enough.
func TestNoiseStaysSmall(t *testing.T) {
	img := image.NewRGBA(image.Rect(0, 0, 900, 900))
	r := rand.New(rand.NewPCG(1, 2))
	for i := range img.Pix {
		img.Pix[i] = uint8(r.Uint32())
	}
	p, err := Read(asPNG(t, img))
	if err != nil {
		t.Fatal(err)
	}
	p, err = Straighten(p.JPEG, [4]Corner{{0, 0}, {1, 0}, {1, 1}, {0, 1}}, 100, 100)
	if err == nil && len(p.JPEG) > mostKept || err != nil && fault.Of(err).Code != fault.TooLarge {
		t.Errorf("%d bytes, %v", len(p.JPEG), err)
	}
}

func FuzzRead(f *testing.F) {
	f.Add(headOf(40, 40))
	f.Add([]byte("RIFF\x00\x00\x00\x00WEBPVP8 "))
	f.Add([]byte{0xff, 0xd8, 0xff, 0xe1, 0, 4, 'E', 'x'})
	f.Fuzz(func(t *testing.T, sent []byte) {
		if p, err := Read(sent); err == nil && (p.Wide > workSide || p.High > workSide || len(p.JPEG) == 0) {
			t.Errorf("%d × %d", p.Wide, p.High)
		}
	})
}
