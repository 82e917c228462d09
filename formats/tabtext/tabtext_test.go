package tabtext_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/formats/tabtext"
)

var g = guitar.Standard()

const written = `Twos and threes
90 bpm, 2 notes a beat, 2 beats a bar, 1 pass
tuning E4 B3 G3 D3 A2 E2

s| D           U
1|----------------|----|
2|-------------5--|-h8-|
3|-5---h7--p5-----|----|
4|----------------|----|
5|----------------|----|
6|----------------|----|
f| 1   3   1   1    4
`

func twosAndThrees() score.Score {
	return score.Score{
		Name: "Twos and threes", BPM: 90, BeatsPerBar: 2, NotesPerBeat: 2, Passes: 1, Tuning: []int{64, 59, 55, 50, 45, 40},
		Notes: []score.Note{
			{Beat: 0, MIDI: 60, String: 3, Fret: 5, Finger: 1, Hand: chart.FrettingHand, Attack: chart.Pick, Stroke: chart.DownStroke},
			{Beat: 0.5, MIDI: 62, String: 3, Fret: 7, Finger: 3, Hand: chart.FrettingHand, Attack: chart.Hammer},
			{Beat: 1, MIDI: 60, String: 3, Fret: 5, Finger: 1, Hand: chart.FrettingHand, Attack: chart.Pull},
			{Beat: 1.5, MIDI: 64, String: 2, Fret: 5, Finger: 1, Hand: chart.FrettingHand, Attack: chart.Pick, Stroke: chart.UpStroke},
			{Beat: 2, Bar: 1, MIDI: 67, String: 2, Fret: 8, Finger: 4, Hand: chart.FrettingHand, Attack: chart.Hammer},
		},
	}
}

// The form as docs/formats.md describes it, written out by hand.
func TestTheWrittenForm(t *testing.T) {
	assert.Equal(t, written, tabtext.Write(twosAndThrees()))
	back, err := tabtext.Read(written, g)
	require.NoError(t, err)
	assert.Equal(t, twosAndThrees(), back)
}

// places writes what was read in short: string/fret and attack.
func places(s score.Score) string {
	var out []string
	for _, n := range s.Notes {
		attack := "?"
		if n.Attack != "" {
			attack = string(n.Attack[0])
		}
		out = append(out, fmt.Sprintf("%d/%d%s", n.String, n.Fret, attack))
	}
	return strings.Join(out, " ")
}

func TestTabAsOthersTypeIt(t *testing.T) {
	six := func(second, third string) string {
		empty := strings.Repeat("-", len(second))
		return strings.Join([]string{"e|" + empty, "B|" + second, "G|" + third, "D|" + empty, "A|" + empty, "E|" + empty}, "\n")
	}
	for name, c := range map[string]struct{ text, want string }{
		"run together":            {six("-------", "-5h7p5-"), "3/5p 3/7h 3/5p"},
		"apart":                   {six("----------", "-5-h7-p5--"), "3/5p 3/7h 3/5p"},
		"two digits":              {six("-------8-", "-10-12---"), "3/10? 3/12? 2/8?"},
		"at once":                 {six("--8--", "--7--"), "2/8?"},
		"slides":                  {six("-------", "-5/7\\5-"), "3/5p 3/7s 3/5s"},
		"taps and nowhere":        {six("----------", "-n5-h8-t12"), "3/5n 3/8h 3/12t"},
		"numbered single strings": {"3|--5-7--", "3/5? 3/7?"},
		"two numbered strings":    {"2|-----8--\n3|--5-----", "3/5? 2/8?"},
		"in short":                {"3:5h7 2:8p5", "3/5p 3/7h 2/8p 2/5p"},
		"in short with dashes":    {"1:5-7-8", "1/5? 1/7? 1/8?"},
		"Windows line ends":       {"3|--5-7--\r\n", "3/5? 3/7?"},
		"two rows of strings":     {"3|--5--\n\n3|--7--\n", "3/5? 3/7?"},
	} {
		s, err := tabtext.Read(c.text, g)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, places(s), name)
		for i, n := range s.Notes {
			assert.InDelta(t, float64(i)/2, n.Beat, 1e-9, "%s: two a beat where nothing is said", name)
		}
	}
}

func TestAnotherTuningIsTold(t *testing.T) {
	s, err := tabtext.Read("drop\n80 bpm, 4 notes a beat, 4 beats a bar, 2 passes\ntuning E4 B3 G3 D3 A2 D2\nheld bend 2\n\n6|-5--", g)
	require.NoError(t, err)
	assert.Equal(t, 38, s.Tuning[5], "D2 (MIDI 1.0 note numbers)")
	assert.Equal(t, 38+5+2, s.Notes[0].MIDI, "sounding: open string + fret + held bend")
	assert.Equal(t, 2, s.Passes)
}

func TestTextThatIsNoTab(t *testing.T) {
	for name, c := range map[string]struct{ text, says string }{
		"prose":         {"Dear teacher,\nI practised - a lot.", "no tablature"},
		"empty":         {"", "no tablature"},
		"empty strings": {"1|-----\n2|-----", "no tablature"},
		"wrong number":  {"-5-7-\n-5-7-\n-5-7-", "3 lines, but the guitar has 6 strings"},
		"string 8":      {"8|-5-", "no string 8"},
		"short 0":       {"0:5", "no string 0"},
		"long fret":     {"3|-123-", "123 on string 3 is no fret"},
	} {
		_, err := tabtext.Read(c.text, g)
		require.Error(t, err, name)
		assert.Contains(t, err.Error(), c.says, name)
	}
}
