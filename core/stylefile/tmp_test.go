package stylefile

import (
	"encoding/json"
	"fmt"
	"math"
	"testing"
)

func TestTmp(t *testing.T) {
	for _, flapTo := range []bool{false, true} {
		const n, w, r, deep, flap = 4, 15.0, 5.0, 40.0, 20.0
		S, T := math.Sin(math.Pi/4), 1.0
		var into, folds []any
		var cols []string
		y := func(i int) float64 { u := float64(i) / n; return 4 * r * u * (1 - u) }
		s := func(i int) float64 { return (y(i+1) - y(i)) / w * T }
		cells := ""
		_ = into
		var div []any
		for i := range n {
			cols = append(cols, fmt.Sprint(w))
			cells += fmt.Sprintf(" c%d", i)
			f := func(v float64) string { return fmt.Sprint(v / (deep + flap)) }
			a, b := f(deep-y(i)), f(deep-y(i+1))
			div = append(div, map[string]any{"face": fmt.Sprintf("c%d", i), "into": []any{
				map[string]any{"name": fmt.Sprintf("p%d", i), "at": [][2]string{{"0", "0"}, {"1", "0"}, {"1", b}, {"0", a}}},
				map[string]any{"name": fmt.Sprintf("f%d", i), "at": [][2]string{{"0", a}, {"1", b}, {"1", "1"}, {"0", "1"}}},
			}})
			folds = append(folds, map[string]any{"between": []string{fmt.Sprintf("p%d", i), fmt.Sprintf("f%d", i)},"towards":flapTo, "angle": fmt.Sprintf("%.9f", 2*math.Acos(S*math.Sqrt(1-s(i)*s(i)))*180/math.Pi)})
			if i > 0 {
				bend := (math.Asin(s(i-1)) - math.Asin(s(i))) * 180 / math.Pi
				for k, part := range []string{"p", "f"} {
					folds = append(folds, map[string]any{"between": []string{fmt.Sprintf("%s%d", part, i-1), fmt.Sprintf("%s%d", part, i)}, "angle": fmt.Sprintf("%.9f", bend), "towards": k == 0})
				}
			}
		}
		file := map[string]any{"brevium_style": 1, "id": "pil", "name": "Pil", "sizes": []any{map[string]any{"id": "length", "as": "L", "usual": "10 mm"}}, "room": []string{"length", "length", "length"},
			"pieces": []any{map[string]any{"id": "pp", "name": "P", "columns": cols, "rows": []string{"60"}, "cells": []string{cells[1:]}, "root": "p0", "folds": folds, "divide": div}}}
		b, _ := json.Marshal(file)
		_, err := Read(b)
		t.Log(flapTo, err)
	}
}
