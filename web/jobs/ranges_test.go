package jobs

import "testing"

// A list of cuts is told by ranges, in order.
func TestRanges(t *testing.T) {
	for want, numbers := range map[string][]int{"1, 2, 7 and 24 to 26": {7, 24, 25, 26, 1, 2}, "3": {3}, "24 to 37": {24, 25, 26, 27, 28, 29, 30, 31, 32, 33, 34, 35, 36, 37}, "1 and 3": {3, 1}} {
		if got := ranges(numbers); got != want {
			t.Errorf("%v is %q", numbers, got)
		}
	}
}
