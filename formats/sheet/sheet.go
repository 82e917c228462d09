// Package sheet reads tables as spreadsheets and people write them: CSV (RFC 4180) parted
// by commas, semicolons or tabs, in whatever programs write text in.
package sheet

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"

	"manudrill/formats/plaintext"
)

// Bounds of a table.
const (
	MaxRows   = 20_000 // without those that are empty
	maxFields = 100    // of a row
	maxLines  = 30     // of a field: a quotation mark that is never closed takes in all that follows
)

// Errors of what is no table. They say what to do.
var (
	ErrTooLong  = fmt.Errorf("a table has %d rows at the most; bring it in in parts", MaxRows)
	ErrNoTable  = errors.New("this is no text; save the table as CSV, and take that")
	ErrTooWide  = fmt.Errorf("a row has %d fields at the most; leave out what is not needed", maxFields)
	errUnclosed = "in line %d a quotation mark is opened that is never closed; close it, or leave it out"
)

// A Row is one that is not empty.
type Row struct {
	Line   int // on which it begins, from 1
	Fields []string
}

// Read reads a table. What parts its fields is told by the first line that has any of
// comma, semicolon or tab. Blanks around a field, and several in it, are one.
func Read(raw []byte) ([]Row, error) {
	text, err := plaintext.Read(raw)
	if err != nil {
		return nil, ErrNoTable
	}
	r := csv.NewReader(strings.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = delimiter(text), -1, true, true
	rows := []Row{}
	for {
		fields, err := r.Read()
		if errors.Is(err, io.EOF) {
			return rows, nil
		}
		if err != nil {
			return nil, fmt.Errorf("the table cannot be read: %w", err)
		}
		line, _ := r.FieldPos(0)
		if len(fields) > maxFields {
			return nil, ErrTooWide
		}
		empty := true
		for i, f := range fields {
			if strings.Count(f, "\n") > maxLines {
				return nil, fmt.Errorf(errUnclosed, line)
			}
			fields[i] = strings.Join(strings.Fields(f), " ")
			empty = empty && fields[i] == ""
		}
		if empty {
			continue
		}
		if len(rows) == MaxRows {
			return nil, ErrTooLong
		}
		rows = append(rows, Row{line, fields})
	}
}

// delimiter is what parts the fields.
func delimiter(text string) rune {
	for line := range strings.Lines(text) {
		for _, d := range []rune{'\t', ';', ','} {
			if strings.ContainsRune(line, d) {
				return d
			}
		}
	}
	return ','
}
