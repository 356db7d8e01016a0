// Package fault holds the one kind of error a person is shown: what is wrong,
// in which field, and what to do, in one sentence. The same value reaches the
// page, the command line and JSON.
package fault

import (
	"errors"
	"fmt"
)

// Fault is an error with a place and a sentence. Code is a stable word for
// programs ("too-large"); Field names the input, in dots ("size.length"), or
// is empty; Text is a whole sentence for a person.
type Fault struct {
	Code  string `json:"code"`
	Field string `json:"field,omitempty"`
	Text  string `json:"text"`
}

// Error gives one line: the field, if any, and the sentence.
func (f *Fault) Error() string {
	if f.Field == "" {
		return f.Text
	}
	return f.Field + ": " + f.Text
}

// New makes a fault; the sentence is formatted as by fmt.Sprintf.
func New(code, field, format string, args ...any) *Fault {
	return &Fault{Code: code, Field: field, Text: fmt.Sprintf(format, args...)}
}

// At gives err a field: a Fault keeps its code and sentence, and a field it
// already has is kept behind the new one; any other error becomes a fault of
// code "invalid". A nil error stays nil.
func At(field string, err error) error {
	if err == nil {
		return nil
	}
	var f *Fault
	if !errors.As(err, &f) {
		return &Fault{Code: "invalid", Field: field, Text: err.Error()}
	}
	if f.Field != "" {
		field += "." + f.Field
	}
	return &Fault{Code: f.Code, Field: field, Text: f.Text}
}

// Of finds the Fault in err, or makes one of code "internal" from it.
func Of(err error) *Fault {
	var f *Fault
	if errors.As(err, &f) {
		return f
	}
	return &Fault{Code: "internal", Text: err.Error()}
}
