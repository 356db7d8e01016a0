package pdf

import "regexp"

// fraction finds a fraction in a number, such as 9/16 in "2 9/16".
var fraction = regexp.MustCompile(`(\d+)/(\d+)`)

// big prints a number large, its fraction as a fraction, and gives where it
// ends.
func (c *canvas) big(x, y, size float64, number string) float64 {
	return c.setBig(x, y, size, number, true)
}

// bigWidth is how wide big prints a number, in mm.
func (c *canvas) bigWidth(number string, size float64) float64 {
	return c.setBig(0, 0, size, number, false)
}

func (c *canvas) setBig(x, y, size float64, number string, print bool) float64 {
	put := func(text string, size, up float64) {
		c.SetFont(family, "B", size)
		if print {
			c.Text(x, y-up, text)
		}
		x += c.GetStringWidth(text)
	}
	const mm = 25.4 / 72 // of a point
	rest := 0
	for _, m := range fraction.FindAllStringSubmatchIndex(number, -1) {
		put(number[rest:m[0]], size, 0)
		put(number[m[2]:m[3]], size*0.55, size*0.32*mm)
		put("⁄", size*0.8, 0)
		put(number[m[4]:m[5]], size*0.55, 0)
		rest = m[1]
	}
	put(number[rest:], size, 0)
	return x
}
