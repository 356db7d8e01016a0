package form

import (
	"strings"

	"brevium/core/fault"
	"brevium/core/measure"
	"brevium/core/tool"
)

// reaches stands in a list of punches before how far in one gets.
const reaches = " reach "

func (f *Form) punchesText(all []tool.Punch) string {
	return listText(all, func(p tool.Punch) string {
		if p.Reach == 0 {
			return measure.Field(p.Across, f.Unit)
		}
		return measure.Field(p.Across, f.Unit) + reaches + measure.Field(p.Reach, f.Unit)
	})
}

func (f *Form) diesText(all []tool.Die) string {
	return listText(all, func(d tool.Die) string {
		return measure.Field(d.Width, f.Unit) + " × " + measure.Field(d.Height, f.Unit)
	})
}

// ToolFields ask for what is owned to punch, round and cut out shapes with.
func (f *Form) ToolFields(o tool.Owned) []Field {
	examples := map[bool][3]string{
		true:  {"such as 1/8; 1/4 reach 1; 3/4 reach 1 1/2", "the radii, such as 1/4; 3/8", "such as 2 × 2; 3 × 1 1/2"},
		false: {"such as 3; 6 reach 25; 20 reach 40", "the radii, such as 6; 10", "such as 50 × 50; 75 × 40"},
	}[f.Unit == measure.In]
	if f.Unit == measure.CM {
		examples = [3]string{"such as 0.3; 0.6 reach 2.5; 2 reach 4", "the radii, such as 0.6; 1", "such as 5 × 5; 7.5 × 4"}
	}
	return []Field{
		f.Control("tools.punches", "Punches: holes across", examples[0]+"; reach is how far from the edge it gets", f.punchesText(o.Punches)),
		f.Control("tools.rounders", "Corner rounders", examples[1], f.LengthsText(o.Rounders)),
		f.Control("tools.dies", "Dies and shape punches", examples[2], f.diesText(o.Dies)),
		f.LengthField("tools.circles.from", "Circle cutter, smallest", "across; 0 is none", o.Circles.From),
		f.LengthField("tools.circles.to", "largest", "across", o.Circles.To),
	}
}

// ReadTools reads what ToolFields ask for.
func (f *Form) ReadTools(o *tool.Owned) {
	readList(f, "tools.punches", f.punchesText(o.Punches), &o.Punches, func(text string) (p tool.Punch, err error) {
		across, reach, deep := strings.Cut(" "+text, reaches)
		if p.Across, err = measure.Parse(across, f.Unit); err == nil && deep {
			p.Reach, err = measure.Parse(reach, f.Unit)
		}
		return p, err
	})
	f.Lengths("tools.rounders", &o.Rounders)
	readList(f, "tools.dies", f.diesText(o.Dies), &o.Dies, func(text string) (d tool.Die, err error) {
		wide, high, both := strings.Cut(strings.NewReplacer("x", "×", "X", "×").Replace(text), "×")
		if !both {
			return d, fault.New(fault.UnknownShape, "", "write what it cuts as width × height, such as 2 × 2; %q is not", text)
		}
		if d.Width, err = measure.Parse(wide, f.Unit); err == nil {
			d.Height, err = measure.Parse(high, f.Unit)
		}
		return d, err
	})
	f.Length("tools.circles.from", &o.Circles.From)
	f.Length("tools.circles.to", &o.Circles.To)
}
