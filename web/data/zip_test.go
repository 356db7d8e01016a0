package data

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"testing"

	"brevium/core/fault"
	"brevium/store/storetest"
)

// FuzzUnpack brings zips in: what is taken can be put into a workshop, what
// is not is refused in words. list is the file that ties the others together;
// box is a box's design.
func FuzzUnpack(f *testing.F) {
	f.Add([]byte(`{"brevium":1,"boxes":[{"id":1,"name":"a","file":"boxes/1.json","ticks":{"cut":"m"}}],"things":[{"name":"x","across":5,"height":5}],"paper":[{"id":1,"card":"c","gsm":240,"width_nm":1,"height_nm":1,"count":1,"direction":"none"}],"jobs":[{"id":1,"name":"j","state":"planned","items":[{"box":1,"copies":2}],"choices":{},"layouts":{}}]}`),
		[]byte(`{"brevium":1,"name":"a","style":"tray"}`))
	f.Add([]byte(`{"brevium":1,"boxes":[{"file":"../../etc/passwd"}]}`), []byte(`{}`))
	f.Add([]byte(`{"brevium":1,"jobs":[{"state":"begun","choices":null,"layouts":null,"paper":[{"paper":9,"count":-1}]}]}`), []byte(``))
	f.Fuzz(func(t *testing.T, list, box []byte) {
		var text bytes.Buffer
		z := zip.NewWriter(&text)
		for name, body := range map[string][]byte{listName: list, "boxes/1.json": box} {
			w, err := z.Create(name)
			if err == nil {
				_, err = w.Write(body)
			}
			if err != nil {
				t.Fatal(err)
			}
		}
		if err := z.Close(); err != nil {
			t.Fatal(err)
		}
		all, err := unpack(bytes.NewReader(text.Bytes()), int64(text.Len()))
		if err != nil {
			if fault.Of(err).Code == fault.Internal {
				t.Errorf("refused without a word for it: %v", err)
			}
			return
		}
		s := storetest.Open(t)
		if _, _, err := s.Of(t.Context()).Bring(t.Context(), all, true); err != nil {
			if fault.Of(err).Code == fault.Internal {
				t.Errorf("not taken: %v\n%s", err, list)
			}
			return
		}
		if _, err := s.Of(t.Context()).Boxes(t.Context()); err != nil {
			t.Errorf("taken, the boxes cannot be listed: %v", err)
		}
		if _, err := s.Of(t.Context()).Jobs(t.Context()); err != nil {
			t.Errorf("taken, the jobs cannot be listed: %v\n%s", err, list)
		}
		if again, err := s.Of(t.Context()).All(t.Context()); err != nil || !json.Valid(marshalled(t, again)) {
			t.Errorf("taken, it cannot be taken along again: %v", err)
		}
	})
}

func marshalled(t *testing.T, v any) []byte {
	text, err := json.Marshal(v)
	if err != nil {
		t.Error(err)
	}
	return text
}
