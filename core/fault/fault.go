// Package fault holds the one kind of error a person is shown: what is wrong,
// in which field, and what to do, in one sentence. The same value reaches the
// page, the command line and JSON.
package fault

import (
	"errors"
	"fmt"
	"runtime/debug"
	"strconv"
	"strings"
)

// Fault is an error with a place and a sentence. Code is a stable word for
// programs; Field names the input, as Path writes it, or is empty; Text is a
// whole sentence for a person; Cause is the error it came from, if any, and
// errors.Is and errors.As see through to it.
type Fault struct {
	Code  Code   `json:"code"`
	Field string `json:"field,omitempty"`
	Text  string `json:"text"`
	Cause error  `json:"-"`
}

// Error gives one line: the field, if any, and the sentence.
func (f *Fault) Error() string {
	if f.Field == "" {
		return f.Text
	}
	return f.Field + ": " + f.Text
}

// Unwrap gives the cause.
func (f *Fault) Unwrap() error { return f.Cause }

// New makes a fault; the sentence is formatted as by fmt.Errorf, and an error
// given to %w is its cause.
func New(code Code, field, format string, args ...any) *Fault {
	err := fmt.Errorf(format, args...)
	return &Fault{Code: code, Field: field, Text: err.Error(), Cause: errors.Unwrap(err)}
}

// Path writes a field's path: names parted by dots, places in lists in square
// brackets, counted from 0: Path("mats", 0, "layers", 1, "border") is
// "mats[0].layers[1].border". Empty names are left out.
func Path(steps ...any) string {
	var b strings.Builder
	for _, s := range steps {
		switch x := s.(type) {
		case int:
			b.WriteString("[" + strconv.Itoa(x) + "]")
		default:
			name := fmt.Sprint(x)
			if name != "" && b.Len() > 0 {
				b.WriteByte('.')
			}
			b.WriteString(name)
		}
	}
	return b.String()
}

// At gives err a field: a Fault keeps its code and sentence, and a field it
// already has is kept behind the new one; any other error becomes a fault of
// code Invalid. The fault's cause is err's own. A nil error stays nil.
func At(field string, err error) error {
	if err == nil {
		return nil
	}
	var f *Fault
	if !errors.As(err, &f) {
		return &Fault{Code: Invalid, Field: field, Text: err.Error(), Cause: err}
	}
	return &Fault{Code: f.Code, Field: Path(field, f.Field), Text: f.Text, Cause: err}
}

// Of finds the Fault in err, or makes one of code Internal from it.
func Of(err error) *Fault {
	var f *Fault
	if errors.As(err, &f) {
		return f
	}
	return &Fault{Code: Internal, Text: err.Error(), Cause: err}
}

// Guard runs f and turns a panic in it into a fault of code Internal, so that
// one box or style that goes wrong takes nothing else down.
func Guard(f func() error) (err error) {
	defer func() {
		if p := recover(); p != nil {
			err = &Fault{Code: Internal, Text: "this could not be worked out", Cause: fmt.Errorf("panic: %v\n%s", p, debug.Stack())}
		}
	}()
	return f()
}
