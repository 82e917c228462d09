package store

import (
	"encoding/base64"
	"encoding/binary"
	"errors"
	"fmt"
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

// Size is the most items the page has.
func (p Page) Size() int {
	if p.Limit <= 0 || p.Limit > MaxPage {
		return MaxPage
	}
	return p.Limit
}

// A question is the end of a statement that asks for a page: only what is asked
// stands in it, so that the database finds the index for it.
type question struct {
	where, order string
	args         []any
}

// and narrows the question: a column and a comparison, with what it is compared to.
func (q *question) and(column string, to any) {
	q.args = append(q.args, to)
	q.where += fmt.Sprintf(` AND %s $%d`, column, len(q.args))
}

// after asks for a page of what goes by a time and an id, the latest first.
func (q *question) after(p Page, at, id string) {
	if p.After != nil {
		q.args = append(q.args, p.After.At, p.After.ID)
		q.where += fmt.Sprintf(` AND (%s, %s) < ($%d, $%d)`, at, id, len(q.args)-1, len(q.args))
	}
	q.args = append(q.args, p.Size())
	q.order = fmt.Sprintf(` ORDER BY %s DESC, %s DESC LIMIT $%d`, at, id, len(q.args))
}

func (q *question) text() string { return ` WHERE ` + q.where + q.order }

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
