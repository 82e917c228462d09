package follow_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
)

// happened writes the events of a take: what, before which note, and where to.
func happened(take follow.Take) string {
	var all []string
	for _, e := range take.Events {
		text := fmt.Sprintf("%s %d", e.Kind, e.Before)
		if e.To != nil {
			text += fmt.Sprintf(" to %d", *e.To)
		}
		all = append(all, text)
	}
	return strings.Join(all, ", ")
}

// waiting makes all notes from one on later.
func waiting(notes []listen.Note, from int, seconds float64) []listen.Note {
	return append(slices.Clone(notes[:from]), later(notes[from:], seconds)...)
}

// goingOn plays some notes and then others, the first of those so long after the last.
func goingOn(first, then []listen.Note, seconds float64) []listen.Note {
	return append(slices.Clone(first), later(then, first[len(first)-1].Onset+seconds-then[0].Onset)...)
}

// strikingAgain strikes the note before one once more, and goes on from that.
func strikingAgain(notes []listen.Note, before int, seconds float64) []listen.Note {
	again := notes[before-1]
	again.Onset += seconds
	return with(waiting(notes, before, seconds), before, again)
}

// correcting plays one note a fret too high first.
func correcting(notes []listen.Note, at int, seconds float64) []listen.Note {
	wrong := notes[at]
	wrong.Pitch++
	return with(waiting(notes, at, seconds), at, wrong)
}

// What a player does besides playing on is told as that, at its place: notes are a third of
// a second apart.
func TestWhatHappenedIsTold(t *testing.T) {
	c := pairs(t)
	all := exact(c, 2, 90)
	for name, one := range map[string]struct {
		heard         []listen.Note
		told          string
		played, extra int
		aside         int
	}{
		"nothing":                     {all, "", 22, 0, 0},
		"a wait of a fifth":           {waiting(all, 9, 0.2), "hesitation 9", 22, 0, 0},
		"a wait before a note missed": {without(waiting(all, 9, 0.5), 9), "hesitation 9", 21, 0, 0},
		"a long wait":                 {waiting(all, 9, 1.5), "stop 9", 22, 0, 0},
		"two waits":                   {waiting(waiting(all, 5, 0.3), 15, 0.4), "hesitation 5, hesitation 15", 22, 0, 0},
		"a note struck twice":         {strikingAgain(all, 9, 0.25), "double 9", 22, 1, 0},
		"struck twice, in time":       {with(all, 9, later(all[8:9], 0.17)[0]), "double 9", 22, 1, 0},
		"a correction":                {correcting(all, 9, 0.25), "correction 9", 22, 1, 0},
		"begun again":                 {goingOn(all[:8], all, 1), "restart 8 to 0", 22, 0, 8},
		"begun again at once":         {goingOn(all[:8], all, 0.21), "restart 8 to 0", 22, 0, 8},
		"begun again twice":           {goingOn(all[:5], goingOn(all[:8], all, 1), 1), "restart 5 to 0, restart 8 to 0", 22, 0, 13},
		"gone back":                   {goingOn(all[:12], all[9:], 0.5), "replay 12 to 9", 22, 0, 3},
		"left out, straight on":       {goingOn(all[:7], all[11:], 1.0/3), "skip 7 to 11", 18, 0, 0},
		"left out, in time":           {slices.Delete(slices.Clone(all), 7, 9), "", 20, 0, 0},
		"left off":                    {all[:12], "left 12", 12, 0, 0},
	} {
		take := follow.Follow(c, one.heard)
		assert.Equal(t, one.told, happened(take), name)
		assert.Equal(t, one.played, take.Count(follow.Played), "%s: played", name)
		assert.Zero(t, take.Count(follow.Wrong), "%s: wrong", name)
		assert.Len(t, take.Extras, one.extra, "%s: extra", name)
		assert.Len(t, take.Aside, one.aside, "%s: aside", name)
	}
}

// What sounds before the first note, at its pitch too, is not that note.
func TestWhatSoundsBeforeTheFirstNoteIsNotIt(t *testing.T) {
	c := pairs(t)
	all := exact(c, 4, 90)
	before := all[0]
	before.Onset -= 1.9
	take := follow.Follow(c, with(all, 0, before))
	assert.InDelta(t, 4, take.Start(), 1e-9)
	assert.Len(t, take.Extras, 1)
	assert.Empty(t, take.Events)
}

// However much is said in the middle of a drill, it goes on where it was.
func TestAWordInTheMiddleIsNoMistake(t *testing.T) {
	c := pairs(t)
	all := exact(c, 2, 90)
	heard := slices.Clone(all[:11])
	for i := range 14 {
		heard = append(heard, listen.Note{Onset: all[10].Onset + 0.3 + 0.2*float64(i), Pitch: 43 + float64(i*5%7)})
	}
	heard = append(heard, later(all[11:], 4)...)
	take := follow.Follow(c, heard)
	assert.Equal(t, 22, take.Count(follow.Played))
	assert.Equal(t, "stop 11", happened(take))
	assert.Len(t, take.Extras, 14)
}

// All of it on other frets is one thing, and no mistakes.
func TestATakeOnOtherFretsIsUnderstood(t *testing.T) {
	c := pairs(t)
	for _, by := range []int{-12, -5, -1, 1, 2, 5, 12} {
		heard := exact(c, 2, 90)
		for i := range heard {
			heard[i].Pitch += float64(by)
		}
		take := follow.Follow(c, heard)
		assert.Equal(t, by, take.Transposed)
		assert.Equal(t, 22, take.Count(follow.Played), "%+d", by)
		assert.Equal(t, "transposed 0", happened(take), "%+d", by)
		assert.Equal(t, by, take.Events[0].Semitones)
	}
}

// One note that comes late, or a finger that always does, is no wait.
func TestALateNoteIsNoWait(t *testing.T) {
	c := pairs(t)
	one := exact(c, 2, 90)
	one[9].Onset += 0.25
	assert.Empty(t, follow.Follow(c, one).Events, "the next one is in time again")
	all := exact(c, 2, 90)
	for i := range all {
		if c.Notes[i].Finger == 3 {
			all = waiting(all, i, 0.12)
		}
	}
	assert.Empty(t, follow.Follow(c, all).Events, "it is how this finger plays")
}

// swung plays the second of each two notes later than written: the first takes so much of the
// time of both.
func swung(c chart.Chart, share float64) []listen.Note {
	heard := exact(c, 2, 90)
	for i := range heard {
		if i%2 == 1 {
			heard[i].Onset += (2*share - 1) / 3
		}
	}
	return heard
}

// Who swings is told so, and no finger is late. Where one finger plays all the second notes,
// a little more is that finger's.
func TestSwingIsUnderstood(t *testing.T) {
	d := drill.New("runs", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}})
	d.Path.Position, d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 5, 2, 1
	runs, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	for _, one := range []struct {
		chart chart.Chart
		share float64
		told  string
	}{
		{runs, 0.62, "swing 0"}, {runs, 0.67, "swing 0"}, {runs, 0.53, ""}, {runs, 0.5, ""},
		{pairs(t), 0.67, "swing 0"}, {pairs(t), 0.6, ""},
	} {
		take := follow.Follow(one.chart, swung(one.chart, one.share))
		assert.Equal(t, one.told, happened(take), "%s %g", one.chart.Name, one.share)
		if one.told != "" {
			assert.InDelta(t, one.share, take.Events[0].Share, 1e-9)
			assert.InDelta(t, one.share, take.Matches[1].Chart.Beat-take.Matches[0].Chart.Beat, 1e-9, "and expected so")
		}
	}
}

// However unevenly a take is played, a wait in it is told where it was, and once.
func TestAWaitIsToldWhereItWas(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := pairs(t)
		heard := exact(c, 2, 90)
		for i := range heard {
			heard[i].Onset += rapid.Float64Range(-0.012, 0.012).Draw(t, "off")
		}
		before := rapid.IntRange(3, 19).Draw(t, "before")
		heard = waiting(heard, before, rapid.Float64Range(0.25, 0.9).Draw(t, "seconds"))
		take := follow.Follow(c, heard)
		assert.Equal(t, fmt.Sprintf("hesitation %d", before), happened(take))
		assert.Equal(t, []int{before}, take.Breaks)
		assert.Equal(t, 22, take.Count(follow.Played))
	})
}

// A drill begun again, however often, is judged by its last beginning: all before it is set
// aside.
func TestOnlyTheLastBeginningCounts(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := pairs(t)
		all := exact(c, 2, 90)
		heard := all
		for range rapid.IntRange(1, 12).Draw(t, "times") {
			part := rapid.IntRange(3, 15).Draw(t, "notes")
			heard = goingOn(all[:part], heard, rapid.Float64Range(0.3, 2).Draw(t, "pause"))
		}
		take := follow.Follow(c, heard)
		assert.Equal(t, 22, take.Count(follow.Played))
		assert.Empty(t, take.Extras)
		assert.InDelta(t, heard[len(heard)-22].Onset, take.Start(), 1e-9)
	})
}
