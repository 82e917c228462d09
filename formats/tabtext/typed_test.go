package tabtext_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/formats/tabtext"
)

// rowsOf writes rows called by names, with what stands on some of them.
func rowsOf(names string, on map[string]string) string {
	width := 0
	for _, body := range on {
		width = max(width, len([]rune(body)))
	}
	var b strings.Builder
	for i, name := range strings.Fields(names) {
		body, has := on[name]
		if !has {
			body = strings.Repeat("-", width)
		}
		if i > 0 {
			b.WriteString("\n")
		}
		b.WriteString(name + "|" + body)
	}
	return b.String()
}

// Tablature in the ways it is typed (common practice).
func TestTabInTheWaysItIsTyped(t *testing.T) {
	const usual = "e B G D A E"
	for name, c := range map[string]struct {
		text, want string
		told       string // part of what is said to it; empty for nothing
	}{
		"the thickest on top, by the names":  {rowsOf("E A D G B e", map[string]string{"G": "-5h7-"}), "3/5p 3/7h", ""},
		"large letters alone":                {"E|------\nB|------\nG|-5h7--\nD|------\nA|------\nE|------", "3/5p 3/7h", ""},
		"capitals for slurs":                 {rowsOf(usual, map[string]string{"G": "-5H7P5-T12-"}), "3/5p 3/7h 3/5p 3/12t", ""},
		"signs apart from their frets":       {rowsOf(usual, map[string]string{"G": "-5-h-7--p--5-"}), "3/5p 3/7h 3/5p", ""},
		"over a bar line":                    {rowsOf(usual, map[string]string{"G": "-5-h|7--"}), "3/5p 3/7h", ""},
		"long dashes and drawn lines":        {"e│————————\nB│————————\nG│—5h7————\nD│————————\nA│————————\nE│————————", "3/5p 3/7h", ""},
		"blanks in place of dashes":          {"e|- - - - \nB|- - - - \nG|-5- -7- \nD|- - - - \nA|- - - - \nE|- - - - ", "3/5? 3/7?", ""},
		"names and octaves":                  {rowsOf("E4 B3 G3 D3 A2 E2", map[string]string{"G3": "-5h7-"}), "3/5p 3/7h", ""},
		"two strings of six, by name":        {"B|--8-\nG|7---", "3/7? 2/8?", ""},
		"the thick E alone":                  {"A|---5-\nE|-3---", "6/3? 5/5?", ""},
		"the thin e alone":                   {"e|---5-\nB|-3---", "2/3? 1/5?", ""},
		"no names":                           {"------\n------\n-5h7--\n------\n------\n------", "3/5p 3/7h", "the one on top is taken for the thinnest"},
		"said to be played twice":            {rowsOf(usual, map[string]string{"G": "-5h7-"}) + "| x2", "3/5p 3/7h 3/5p 3/7h", ""},
		"said otherwise to be played twice":  {rowsOf(usual, map[string]string{"G": "-5h7-"}) + "| (2x)", "3/5p 3/7h 3/5p 3/7h", ""},
		"a rule between two systems":         {rowsOf(usual, map[string]string{"G": "-5-"}) + "\n-----------------------\n" + rowsOf(usual, map[string]string{"G": "-7-"}), "3/5? 3/7?", ""},
		"rules above and below":              {"===\n-------------\n" + rowsOf(usual, map[string]string{"G": "-5-"}) + "\n-------------", "3/5?", ""},
		"a rule of dashes, far from any row": {"My drill\n--------\n\n" + rowsOf(usual, map[string]string{"G": "-5-"}), "3/5?", ""},
		"two systems without a line between": {strings.Repeat(rowsOf(usual, map[string]string{"G": "-5h7-"})+"\n", 2), "3/5p 3/7h 3/5p 3/7h", ""},
		"two of them without names":          {strings.Repeat("------\n------\n-5h7--\n------\n------\n------\n", 2), "3/5p 3/7h 3/5p 3/7h", "the one on top is taken for the thinnest"},
		"dead notes":                         {rowsOf(usual, map[string]string{"G": "-5-x-X-7-"}), "3/5? 3/7?", "2 dead notes (x) are left out"},
		"harmonics":                          {rowsOf(usual, map[string]string{"G": "-5-<12>-[7]-"}), "3/5?", "2 harmonics are left out"},
		"vibrato":                            {rowsOf(usual, map[string]string{"G": "-5~~~-7-"}), "3/5? 3/7?", "A sign for vibrato"},
		"brackets":                           {rowsOf(usual, map[string]string{"G": "-5-(7)-"}), "3/5? 3/7?", "A note in brackets is read as one that is played"},
		"a bend and its release":             {rowsOf(usual, map[string]string{"G": "-7b9r7-5-"}), "3/7? 3/5?", "A bend is left out"},
		"a bend in brackets":                 {rowsOf(usual, map[string]string{"G": "-7b(9)-5-"}), "3/7? 3/5?", "A bend is left out"},
		"chords":                             {rowsOf(usual, map[string]string{"e": "-5---5-", "B": "-5---5-", "G": "-5-7-5-"}), "1/5? 3/7? 1/5?", "In 2 places several strings sound at once"},
		"signs of repetition":                {rowsOf(usual, map[string]string{"G": ":-5h7-:|"}), "3/5p 3/7h", "Signs of repetition at bar lines are not followed"},
		"stars of repetition":                {rowsOf(usual, map[string]string{"G": "*-5h7-*|"}), "3/5p 3/7h", "Signs of repetition"},
		"in short over several places":       {"6:6p5 7p5 8p5 5:5h7", "6/6p 6/5p 6/7p 6/5p 6/8p 6/5p 5/5p 5/7h", ""},
	} {
		s, err := tabtext.Read(c.text, g)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, places(s), name)
		if told := strings.Join(s.Told, " "); c.told == "" {
			assert.Empty(t, told, name)
		} else {
			assert.Contains(t, told, c.told, name)
		}
	}
}

// The names of the rows say how the strings are tuned, and of how many there are.
func TestTheRowsNameTheTuning(t *testing.T) {
	for names, c := range map[string]struct {
		lowest, strings int // MIDI number of the thickest (MIDI 1.0)
	}{
		"e B G D A D": {38, 6}, "d A F C G C": {36, 6}, "e B G D A E B": {35, 7}, "d# A# F# C# G# D#": {39, 6}, "eb Bb Gb Db Ab Eb": {39, 6},
	} {
		s, err := tabtext.Read(rowsOf(names, map[string]string{strings.Fields(names)[2]: "-5h7-"}), g)
		require.NoError(t, err, names)
		require.Len(t, s.Tuning, c.strings, names)
		assert.Equal(t, c.lowest, s.Tuning[c.strings-1], names)
		assert.Equal(t, s.Tuning[2]+5, s.Notes[0].MIDI, names)
	}
	s, err := tabtext.Read(rowsOf("e B G D A E", map[string]string{"G": "-5-"}), g)
	require.NoError(t, err)
	assert.Nil(t, s.Tuning, "as the guitar is tuned")
}

// What cannot be read is told with where reading stopped.
func TestWhereReadingStops(t *testing.T) {
	for text, says := range map[string]string{
		"3:5h7 2:8 zzz 1:5": `after 3:5h7 2:8, "zzz" cannot be read`,
		"3:5h7, 9:5":        "no string 9",
		"5h7 3:5":           `after its beginning, "5h7" cannot be read`,
		"F|-5-\nC|-7-":      "no 2 strings of this guitar are tuned to",
	} {
		_, err := tabtext.Read(text, g)
		assert.ErrorContains(t, err, says, text)
	}
}

// Reading takes as long as the text, whatever stands in it: ten times the text no more than
// some twenty times as long, where growing with its square would be a hundred.
func BenchmarkALongTab(b *testing.B) {
	for _, systems := range []int{20, 200} {
		text := strings.Repeat(rowsOf("e B G D A E", map[string]string{"G": strings.Repeat("-5h7p5-", 14)})+"\n\n", systems)
		b.Run(time.Duration(systems).String(), func(b *testing.B) {
			for b.Loop() {
				_, _ = tabtext.Read(text, guitar.Standard())
			}
		})
	}
}

func FuzzRead(f *testing.F) {
	for _, s := range []string{written, "3:5h7 2:8", "e|-5-\nB|---", "G|-7b(9r7~~*|x2", "-----\n-----", "1|<12>[5]{", "E|-\nE|-\nE|-"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		s, err := tabtext.Read(text, g)
		if err != nil {
			return
		}
		for _, n := range s.Notes {
			if n.String < 1 || n.Fret < 0 || n.Fret > guitar.MaxFrets {
				t.Fatalf("%+v", n)
			}
		}
	})
}
