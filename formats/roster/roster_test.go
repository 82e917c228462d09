package roster_test

import (
	"encoding/csv"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/formats/roster"
	"manudrill/formats/sheet"
)

func read(t *testing.T, text string) []roster.Row {
	t.Helper()
	rows, err := roster.Read([]byte(text))
	require.NoError(t, err)
	return rows
}

func TestListsAsPeopleHaveThem(t *testing.T) {
	mira := roster.Row{Name: "Mira Tamsin", Email: "mira@example.org", Group: "Mondays"}
	for name, text := range map[string]string{
		"commas":                     "Mira Tamsin, mira@example.org, Mondays",
		"semicolons and a mark":      "\ufeffMira Tamsin;mira@example.org;Mondays\r\n",
		"tabs, from a table":         "Mira Tamsin\tmira@example.org\tMondays",
		"the address last":           "Mira  Tamsin,Mondays,mira@example.org",
		"heads in another order":     "Group,E-Mail Address,Name\nMondays,mira@example.org,Mira Tamsin",
		"name and surname":           "First name;Surname;Email;Class\nMira;Tamsin;mira@example.org;Mondays",
		"quoted":                     `"Mira Tamsin","mira@example.org","Mondays"`,
		"a surname first, in quotes": "Name,Email,Group\nMira Tamsin,mira@example.org,Mondays\n\n",
	} {
		rows := read(t, text)
		require.Len(t, rows, 1, name)
		got := rows[0]
		got.Line = 0
		assert.Equal(t, mira, got, name)
	}
	rows := read(t, "Mira\n\n  \nJon\r\nLio, Mondays")
	assert.Equal(t, []roster.Row{{Line: 1, Name: "Mira"}, {Line: 4, Name: "Jon"}, {Line: 5, Name: "Lio", Group: "Mondays"}}, rows)
	assert.Empty(t, read(t, " \n\n"))
}

func TestEachLineSaysWhatIsWrong(t *testing.T) {
	rows := read(t, strings.Join([]string{
		"Mira, mira@example.org", ", jon@example.org", "Lio, lio@example", "MIRA", "jon@example.org", strings.Repeat("x", 101), "Ash\x07", "Ok, a b@example.org",
	}, "\n"))
	require.Len(t, rows, 8)
	for i, why := range []string{"", "no name", "no e-mail address", "stands in line 1", "where the name should", "100 characters", "no name has", "no e-mail address"} {
		if why == "" {
			assert.Empty(t, rows[i].Fault)
			continue
		}
		assert.Contains(t, rows[i].Fault, why, rows[i].Name)
	}
}

func TestListsHaveAnEnd(t *testing.T) {
	var b strings.Builder
	for i := range sheet.MaxRows {
		fmt.Fprintf(&b, "Student %d\n", i)
	}
	assert.Len(t, read(t, b.String()), sheet.MaxRows)
	_, err := roster.Read([]byte(b.String() + "one more"))
	assert.ErrorIs(t, err, sheet.ErrTooLong)
	assert.Equal(t, "José", read(t, "Jos\xe9")[0].Name, "from a table in Latin-1")
}

// What encoding/csv has written (RFC 4180) is read as it was.
func TestWhatATableWrites(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		word := rapid.StringMatching(`[A-Z][a-zé'"; -]{0,12}[a-z]`)
		name, group := word.Draw(r, "name"), word.Draw(r, "group")
		var b strings.Builder
		w := csv.NewWriter(&b)
		require.NoError(t, w.Write([]string{"name", "group"}))
		require.NoError(t, w.Write([]string{name, group}))
		w.Flush()
		rows, err := roster.Read([]byte(b.String()))
		require.NoError(t, err)
		require.Len(t, rows, 1)
		want := func(s string) string { return strings.Join(strings.Fields(s), " ") }
		if rows[0].Name != want(name) || rows[0].Group != want(group) {
			r.Fatalf("%q is read as %+v", b.String(), rows[0])
		}
	})
}

func FuzzRoster(f *testing.F) {
	f.Add("Mira, mira@example.org, Mondays")
	f.Add("\"a\nb\";x\t,")
	f.Fuzz(func(t *testing.T, text string) {
		rows, err := roster.Read([]byte(text))
		if err == nil && len(rows) > sheet.MaxRows {
			t.Fatal("too many rows")
		}
	})
}
