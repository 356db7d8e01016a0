package contents

import (
	"strconv"
	"strings"
	"unicode"

	"brevium/core/fault"
)

// Each is what goes into one of a box's equal rooms: a drawer of a calendar, a slice of a ring.
type Each struct {
	Front string // what stands on its front, such as its number or a date
	Thing string // what goes in; "" is not said
}

// Limits of a list of what goes in each room.
const (
	MostEach     = 64
	mostEachLong = 60
)

// EachOf reads the nth line of a list, from 1: "24 Dec: chocolate coin" has a front of its own,
// "chocolate coin" its number.
func EachOf(n int, line string) Each {
	front, thing, parted := strings.Cut(line, ":")
	if front, thing = strings.TrimSpace(front), strings.TrimSpace(thing); !parted {
		return Each{strconv.Itoa(n), front}
	}
	if front == "" {
		front = strconv.Itoa(n)
	}
	return Each{front, thing}
}

// CheckEach refuses a list that is no list of lines.
func CheckEach(lines []string) error {
	if len(lines) > MostEach {
		return fault.New(fault.CountRange, "rooms", "list at most %d", MostEach)
	}
	for i, line := range lines {
		if len([]rune(line)) > mostEachLong || strings.ContainsFunc(line, unicode.IsControl) {
			return fault.New(fault.TooLong, fault.Path("rooms", i), "write a line of up to %d letters for each", mostEachLong)
		}
	}
	return nil
}
