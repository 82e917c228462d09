package musicxml

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"io"
	"strings"

	"manudrill/core/bounds"

	"golang.org/x/text/encoding/htmlindex"
)

// deepest is how deep elements are read inside one another; the standard's go
// some ten deep.
const deepest = 64

// bounded gives the tokens of a document as long as it has no more notes than are
// read of a take and is not nested without end, either of which would ask for
// far more memory than the document has.
type bounded struct {
	from         *xml.Decoder
	depth, notes int
}

// newDecoder reads a document of bounded depth and content, in UTF-8 or in what it says of
// itself (WHATWG Encoding Standard). One in UTF-16 has been made UTF-8 before.
func newDecoder(b []byte) *xml.Decoder {
	from := xml.NewDecoder(bytes.NewReader(b))
	from.CharsetReader = func(label string, r io.Reader) (io.Reader, error) {
		encoding, err := htmlindex.Get(label)
		if err != nil || strings.HasPrefix(strings.ToLower(label), "utf") {
			return r, nil // what nobody knows is UTF-8 most likely
		}
		return encoding.NewDecoder().Reader(r), nil
	}
	return xml.NewTokenDecoder(&bounded{from: from})
}

// Token returns the next one.
func (b *bounded) Token() (xml.Token, error) {
	t, err := b.from.RawToken()
	switch t := t.(type) {
	case xml.StartElement:
		if b.depth++; b.depth > deepest {
			return nil, fmt.Errorf("its elements lie more than %d deep", deepest)
		}
		if _, kept := contents[t.Name.Local]; kept {
			b.notes++
		}
		if b.notes > bounds.TakeNotes {
			return nil, bounds.ErrTooManyNotes
		}
	case xml.EndElement:
		b.depth--
	}
	return t, err
}
