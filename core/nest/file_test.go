package nest_test

import (
	"encoding/json"
	"strings"
	"testing"

	"brevium/core/fault"
	"brevium/core/nest"
)

const aJob = `{"brevium":1,"method":"nested","sheets":[{"name":"S","width":"20 cm","height":200,"count":null,"cost":1}],"gap":1,
 "pieces":[{"name":"ell","outline":[[0,0],[50,0],[50,50],[100,50],[100,100],[0,100]],"copies":2,"turns":[0,180]},
 {"name":"strip","width":150,"height":"1 in","copies":1,"direction":"one-way-up"},{"name":"tag","width":30,"height":20}]}`

// A job is read with all that may be said of it, and its answer is written.
func TestAJobIsRead(t *testing.T) {
	if !nest.Wants([]byte(aJob)) || nest.Wants([]byte(`{"method":"trimmer"}`)) {
		t.Error("it is not known who lays it")
	}
	j, e, err := nest.ReadJob([]byte(aJob))
	if err != nil || e.Seconds != 1 || j.Gap != 1 || len(j.Pieces) != 3 || len(j.Pieces[0].Turns) != 2 || len(j.Pieces[1].Turns) != 1 || len(j.Pieces[2].Turns) != 4 || j.Pieces[1].Outline[2].Y != 25.4 {
		t.Fatalf("%+v, %+v, %v", j, e, err)
	}
	r := solved(t, j, e)
	text, err := j.JSON(r, 0.5)
	var back struct {
		Sheets []struct {
			Placed []struct {
				Piece      string
				Copy, Turn int
			}
			Offcuts []struct{ Outline [][2]float64 }
		}
		Unplaced []any
	}
	if err != nil || json.Unmarshal(text, &back) != nil || len(back.Sheets) != 1 || len(back.Sheets[0].Placed) != 4 || len(back.Sheets[0].Offcuts) == 0 || back.Unplaced == nil {
		t.Errorf("%s, %v", text, err)
	}
}

// What cannot be laid is refused by its field.
func TestAJobIsRefused(t *testing.T) {
	for change, want := range map[string]string{
		`"gap":1|"gap":4`:                                  "gap",
		`"copies":2|"copies":0`:                            "pieces[0].copies",
		`[0,180]|[0,45]`:                                   "pieces[0].turns",
		`[100,50],[100,100]|[100,100],[90,0]`:              "pieces[0].outline",
		`[50,0],[50,50],[100,50],[100,100],[0,100]|[50,0]`: "pieces[0].outline",
		`"width":150|"width":1500`:                         "pieces[1]",
		`one-way-up|sideways`:                              "pieces[1].direction",
		`"name":"tag"|"name":"strip"`:                      "pieces[2].name",
		`"count":null|"count":0`:                           "sheets[0].count",
		`"height":200|"height":0`:                          "",
		`"brevium":1|"brevium":2`:                          "brevium",
		`"cost":1|"cots":1`:                                "",
	} {
		old, now, _ := strings.Cut(change, "|")
		_, _, err := nest.ReadJob([]byte(strings.Replace(aJob, old, now, 1)))
		if err == nil || want != "" && fault.Of(err).Field != want {
			t.Errorf("%s: %v; want it at %s", change, err, want)
		}
	}
}

func FuzzReadJob(f *testing.F) {
	f.Add([]byte(aJob))
	f.Fuzz(func(t *testing.T, text []byte) {
		j, _, err := nest.ReadJob(text)
		if err != nil {
			if f := fault.Of(err); f.Code == fault.Internal || f.Text == "" {
				t.Errorf("%v is no sentence for people", err)
			}
			return
		}
		if r, err := nest.Solve(t.Context(), j, nest.Effort{Rounds: 1, Seconds: 0.3, Workers: 1}); err == nil && j.Wrong(r) != "" {
			t.Errorf("%s: %s", text, j.Wrong(r))
		}
	})
}
