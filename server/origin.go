package server

import (
	"context"
	"net"
	"net/http"
	"net/netip"
	"strings"
)

type secureKey struct{}

// isSecure reports whether a request came over TLS, to the server itself or to a
// proxy that is believed.
func isSecure(r *http.Request) bool {
	told, _ := r.Context().Value(secureKey{}).(bool)
	return told || r.TLS != nil
}

// behind takes the address and the scheme of a request from the proxies that are
// believed, and from nobody else: the last address that none of them has is the
// one the request came from.
func behind(proxies []netip.Prefix, next http.Handler) http.Handler {
	if len(proxies) == 0 {
		return next
	}
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !isOneOf(addressOf(r), proxies) {
			next.ServeHTTP(w, r)
			return
		}
		ctx := context.WithValue(r.Context(), secureKey{}, strings.EqualFold(r.Header.Get("X-Forwarded-Proto"), "https"))
		r = r.WithContext(ctx)
		for _, hop := range hops(r) {
			r.RemoteAddr = net.JoinHostPort(hop, "0")
			if !isOneOf(hop, proxies) {
				break
			}
		}
		next.ServeHTTP(w, r)
	})
}

// hops are the addresses that a request has come over, the nearest first, as far as
// they can be read.
func hops(r *http.Request) []string {
	var nearest []string
	all := strings.Split(strings.Join(r.Header.Values("X-Forwarded-For"), ","), ",")
	for i := len(all) - 1; i >= 0; i-- {
		address, err := netip.ParseAddr(strings.TrimSpace(all[i]))
		if err != nil {
			break
		}
		nearest = append(nearest, address.Unmap().String())
	}
	return nearest
}

func isOneOf(address string, prefixes []netip.Prefix) bool {
	a, err := netip.ParseAddr(address)
	if err != nil {
		return false
	}
	for _, p := range prefixes {
		if p.Contains(a.Unmap()) {
			return true
		}
	}
	return false
}
