package web

import (
	"log/slog"
	"net"
	"net/http"
	"slices"
	"strings"
)

// OnlyHosts refuses requests for any name but the given ones and those of this
// machine itself, so that a page elsewhere cannot make its own name point here
// and read or change what is kept. Ports do not count.
func OnlyHosts(next http.Handler, names []string, log *slog.Logger) http.Handler {
	known := []string{"localhost", "127.0.0.1", "::1"}
	for _, n := range names {
		known = append(known, hostOf(n))
	}
	return guarded(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !slices.Contains(known, hostOf(r.Host)) {
			refusedAt(log, r, "asked for by another name", r.Host)
			http.Error(w, "Brevium is not at this name. If it should be, start it with --host and the name.", http.StatusMisdirectedRequest)
			return
		}
		next.ServeHTTP(w, r)
	}))
}

// refusedAt logs a request that is turned away before anybody looks whose it is.
func refusedAt(log *slog.Logger, r *http.Request, what, detail string) {
	from, _, err := net.SplitHostPort(r.RemoteAddr)
	if err != nil {
		from = r.RemoteAddr
	}
	log.Warn("door", "what", what, "address", from, "method", r.Method, "detail", detail)
}

// hostOf is a host without its port, in small letters.
func hostOf(text string) string {
	if host, _, err := net.SplitHostPort(text); err == nil {
		text = host
	}
	return strings.ToLower(strings.Trim(text, "[]"))
}
