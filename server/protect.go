package server

import (
	"net"
	"net/http"
	"slices"
	"strings"
)

// policy is what the pages may load: what the server itself has, and nothing
// written into them. The drawing of charts and scores sets styles and brings its
// font along; the core that hears on the device is WebAssembly.
const policy = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:; " +
	"connect-src 'self'; media-src 'self' blob:; worker-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// protect answers only for the server's own names and pages, and tells browsers
// what the pages may do.
func protect(hosts []string, next http.Handler) http.Handler {
	crossOrigin := http.NewCrossOriginProtection()
	crossOrigin.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { refuse(w, errOtherOrigin) }))
	inner := crossOrigin.Handler(next)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", policy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Permissions-Policy", "microphone=(self), camera=(self), geolocation=(), midi=(self)")
		if !answersFor(r.Host, hosts) {
			refuse(w, errOtherHost)
			return
		}
		inner.ServeHTTP(w, r)
	})
}

// answersFor reports whether a Host header names this server: by an address, as
// localhost, or by one of its names. Any other name may be a stranger's that was
// made to lead here, whose pages could then read all.
func answersFor(host string, names []string) bool {
	name := host
	if h, _, err := net.SplitHostPort(host); err == nil {
		name = h
	}
	name = strings.ToLower(strings.Trim(name, "[]"))
	return net.ParseIP(name) != nil || name == "localhost" || slices.Contains(names, name)
}
