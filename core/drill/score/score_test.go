package score_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/drilltest"
)

// melody is a score of pitches, some beats apart.
func melody(gap float64, midi ...int) score.Score {
	s := score.Score{Name: "air", BPM: 80}
	for i, m := range midi {
		s.Notes = append(s.Notes, score.Note{Beat: float64(i) * gap, MIDI: m})
	}
	return s
}

func adopted(t *testing.T, s score.Score) (drill.Drill, string) {
	t.Helper()
	d, told, err := s.Adopt(guitar.Standard())
	require.NoError(t, err)
	return d, strings.Join(told, " ")
}

// What fits on one string, or two neighbours, lies there with one finger a fret.
func TestPlacesAreProposed(t *testing.T) {
	for name, c := range map[string]struct {
		midi []int
		want string
	}{
		"one string":    {[]int{60, 62, 64}, "3:5-7-9"},
		"two strings":   {[]int{60, 62, 64, 65, 67}, "3:5-7 2:5-6-8"},
		"open position": {[]int{40, 43, 45}, "6:0-3 5:0"},
		"only on top":   {[]int{84, 86}, "1:20-22"},
	} {
		d, told := adopted(t, melody(0.5, c.midi...))
		got := drilltest.Frets(drilltest.Chart(t, d).Notes)
		assert.Contains(t, told, "Strings and frets are proposed", name)
		assert.LessOrEqual(t, len(strings.Fields(got)), 2, "%s: %s", name, got)
		for i, n := range drilltest.Chart(t, d).Notes {
			assert.Equal(t, c.midi[i], n.MIDI, "%s: %s", name, got)
		}
	}
}

func TestTheBeatIsFound(t *testing.T) {
	for gap, perBeat := range map[float64]int{1: 1, 0.5: 2, 1.0 / 3: 3, 0.25: 4, 1.0 / 6: 6, 0.125: 8} {
		d, told := adopted(t, melody(gap, 60, 62, 64, 65))
		assert.Equal(t, perBeat, d.Rhythm.NotesPerBeat, "%g beats apart", gap)
		assert.NotContains(t, told, "not all equally long")
	}
	uneven := melody(0.5, 60, 62, 64, 65)
	uneven.Notes[3].Beat = 4
	d, told := adopted(t, uneven)
	assert.Equal(t, 2, d.Rhythm.NotesPerBeat)
	assert.Contains(t, told, "here they come evenly, 2 notes a beat")
}

func TestStrokesBecomeARule(t *testing.T) {
	strokes := func(of ...chart.Stroke) score.Score {
		s := melody(0.5, 60, 62, 64, 65)
		for i := range s.Notes {
			s.Notes[i].Stroke, s.Notes[i].Attack = of[i], chart.Pick
		}
		return s
	}
	d, told := adopted(t, strokes(chart.UpStroke, chart.DownStroke, chart.UpStroke, chart.DownStroke))
	assert.Equal(t, drill.Strokes{Rule: drill.Alternate, FromUp: true}, d.Strokes)
	assert.NotContains(t, told, "no rule")
	d, _ = adopted(t, strokes(chart.DownStroke, chart.DownStroke, chart.DownStroke, chart.DownStroke))
	assert.Equal(t, drill.AllDown, d.Strokes.Rule)
	d, _ = adopted(t, strokes(chart.Index, chart.Middle, chart.Index, chart.Middle))
	assert.Equal(t, drill.ByFingers, d.Strokes.Rule)
	d, told = adopted(t, strokes(chart.DownStroke, chart.UpStroke, chart.UpStroke, chart.DownStroke))
	assert.Equal(t, drill.Alternate, d.Strokes.Rule)
	assert.Contains(t, told, "follow no rule")
}

func TestAnotherTuningIsUnderstoodByWhatSounds(t *testing.T) {
	s := score.Score{Tuning: []int{63, 58, 54, 49, 44, 39}, Notes: []score.Note{
		{Beat: 0, MIDI: 60, String: 3, Fret: 6, Finger: 2}, {Beat: 0.5, MIDI: 62, String: 3, Fret: 8, Finger: 4},
	}}
	d, told := adopted(t, s)
	assert.Contains(t, told, "another tuning")
	notes := drilltest.Chart(t, d).Notes
	assert.Equal(t, []int{60, 62}, []int{notes[0].MIDI, notes[1].MIDI})
	assert.Equal(t, "From a file", d.Name)
}

func TestBendsAreKeptWhereTheyAreHeld(t *testing.T) {
	s := melody(0.5, 64, 66)
	for i := range s.Notes {
		s.Notes[i].String, s.Notes[i].Fret, s.Notes[i].Bend = 3, s.Notes[i].MIDI-55-2, 2
	}
	d, told := adopted(t, s)
	assert.Equal(t, 2, d.Fingering.BendHeld)
	assert.NotContains(t, told, "left out")
	s.Notes[1].Bend = 1
	s.Notes[1].MIDI--
	d, told = adopted(t, s)
	assert.Zero(t, d.Fingering.BendHeld)
	assert.Contains(t, told, "Bends that change from note to note are left out")
}

func TestScoresThatCannotBeAdopted(t *testing.T) {
	g := guitar.Standard()
	_, _, err := score.Score{}.Adopt(g)
	assert.ErrorContains(t, err, "no notes")
	_, _, err = melody(0.5, 60, 20).Adopt(g)
	assert.ErrorContains(t, err, "note 2, G♯0, lies nowhere on this guitar")
	long := make([]int, drill.MaxFreeNotes+1)
	for i := range long {
		long[i] = 60
	}
	_, _, err = melody(0.5, long...).Adopt(g)
	assert.ErrorContains(t, err, "cut it to the part to be drilled")
}

func TestAChartAsAScore(t *testing.T) {
	d := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 3}), drilltest.At(7, 3))
	s := score.Of(drilltest.Chart(t, d))
	assert.Equal(t, 4, s.BeatsPerBar)
	assert.Equal(t, 1, s.Passes)
	assert.Equal(t, score.Note{Beat: 0.5, MIDI: 64, String: 3, Fret: 9, Finger: 3, Hand: chart.FrettingHand, Attack: chart.Hammer}, s.Notes[1])
}

// A file's title may be anything; a drill's name is seen, and fits.
func TestATitleBecomesAName(t *testing.T) {
	for title, want := range map[string]string{
		"": "From a file", " \n ": "From a file", "two\r\nlines\x00": "two  lines", "caf\xe9": "caf",
		strings.Repeat("ä", 500): strings.Repeat("ä", 120), "Étude 1": "Étude 1",
	} {
		d, _, err := score.Score{Name: title, Notes: []score.Note{{String: 3, Fret: 5, MIDI: 60}}}.Adopt(guitar.Standard())
		require.NoError(t, err)
		assert.Equal(t, want, d.Name, "%q", title)
	}
}
