package server_test

import (
	"net/http"
	"testing"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whoever was signed in before sessions were written as JSON still is.
func TestSessionsOfTheOldForm(t *testing.T) {
	raw, err := scs.GobCodec{}.Encode(time.Now().Add(time.Hour), map[string]any{"person": ann.ID.String()})
	require.NoError(t, err)
	require.NoError(t, kept.PutSession(t.Context(), "of old", raw, time.Now().Add(time.Hour)))
	for token, want := range map[string]int{"of old": http.StatusOK, "nobody's": http.StatusUnauthorized} {
		req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, base+"/api/session", nil)
		require.NoError(t, err)
		req.AddCookie(&http.Cookie{Name: "manudrill", Value: token})
		status, body := visitor(t).send(req)
		assert.Equal(t, want, status, "%s", body)
	}
}
