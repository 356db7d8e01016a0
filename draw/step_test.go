package draw

import (
	"math"
	"slices"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/core/pattern"
	"brevium/core/recipe"
	"brevium/core/style"
)

// What a step shows after it is what the next one of the same piece begins with; the
// last gluing leaves a piece as the pattern folds, its hinged flaps open, the last step of putting together
// the box as it stands open, the last one the box as it is shut.
func TestStepsMoveThePatternOn(t *testing.T) {
	for _, s := range style.Boxes() {
		r, err := design.Make(t.Context(), design.New("x", measure.In, s.ID))
		if err != nil {
			t.Fatal(err)
		}
		m := ModelOf(r, true)
		stands := map[string]float64{}
		begun := map[string]bool{}
		moved := 0
		for _, step := range r.Steps {
			span, moves := SpanOf(r, m, step)
			if !moves {
				continue
			}
			moved++
			if step.Piece == "" && !begun[""] {
				stands[""] = span.From
			}
			if begun[step.Piece] && math.Abs(span.From-stands[step.Piece]) > 1e-9 {
				t.Errorf("%s: %s begins at %v, and %v was left", s.ID, step.Key, span.From, stands[step.Piece])
			}
			begun[step.Piece], stands[step.Piece] = true, span.To
			frames, err := span.Frames(3)
			if err != nil {
				t.Fatal(err)
			}
			if frames[0].Width != frames[2].Width || frames[0].U != frames[2].U {
				t.Errorf("%s: %s: the pictures are not of one size", s.ID, step.Key)
			}
		}
		if moved == 0 {
			t.Errorf("%s: nothing moves", s.ID)
		}
		for piece, at := range stands {
			glued := slices.ContainsFunc(r.Steps, func(x recipe.Step) bool { return x.Kind == recipe.Glue && x.Piece == piece })
			if piece == "" || !glued {
				continue
			}
			solids, err := m.Piece(piece).At(at)
			if err != nil {
				t.Fatal(err)
			}
			i := slices.IndexFunc(r.Parts, func(p design.Part) bool { return p.ID == piece })
			made, err := r.Parts[i].Pattern.Fold(r.Parts[i].Root, func(k int) float64 {
				if c := r.Parts[i].Pattern.Creases[k]; c.Hinge {
					return c.Opened
				}
				return r.Parts[i].Pattern.Creases[k].Angle
			})
			if err != nil {
				t.Fatal(err)
			}
			for k := range made.Faces {
				for _, corner := range made.Faces[k].Polygon {
					far := func(poses []pattern.Pose) float64 {
						return r3.Norm(r3.Sub(poses[0].Place(made.Faces[0].Polygon[0]), poses[k].Place(corner)))
					}
					if d := math.Abs(far(made.Poses) - far(solids[0].Poses)); d > 1e-6 {
						t.Fatalf("%s: the glued %s is not as its pattern folds, by %v mm", s.ID, piece, d)
					}
				}
			}
		}
		if last, moves := SpanOf(r, m, r.Steps[len(r.Steps)-1]); moves && math.Abs(last.To-m.Shut()) > 1e-9 {
			t.Errorf("%s: at the end it stands at %v of %v", s.ID, last.To, m.Shut())
		}
	}
}

// What is lit on a magnified piece is what the step's sentence is about.
func TestWhatIsCutIsLit(t *testing.T) {
	r, err := design.Make(t.Context(), design.New("x", measure.In, "tray"))
	if err != nil {
		t.Fatal(err)
	}
	for _, step := range r.Steps {
		if len(step.Cuts) == 0 {
			continue
		}
		near := Magnified(r, r.Parts[0], step.Cuts)
		if near == nil || near.Width >= r.Parts[0].Pattern.Width.MM() || near.count(Lit) != len(step.Cuts) {
			t.Errorf("%s is not magnified", step.Text)
		}
	}
	if r.Spec.Choices["adhesive"] == "wet-glue" {
		t.Fatal("the usual tray is glued wet")
	}
	pic := Gluing(r, r.Parts[0])
	if n := len(r.Parts[0].Pattern.Glue); pic.count(Backing) != n || pic.count(Press) != 2*n {
		t.Errorf("%d strips and %d rings for %d patches", pic.count(Backing), pic.count(Press), n)
	}
	r.Spec.Choices = map[string]string{"adhesive": "wet-glue"}
	if pic := Gluing(r, r.Parts[0]); pic.count(Backing) != 0 || pic.count(GlueDot) == 0 {
		t.Error("wet glue has a backing")
	}
}
