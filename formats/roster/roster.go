// Package roster reads lists of students as people have them: names pasted from a
// letter, one a line, or CSV (RFC 4180) from a table, with or without a head.
package roster

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"net/mail"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Bounds of a list.
const (
	MaxRows = 500
	MaxName = 100 // characters
)

// A Row is one student of a list.
type Row struct {
	Line  int    `json:"line"` // of the list, from 1
	Name  string `json:"name"`
	Email string `json:"email"`
	Group string `json:"group"`
	Fault string `json:"fault,omitempty"` // what is wrong with the line; empty where nothing is
}

// ErrTooLong is returned for a list with more rows than are read at once.
var ErrTooLong = fmt.Errorf("a list has %d students at the most; add them in parts", MaxRows)

// Read reads a list. Fields are parted by comma, semicolon or tab, whichever the
// first line with one of them has; columns go by their heads (name, e-mail, group)
// where there are any, or else in that order, where an address is known by its
// form. Empty lines are passed over.
func Read(text string) ([]Row, error) {
	text = strings.TrimPrefix(text, "\ufeff") // which some tables begin with
	if !utf8.ValidString(text) {
		return nil, errors.New("the list is not text in UTF-8; save it as CSV (UTF-8)")
	}
	r := csv.NewReader(bytes.NewReader([]byte(text)))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = delimiter(text), -1, true, true
	columns, rows := order{name: 0, surname: -1, email: 1, group: 2}, []Row{}
	seen := map[string]int{}
	for first := true; ; first = false {
		fields, err := r.Read()
		if errors.Is(err, io.EOF) {
			return rows, nil
		}
		if err != nil {
			return nil, fmt.Errorf("the list cannot be read: %w", err)
		}
		line, _ := r.FieldPos(0)
		if first {
			if head, is := headOf(fields); is {
				columns = head
				continue
			}
		}
		if len(rows) >= MaxRows {
			return nil, ErrTooLong
		}
		if row, is := columns.row(line, fields); is {
			row.Fault = faultOf(row, seen)
			rows = append(rows, row)
		}
	}
}

// delimiter is what parts the fields of a list.
func delimiter(text string) rune {
	for line := range strings.Lines(text) {
		if at := strings.IndexAny(line, "\t;,"); at >= 0 {
			for _, d := range []rune{'\t', ';'} {
				if strings.ContainsRune(line, d) {
					return d
				}
			}
			return ','
		}
	}
	return ','
}

// order says in which column what stands; −1 for nowhere.
type order struct{ name, surname, email, group int }

// headOf reads a head: a line that names a column of names.
func headOf(fields []string) (order, bool) {
	o := order{-1, -1, -1, -1}
	for i, f := range fields {
		switch strings.ToLower(strings.Trim(strings.TrimSpace(f), ":")) {
		case "name", "student", "full name", "first name", "given name":
			o.name = i
		case "surname", "last name", "family name":
			o.surname = i
		case "e-mail", "email", "mail", "e-mail address", "email address":
			o.email = i
		case "group", "class", "course":
			o.group = i
		}
	}
	return o, o.name >= 0
}

// row is what stands in the fields of a line, and whether anything does.
func (o order) row(line int, fields []string) (Row, bool) {
	at := func(i int) string {
		if i < 0 || i >= len(fields) {
			return ""
		}
		return strings.Join(strings.Fields(fields[i]), " ")
	}
	row := Row{Line: line, Name: at(o.name), Email: at(o.email), Group: at(o.group)}
	if o.surname > 0 {
		row.Name = strings.TrimSpace(row.Name + " " + at(o.surname))
	}
	if !strings.Contains(row.Email, "@") && strings.Contains(row.Group, "@") {
		row.Email, row.Group = row.Group, row.Email
	} else if row.Group == "" && row.Email != "" && !strings.Contains(row.Email, "@") && len(fields) == 2 {
		row.Email, row.Group = "", row.Email // a name and a group
	}
	return row, row.Name != "" || row.Email != "" || row.Group != ""
}

// faultOf tells what is wrong with a row, and remembers its name.
func faultOf(r Row, seen map[string]int) string {
	key := strings.ToLower(r.Name)
	before := seen[key]
	if before == 0 {
		seen[key] = r.Line
	}
	switch {
	case r.Name == "":
		return "There is no name."
	case utf8.RuneCountInString(r.Name) > MaxName || utf8.RuneCountInString(r.Group) > MaxName:
		return fmt.Sprintf("A name has %d characters at the most.", MaxName)
	case strings.ContainsFunc(r.Name+r.Group, unicode.IsControl):
		return "There are characters in it that no name has."
	case strings.Contains(r.Name, "@"):
		return "An address stands where the name should."
	case r.Email != "" && !isAddress(r.Email):
		return fmt.Sprintf("%q is no e-mail address.", r.Email)
	case before != 0:
		return fmt.Sprintf("The same name stands in line %d.", before)
	}
	return ""
}

// isAddress reports whether a text is an address and nothing besides (RFC 5322), at
// a host that the internet has: one without a dot is typed wrongly.
func isAddress(text string) bool {
	a, err := mail.ParseAddress(text)
	_, domain, _ := strings.Cut(text, "@")
	return err == nil && a.Address == text && strings.Contains(domain, ".") && len(text) <= 254
}
