package web

import (
	"fmt"
	"net/http"
	"net/netip"
	"slices"
	"strings"

	"brevium/web/page"
)

// ParseProxies reads the addresses of proxies that are believed: single ones, or networks
// such as 10.0.0.0/8.
func ParseProxies(all []string) ([]netip.Prefix, error) {
	var out []netip.Prefix
	for _, text := range all {
		p, err := netip.ParsePrefix(text)
		if err != nil {
			at, wrong := netip.ParseAddr(text)
			if wrong != nil {
				return nil, fmt.Errorf("%q is no address of a proxy; give one such as 127.0.0.1 or 10.0.0.0/8", text)
			}
			p = netip.PrefixFrom(at, at.BitLen())
		}
		out = append(out, p)
	}
	return out, nil
}

// Behind takes what proxies say of a request from those alone that are believed: whom it
// comes from, and whether over TLS. From anybody else it is dropped.
func Behind(proxies []netip.Prefix, next http.Handler) http.Handler {
	believed := func(at netip.Addr) bool {
		return slices.ContainsFunc(proxies, func(p netip.Prefix) bool { return p.Contains(at.Unmap()) })
	}
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		forwarded, over := r.Header.Values("X-Forwarded-For"), r.Header.Get("X-Forwarded-Proto")
		for _, h := range []string{"X-Forwarded-For", "X-Forwarded-Proto", "X-Forwarded-Host", "X-Real-Ip", "Forwarded", "X-Request-Id"} {
			r.Header.Del(h)
		}
		from, err := netip.ParseAddrPort(r.RemoteAddr)
		if err != nil || !believed(from.Addr()) {
			next.ServeHTTP(w, r)
			return
		}
		// The nearest address that is no proxy's own, counted from the last.
		hops := strings.Split(strings.Join(forwarded, ","), ",")
		for i := len(hops) - 1; i >= 0; i-- {
			at, err := netip.ParseAddr(strings.TrimSpace(hops[i]))
			if err != nil {
				break
			}
			r.RemoteAddr = netip.AddrPortFrom(at.Unmap(), 0).String()
			if !believed(at) {
				break
			}
		}
		if over == "https" {
			r = page.Secure(r)
		}
		next.ServeHTTP(w, r)
	})
}

// OverTLS tells browsers to come back over TLS alone, for half a year.
func OverTLS(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Strict-Transport-Security", "max-age=15768000")
		next.ServeHTTP(w, r)
	})
}
