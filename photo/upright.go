package photo

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
)

// orientation is how a camera was held when it took a JPEG, 1 (upright) to 8, as the tag 0x0112
// of its Exif note says (Exif 2.32, 4.6.4 A); 1 where there is none that can be read.
func orientation(file []byte) int {
	at := 2
	for at+4 <= len(file) && file[at] == 0xff && file[at+1] != 0xda { // until the picture begins
		size := int(binary.BigEndian.Uint16(file[at+2:]))
		end := at + 2 + size
		if size < 2 || end > len(file) {
			return 1
		}
		if note, is := bytes.CutPrefix(file[at+4:end], []byte("Exif\x00\x00")); is && file[at+1] == 0xe1 {
			return tagOf(note)
		}
		at = end
	}
	return 1
}

// tagOf reads the orientation from the first list of tags of a TIFF.
func tagOf(note []byte) int {
	var order binary.ByteOrder = binary.LittleEndian
	switch {
	case len(note) < 8:
		return 1
	case note[0] == 'M':
		order = binary.BigEndian
	}
	from := int64(order.Uint32(note[4:]))
	if from+2 > int64(len(note)) {
		return 1
	}
	n := int64(order.Uint16(note[from:]))
	for i := range n {
		entry := from + 2 + 12*i
		if entry+12 > int64(len(note)) {
			return 1
		}
		if order.Uint16(note[entry:]) == 0x0112 {
			if v := int(order.Uint16(note[entry+8:])); v >= 1 && v <= 8 {
				return v
			}
		}
	}
	return 1
}

// held is a picture seen upright that a camera took held in one of eight ways.
type held struct {
	image.Image
	way int
}

// Bounds are those of the picture upright.
func (h held) Bounds() image.Rectangle {
	b := h.Image.Bounds()
	if h.way >= 5 {
		return image.Rect(0, 0, b.Dy(), b.Dx())
	}
	return image.Rect(0, 0, b.Dx(), b.Dy())
}

// At is a dot of the picture upright.
func (h held) At(x, y int) color.Color {
	b := h.Image.Bounds()
	w, d := b.Dx()-1, b.Dy()-1
	switch h.way {
	case 2:
		x = w - x
	case 3:
		x, y = w-x, d-y
	case 4:
		y = d - y
	case 5:
		x, y = y, x
	case 6:
		x, y = y, d-x
	case 7:
		x, y = w-y, d-x
	case 8:
		x, y = w-y, x
	}
	return h.Image.At(b.Min.X+x, b.Min.Y+y)
}
