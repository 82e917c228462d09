package advice_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// waiting makes all notes from one on later.
func waiting(notes []listen.Note, from int, seconds float64) []listen.Note {
	out := slices.Clone(notes)
	for i := from; i < len(out); i++ {
		out[i].Onset += seconds
		out[i].End += seconds
	}
	return out
}

// What a player did besides playing on is said first, as a teacher would, with how even the
// rest was.
func TestWhatWasDoneIsSaidFirst(t *testing.T) {
	c := chartOf(t, 2)
	even := exact(c, none)
	twice := waiting(even, 20, 0.3)
	again := twice[19]
	again.Onset += 0.3
	twice = slices.Insert(twice, 20, again)
	higher := slices.Clone(even)
	for i := range higher {
		higher[i].Pitch++
	}
	for text, heard := range map[string][]listen.Note{
		"You hesitated before pass 1, note 14, by a third of a second. Apart from that it was even: 0 ms.": waiting(even, 13, 0.35),
		"You stopped for 2.0 s before pass 1, note 14 and went on. Apart from that it was even: 0 ms.":     waiting(even, 13, 2),
		"You struck pass 2, note 2 twice. Apart from that it was even: 0 ms.":                              twice,
		"You left off after pass 2, note 2.":                                                               even[:20],
		"You played one fret too high, or with a capo on fret 1. Apart from that it was even: 0 ms.":       higher,
		"You went back from pass 1, note 9 to note 6. Apart from that it was even: 0 ms.":                  slices.Concat(even[:9], waiting(even[5:], 0, 4.0/3+0.5)),
		"You began again after pass 1, note 9. Apart from that it was even: 0 ms.":                         slices.Concat(even[:9], waiting(even, 0, 9.0/3+1)),
		"You hesitated 3 times, first before pass 1, note 5. Apart from that it was even: 0 ms.":           waiting(waiting(waiting(even, 4, 0.3), 15, 0.4), 25, 0.3),
	} {
		a := said(c, heard)
		require.NotEmpty(t, a.Findings, text)
		assert.Equal(t, "course", a.Findings[0].About)
		assert.Equal(t, text, a.Findings[0].Text)
		assert.Empty(t, a.Mistakes, "%s: what is told is not told again as a mistake", text)
		assert.Empty(t, a.Remedies, text)
	}
}

// What was skipped is one thing, and not as many mistakes; what is wrong besides is told after
// it.
func TestWhatWasLeftOutIsToldOnce(t *testing.T) {
	c := chartOf(t, 2)
	heard := exact(c, func(i int, _ chart.Note) float64 {
		if i >= 14 {
			return -4000.0 / 3
		}
		return 0
	})
	heard = slices.Delete(heard, 10, 14)
	heard[20].Pitch++
	a := said(c, heard)
	assert.Equal(t, []string{"course", "mistakes"}, abouts(a))
	assert.Equal(t, "You went on from pass 1, note 10 to note 15 and left out what is between.", a.Findings[0].Text)
	assert.Len(t, a.Mistakes, 1)
}

// A rest that is blamed for something is not called even.
func TestWhatIsBlamedIsNotCalledEven(t *testing.T) {
	c := chartOf(t, 6)
	heard := waiting(exact(c, func(_ int, n chart.Note) float64 {
		if n.Finger == 4 {
			return 12
		}
		return 0
	}), 31, 0.5)
	a := said(c, heard)
	assert.Equal(t, "course", a.Findings[0].About)
	assert.Contains(t, abouts(a), "late")
	assert.NotContains(t, a.Findings[0].Text, "even")
}

// Who holds another tempo, or comes in on another beat than the click, hears that; a bar later is
// on the beat, and nothing is known of a click that nobody has told of.
func TestWhatWasPlayedBesideTheClick(t *testing.T) {
	c := chartOf(t, 2)
	at := func(first float64) *float64 { return &first } // exact begins at 2 s, a beat is 1 s
	slower := exact(c, func(i int, _ chart.Note) float64 { return float64(i) * 1000 / 3 * 0.1 })
	for name, of := range map[string]struct {
		click *float64
		heard []listen.Note
		text  string
	}{
		"a beat late":  {at(1), exact(c, none), "You came in a beat late. Apart from that it was even: 0 ms."},
		"beats early":  {at(3.5), exact(c, none), "You came in 1.5 beats early. Apart from that it was even: 0 ms."},
		"a bar late":   {at(-2), exact(c, none), ""},
		"on the beat":  {at(2), exact(c, none), ""},
		"no click":     {nil, exact(c, none), ""},
		"other tempo":  {at(2), slower, "You held 55 bpm instead of 60. Apart from that it was even: 0 ms."},
		"begun before": {at(0), slices.Concat(exact(c, none)[:9], waiting(exact(c, none), 0, 4)), "You began again after pass 1, note 9. Apart from that it was even: 0 ms."},
	} {
		clicked := c
		clicked.ClickAt = of.click
		a := said(clicked, of.heard)
		if of.text == "" {
			assert.NotContains(t, abouts(a), "course", name)
		} else {
			assert.Equal(t, of.text, a.Findings[0].Text, name)
		}
	}
}
