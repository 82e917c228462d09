package plaintext_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/formats/plaintext"
)

// The same word in each encoding, byte for byte (Unicode, UTF-16 by RFC 2781; ISO 8859-1;
// Windows-1252 has the euro sign at 0x80).
func TestTextInWhateverItIsWritten(t *testing.T) {
	for raw, want := range map[string]string{
		"Übung":                 "Übung",
		"\ufeffÜbung":           "Übung",
		"\xdcbung":              "Übung",
		"\xff\xfe\xdc\x00b\x00": "Üb",
		"\xfe\xff\x00\xdc\x00b": "Üb",
		"5 \x80":                "5 €",
		"":                      "",
	} {
		text, err := plaintext.Read([]byte(raw))
		require.NoError(t, err, "%q", raw)
		assert.Equal(t, want, text)
	}
	for _, raw := range []string{"PK\x03\x04\x00\x00", "a\x00b"} {
		_, err := plaintext.Read([]byte(raw))
		assert.ErrorIs(t, err, plaintext.ErrNoText)
	}
}
