// Package logbook writes what was practised as CSV (RFC 4180), as spreadsheets read it, and
// reads logs that were kept on paper.
package logbook

import (
	"encoding/csv"
	"io"
	"strconv"
	"strings"
	"time"
)

// A Writer writes one table.
type Writer struct {
	csv *csv.Writer
	err error
}

// New begins a table with its heads. Lines end in CRLF; the text is UTF-8, and begins with
// a mark that says so, without which spreadsheets take it for something else.
func New(w io.Writer, heads ...string) *Writer {
	_, err := io.WriteString(w, "\ufeff")
	out := &Writer{csv.NewWriter(w), err}
	out.csv.UseCRLF = true
	out.write(heads)
	return out
}

func (w *Writer) write(fields []string) {
	if w.err == nil {
		w.err = w.csv.Write(fields)
	}
}

// Row writes a row. Texts, whole and broken numbers, days and truths are written as
// spreadsheets know them; a text that a spreadsheet would take for a formula gets an
// apostrophe before it.
func (w *Writer) Row(values ...any) {
	fields := make([]string, len(values))
	for i, v := range values {
		fields[i] = field(v)
	}
	w.write(fields)
}

func field(v any) string {
	switch v := v.(type) {
	case string:
		return Text(v)
	case int:
		return strconv.Itoa(v)
	case float64:
		return strconv.FormatFloat(v, 'f', -1, 64)
	case bool:
		if v {
			return "yes"
		}
		return "no"
	case time.Time:
		return v.UTC().Format(time.RFC3339)
	case Day:
		return time.Time(v).Format(time.DateOnly)
	}
	return ""
}

// A Day is a date without a time.
type Day time.Time

// Text is a text as a cell may have it: before one that a spreadsheet would take for a formula
// stands an apostrophe.
func Text(s string) string {
	if s != "" && strings.ContainsRune("=+-@\t\r", rune(s[0])) {
		return "'" + s
	}
	return s
}

// Done writes what is left, and reports the first fault.
func (w *Writer) Done() error {
	w.csv.Flush()
	if w.err != nil {
		return w.err
	}
	return w.csv.Error()
}
