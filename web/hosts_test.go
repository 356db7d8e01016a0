package web_test

import (
	"net/http"
	"net/http/httptest"
	"testing"

	"brevium/web"
	"brevium/web/webtest"
)

func TestOnlyHosts(t *testing.T) {
	t.Parallel()
	h := web.OnlyHosts(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(http.StatusOK) }), []string{"127.0.0.1:8787", "Fair.local"}, webtest.Quiet())
	for host, want := range map[string]int{
		"127.0.0.1:8787": 200, "localhost:8787": 200, "LOCALHOST": 200, "[::1]:80": 200, "fair.local:9": 200,
		"evil.example": 421, "127.0.0.1.evil.example:8787": 421, "": 421,
	} {
		r := httptest.NewRequest(http.MethodGet, "/", nil)
		r.Host = host
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		if w.Code != want {
			t.Errorf("asked for %q it answers %d; want %d", host, w.Code, want)
		}
	}
}
