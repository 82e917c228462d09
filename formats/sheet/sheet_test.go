package sheet_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"manudrill/formats/sheet"
)

// The same table as different programs write it.
func TestTablesAsTheyAreWritten(t *testing.T) {
	want := []sheet.Row{{1, []string{"Naïve Çelik", "72,5", "späte Töne"}}, {3, []string{"Jon", "80", `"so" so`}}}
	text := "Naïve Çelik;72,5;späte  Töne\r\n;;\r\nJon; 80;\"\"\"so\"\" so\"\r\n"
	latin, err := charmap.ISO8859_1.NewEncoder().String(text)
	require.NoError(t, err)
	utf16, err := unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewEncoder().String(text)
	require.NoError(t, err)
	for name, raw := range map[string]string{
		"UTF-8": text, "with a mark": "\ufeff" + text, "Latin-1": latin, "UTF-16": utf16, "tabs": strings.ReplaceAll(text, ";", "\t"), "lines of Unix": strings.ReplaceAll(text, "\r\n", "\n"),
	} {
		rows, err := sheet.Read([]byte(raw))
		require.NoError(t, err, name)
		assert.Equal(t, want, rows, name)
	}
	rows, err := sheet.Read([]byte("“smart”, 5’\n"))
	require.NoError(t, err)
	assert.Equal(t, []string{"“smart”", "5’"}, rows[0].Fields)
}

func TestWhatIsNoTable(t *testing.T) {
	for name, c := range map[string]struct{ raw, says string }{
		"a spreadsheet's own file": {"PK\x03\x04\x14\x00\x06\x00", "save the table as CSV"},
		"a quotation mark":         {"name\n\"Mira\n" + strings.Repeat("Jon\n", 40), "line 2 a quotation mark"},
		"too many fields":          {strings.Repeat("a,", 100), "100 fields"},
		"too many rows":            {strings.Repeat("a\n", sheet.MaxRows+1), "20000 rows"},
	} {
		_, err := sheet.Read([]byte(c.raw))
		assert.ErrorContains(t, err, c.says, name)
	}
	rows, err := sheet.Read([]byte(strings.Repeat("a\n\n", sheet.MaxRows)))
	require.NoError(t, err)
	assert.Len(t, rows, sheet.MaxRows)
	assert.Equal(t, 2*sheet.MaxRows-1, rows[sheet.MaxRows-1].Line)
}

func FuzzRead(f *testing.F) {
	for _, s := range []string{"", "a,b", "\"", "\xff\xfea", "\xff\xff", "a;b\n;;\n"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		rows, err := sheet.Read(raw)
		if err != nil {
			return
		}
		for _, r := range rows {
			assert.NotEmpty(t, strings.Join(r.Fields, ""))
			assert.Positive(t, r.Line)
		}
	})
}
