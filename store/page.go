package store

import (
	"encoding/base64"
	"encoding/binary"
	"errors"
	"time"

	"github.com/google/uuid"
)

// MaxPage is the most items of one page.
const MaxPage = 200

// A Page says which part of a list is wanted. The zero page is the first one.
type Page struct {
	After *Cursor // the last item of the page before
	Limit int     // items; MaxPage where it is 0 or more than that
}

func (p Page) limit() int {
	if p.Limit <= 0 || p.Limit > MaxPage {
		return MaxPage
	}
	return p.Limit
}

// bound is what the items of the page come after: the time and the id of the last
// one, or nothing.
func (p Page) bound() (at *time.Time, id *uuid.UUID) {
	if p.After == nil {
		return nil, nil
	}
	return &p.After.At, &p.After.ID
}

// A Cursor is a place in a list that goes by time, then by id.
type Cursor struct {
	At time.Time
	ID uuid.UUID
}

// String writes the cursor for an address.
func (c Cursor) String() string {
	raw := binary.BigEndian.AppendUint64(nil, uint64(c.At.UnixMicro())) // PostgreSQL's times are whole microseconds
	return base64.RawURLEncoding.EncodeToString(append(raw, c.ID[:]...))
}

// ErrCursor is returned for what no list has given out.
var ErrCursor = errors.New("this is no place in a list; begin at its start")

// ParseCursor reads what [Cursor.String] has written.
func ParseCursor(text string) (Cursor, error) {
	raw, err := base64.RawURLEncoding.DecodeString(text)
	if err != nil || len(raw) != 24 {
		return Cursor{}, ErrCursor
	}
	return Cursor{time.UnixMicro(int64(binary.BigEndian.Uint64(raw))).UTC(), uuid.UUID(raw[8:])}, nil
}
