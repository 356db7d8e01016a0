package desk

import (
	"encoding/json"
	"reflect"
)

// ReadKept reads what was kept into a value; what is no such value leaves it as it is.
func ReadKept(text []byte, into any) {
	kept := reflect.ValueOf(into).Elem()
	fresh := reflect.New(kept.Type())
	fresh.Elem().Set(kept)
	if json.Unmarshal(text, fresh.Interface()) == nil {
		kept.Set(fresh.Elem())
	}
}
