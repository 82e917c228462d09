package main

import (
	"net/netip"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWhatTheServerIsTold(t *testing.T) {
	o := serveOptions{address: "[::1]:8765", url: "https://Drills.example.org/", hosts: []string{"Practice.example"}, proxies: []string{"10.1.2.3/16", "::1"}}
	got, err := o.forServer()
	require.NoError(t, err)
	assert.Equal(t, []string{"practice.example", "::1", "drills.example.org"}, got.Hosts)
	assert.Equal(t, []netip.Prefix{netip.MustParsePrefix("10.1.0.0/16"), netip.MustParsePrefix("::1/128")}, got.Proxies)
	assert.False(t, got.Letters)

	t.Setenv("MANUDRILL_SMTP", "smtp://localhost:2525")
	for name, c := range map[string]struct {
		o    serveOptions
		from string
		says string
	}{
		"letters without an address":        {serveOptions{}, "drills@example.org", "say by --url"},
		"letters from nobody":               {serveOptions{url: "https://drills.example.org"}, "", "MANUDRILL_MAIL_FROM"},
		"a certificate without a key":       {serveOptions{url: "https://drills.example.org", cert: "x"}, "drills@example.org", "both --cert and --key"},
		"a proxy that is neither":           {serveOptions{proxies: []string{"cellar"}}, "drills@example.org", "neither an address nor a network"},
		"letters by a server that is known": {serveOptions{url: "https://drills.example.org"}, "drills@example.org", ""},
	} {
		t.Setenv("MANUDRILL_MAIL_FROM", c.from)
		_, err := c.o.forServer()
		if c.says == "" {
			assert.NoError(t, err, name)
			continue
		}
		require.Error(t, err, name)
		assert.Contains(t, err.Error(), c.says, name)
	}
}
