// Package plaintext reads text in whatever programs write it in.
package plaintext

import (
	"bytes"
	"errors"
	"unicode/utf8"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
)

// ErrNoText is returned for what is no text.
var ErrNoText = errors.New("this is no text")

// Read returns text that is written in UTF-8, UTF-16 with its byte-order mark, or
// Windows-1252, which has all of Latin-1 that is printed.
func Read(raw []byte) (string, error) {
	var in encoding.Encoding
	switch {
	case bytes.HasPrefix(raw, []byte("\xff\xfe")), bytes.HasPrefix(raw, []byte("\xfe\xff")):
		in = unicode.UTF16(unicode.LittleEndian, unicode.UseBOM)
	case utf8.Valid(raw):
		in = unicode.UTF8BOM
	default:
		in = charmap.Windows1252
	}
	text, err := in.NewDecoder().Bytes(raw)
	if err != nil || bytes.IndexByte(text, 0) >= 0 {
		return "", ErrNoText
	}
	return string(text), nil
}
