package secret_test

import (
	"context"
	"encoding/base64"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/argon2"
	"pgregory.net/rapid"

	"manudrill/server/secret"
)

func TestAPasswordIsKnownAgainAndNoOther(t *testing.T) {
	k, err := secret.NewKeeper()
	require.NoError(t, err)
	hash, err := k.Hash(t.Context(), "four frets up")
	require.NoError(t, err)
	again, err := k.Hash(t.Context(), "four frets up")
	require.NoError(t, err)
	assert.NotEqual(t, hash, again, "salted")
	assert.True(t, strings.HasPrefix(hash, "$argon2id$v=19$m=19456,t=2,p=1$"), hash)
	for password, want := range map[string]bool{"four frets up": true, "Four frets up": false, "": false, "four frets up ": false} {
		is, err := k.Matches(t.Context(), password, hash)
		require.NoError(t, err)
		assert.Equal(t, want, is, "%q", password)
	}
	for _, password := range []string{"", "four frets up"} {
		is, err := k.Matches(t.Context(), password, "")
		require.NoError(t, err)
		assert.False(t, is, "nobody's")
	}
}

// The hash is argon2id as RFC 9106 has it: the same as the Go project's own
// implementation, whose parameters and form are those of the PHC string format.
func TestTheHashIsArgon2id(t *testing.T) {
	const salt = "saltsaltsaltsalt"
	key := argon2.IDKey([]byte("four frets up"), []byte(salt), 2, 19<<10, 1, 32)
	k, err := secret.NewKeeper()
	require.NoError(t, err)
	is, err := k.Matches(t.Context(), "four frets up", "$argon2id$v=19$m=19456,t=2,p=1$"+raw64(salt)+"$"+raw64(string(key)))
	require.NoError(t, err)
	assert.True(t, is)
}

func TestWhoHasGoneIsNotWaitedFor(t *testing.T) {
	k, err := secret.NewKeeper()
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = k.Hash(ctx, "four frets up")
	assert.ErrorIs(t, err, context.Canceled)
	_, err = k.Matches(ctx, "four frets up", "")
	assert.ErrorIs(t, err, context.Canceled)
}

func TestPasswordsThatAreGuessedFirst(t *testing.T) {
	for password, why := range map[string]string{
		"short":         "8 characters",
		"        ":      "row of",
		"aaaaaaaaaaa":   "row of",
		"12345678":      "row of",
		"87654321":      "row of",
		"mira tamsin":   "a name that others know",
		"MiraTamsin1":   "a name that others know",
		"password1":     "guessed first",
		"ünïcödé":       "8 characters",
		"four frets up": "", "çédille à côté": "", "mira tamsin and the four frets": "", "1357924680": "",
	} {
		err := secret.Weak(password, "Mira Tamsin", "MiraTamsin")
		if why == "" {
			assert.NoError(t, err, password)
			continue
		}
		require.Error(t, err, password)
		assert.Contains(t, err.Error(), why, password)
	}
}

// A code is the same however it is typed.
func TestCodesAsTheyAreTyped(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		c := secret.NewCode()
		text := c.String()
		if len(text) != 14 || strings.ContainsAny(text, "ILOU") {
			r.Fatalf("%s", text)
		}
		typed := rapid.SampledFrom([]func(string) string{
			strings.ToLower, strings.ToUpper,
			func(s string) string { return strings.ReplaceAll(s, "-", "") },
			func(s string) string { return strings.ReplaceAll(s, "-", " ") },
			func(s string) string {
				return " " + strings.ReplaceAll(strings.ReplaceAll(s, "0", "o"), "1", "l") + " "
			},
		}).Draw(r, "typed")(text)
		got, is := secret.ParseCode(typed)
		if !is || got != c {
			r.Fatalf("%q typed as %q is read as %v", text, typed, got)
		}
	})
	for _, odd := range []string{"", "ABCD", "ABCD-EFGH-JKMN-P", "ABCD-EFGH-JKM!", "ABCD-EFGH-JKMU"} {
		_, is := secret.ParseCode(odd)
		assert.False(t, is, odd)
	}
}

func TestTokensAreKeptAsTheirSHA256(t *testing.T) {
	// FIPS 180-2, appendix B.1: SHA-256 of "abc".
	assert.Equal(t, "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad", hex(secret.Kept("abc")))
	one, kept := secret.Token()
	two, _ := secret.Token()
	assert.NotEqual(t, one, two)
	assert.Equal(t, secret.Kept(one), kept)
	assert.GreaterOrEqual(t, len(one), 26, "128 bits in Base 32")
}

func raw64(text string) string { return base64.RawStdEncoding.EncodeToString([]byte(text)) }

func hex(raw []byte) string { return fmt.Sprintf("%x", raw) }
