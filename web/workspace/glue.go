package workspace

import (
	"strings"

	"brevium/core/design"
	"brevium/core/stuff"
	"brevium/web/form"
)

// byBox stands in a form for a joint that is stuck as the box is.
const byBox = "as-the-box"

// glueFields ask what is stuck with at each joint that a maker may choose for, where the box has it.
func glueFields(f *form.Form, r *design.Result) []form.Field {
	if r == nil {
		return nil
	}
	var out []form.Field
	for _, k := range stuff.Joints {
		chosen, set := r.Inputs.Glue[k.Joint]
		if !set && !r.Has(k.Joint) {
			continue
		}
		stored := byBox
		if set {
			stored = string(chosen)
		}
		choices := []form.Choice{{Value: byBox, Label: "as it is usual: " + r.GlueAt(k.Joint).Words}}
		if set {
			choices[0].Label = "as it is usual"
		}
		for _, a := range stuff.Adhesives {
			choices = append(choices, form.Choice{Value: string(a.Glue), Label: a.Words})
		}
		out = append(out, f.ChoiceField("glue."+string(k.Joint), k.Words+" are stuck with", "", stored, choices...))
		if !strings.HasSuffix(k.Words, "s") && k.Joint != stuff.Papers {
			out[len(out)-1].Label = k.Words + " is stuck with"
		}
	}
	return out
}

func readGlue(f *form.Form, in *design.Inputs) {
	for _, k := range stuff.Joints {
		switch g := stuff.Glue(f.Posted.Get("glue." + string(k.Joint))); {
		case g == byBox:
			delete(in.Glue, k.Joint)
		case g != "" && stuff.AdhesiveOf(g).Glue == g:
			in.Glue[k.Joint] = g
		}
	}
}
