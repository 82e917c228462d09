// Package roster reads lists of students as people have them: names pasted from a
// letter, one a line, or a table, with or without a head.
package roster

import (
	"manudrill/formats/sheet"

	"fmt"
	"net/mail"
	"strings"
	"unicode"
	"unicode/utf8"
)

// MaxName is how many characters a name has at the most.
const MaxName = 100

// A Row is one student of a list.
type Row struct {
	Line  int    `json:"line"` // of the list, from 1
	Name  string `json:"name"`
	Email string `json:"email"`
	Group string `json:"group"`
	Fault string `json:"fault,omitempty"` // what is wrong with the line; empty where nothing is
}

// Read reads a list, as [sheet.Read] reads tables. Columns go by their heads (name, e-mail,
// group) where there are any, or else in that order, where an address is known by its form.
func Read(raw []byte) ([]Row, error) {
	lines, err := sheet.Read(raw)
	if err != nil {
		return nil, err
	}
	columns, rows := order{name: 0, surname: -1, email: 1, group: 2}, []Row{}
	seen := map[string]int{}
	for i, line := range lines {
		if head, is := headOf(line.Fields); is && i == 0 {
			columns = head
			continue
		}
		if row, is := columns.row(line.Line, line.Fields); is {
			row.Fault = faultOf(row, seen)
			rows = append(rows, row)
		}
	}
	return rows, nil
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
		return fields[i]
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
