package follow_test

import (
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

// pairs is a drill of 22 notes over all strings and back, two a beat.
func pairs(t require.TestingT) chart.Chart {
	d := drill.New("pairs", drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns})
	d.Path.Position, d.Path.Back, d.Rhythm.Passes = 7, drill.Returns, 1
	c, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	return c
}

// exact plays every note at its time, the first at start.
func exact(c chart.Chart, start, bpm float64) []listen.Note {
	var heard []listen.Note
	for _, n := range c.Unroll() {
		heard = append(heard, listen.Note{Onset: start + n.Beat*60/bpm, Pitch: float64(n.MIDI)})
	}
	return heard
}

func statuses(take follow.Take) map[follow.Status][]int {
	by := map[follow.Status][]int{}
	for _, m := range take.Matches {
		by[m.Status] = append(by[m.Status], m.Index)
	}
	return by
}

func without(notes []listen.Note, i int) []listen.Note {
	return append(append([]listen.Note{}, notes[:i]...), notes[i+1:]...)
}

func with(notes []listen.Note, i int, n listen.Note) []listen.Note {
	return append(append(append([]listen.Note{}, notes[:i]...), n), notes[i:]...)
}

func TestWhatBecameOfEachNote(t *testing.T) {
	written := pairs(t)
	played := exact(written, 2, 90)
	wrong := append([]listen.Note{}, played...)
	wrong[9].Pitch++
	between := listen.Note{Onset: (played[4].Onset + played[5].Onset) / 2, Pitch: 40}
	for name, c := range map[string]struct {
		heard  []listen.Note
		missed []int
		wrong  []int
		extras int
	}{
		"all right":             {played, nil, nil, 0},
		"one missed":            {without(played, 7), []int{7}, nil, 0},
		"two missed in a row":   {without(without(played, 7), 7), []int{7, 8}, nil, 0},
		"one wrong":             {wrong, nil, []int{9}, 0},
		"one extra":             {with(played, 5, between), nil, nil, 1},
		"the first missed":      {without(played, 0), []int{0}, nil, 0},
		"the last missed":       {without(played, 21), []int{21}, nil, 0},
		"started late":          {exact(written, 31, 90), nil, nil, 0},
		"an eighth slower":      {exact(written, 2, 79), nil, nil, 0},
		"missed, wrong, extra":  {with(without(wrong, 15), 5, between), []int{15}, []int{9}, 1},
		"a knock before it all": {append([]listen.Note{{Onset: 0.4, Pitch: 33}}, played...), nil, nil, 1},
	} {
		take := follow.Follow(written, c.heard)
		by := statuses(take)
		assert.Equal(t, c.missed, by[follow.Missed], "%s: missed", name)
		assert.Equal(t, c.wrong, by[follow.Wrong], "%s: wrong", name)
		assert.Len(t, take.Extras, c.extras, "%s: extras", name)
		assert.False(t, take.Foreign(), name)
	}
}

func TestAPauseInTheMiddleIsUnderstood(t *testing.T) {
	c := pairs(t)
	heard := exact(c, 2, 90)
	for i := 11; i < len(heard); i++ {
		heard[i].Onset += 3
	}
	assert.Equal(t, len(c.Notes), follow.Follow(c, heard).Count(follow.Played))
}

func TestAllPassesAreExpected(t *testing.T) {
	c := pairs(t)
	c.Passes = 3
	heard := exact(c, 2, 90)
	take := follow.Follow(c, heard[:44])
	assert.Len(t, take.Matches, 66)
	assert.Equal(t, 44, take.Count(follow.Played))
	assert.Equal(t, 22, take.Count(follow.Missed))
}

func TestAnotherDrillIsForeign(t *testing.T) {
	c := pairs(t)
	d := drill.New("other", drill.FingerPerFret{Orders: [][]int{{4, 2, 3, 1}}})
	d.Path.Position, d.Path.Strings = 2, []int{1, 2, 3, 4, 5, 6}
	d.Attacks.Rule, d.Rhythm.NotesPerBeat, d.Rhythm.Passes = drill.AllPicked, 4, 1
	other, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	assert.True(t, follow.Follow(c, exact(other, 2, 90)).Foreign())
	assert.True(t, follow.Follow(c, nil).Foreign(), "silence is no take of the drill")
	d.Pattern, d.Path.Position, d.Rhythm.NotesPerBeat = drill.FingerPerFret{Orders: [][]int{{2, 1, 3, 4}}}, 7, 4
	near, err := d.Chart(guitar.Standard(), 150)
	require.NoError(t, err)
	assert.True(t, follow.Follow(c, exact(near, 2, 150)).Foreign(), "on the same frets")
}

// A drill that has half of the notes of another, were that on other frets, is still another.
func TestAnotherDrillOnOtherFretsIsForeign(t *testing.T) {
	d := drill.New("pairs", drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns})
	d.Path.Strings = []int{4, 3, 2, 1}
	other := d
	other.Pattern, other.Attacks.Rule, other.Path.Position = drill.FingerPerFret{Orders: [][]int{{4, 1, 3, 2}}}, drill.AllPicked, 10
	for passes := range 3 {
		d.Rhythm.Passes, other.Rhythm.Passes = passes+1, passes+1
		c, err := d.Chart(guitar.Standard(), 120)
		require.NoError(t, err)
		played, err := other.Chart(guitar.Standard(), 120)
		require.NoError(t, err)
		assert.True(t, follow.Follow(c, exact(played, 2, 120)).Foreign(), "%d passes", passes+1)
	}
}

// Whatever notes are left out, the rest is laid on itself: nothing is wrong and
// nothing is extra.
func TestLeavingNotesOutMakesOnlyMissedNotes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := pairs(t)
		out := rapid.SliceOfNDistinct(rapid.IntRange(0, 21), 0, 4, rapid.ID).Draw(t, "out")
		gone := map[int]bool{}
		for _, i := range out {
			gone[i] = true
		}
		var heard []listen.Note
		for i, n := range exact(c, 1, 90) {
			if !gone[i] {
				n.Onset += rapid.Float64Range(-0.02, 0.02).Draw(t, "late")
				heard = append(heard, n)
			}
		}
		take := follow.Follow(c, heard)
		assert.Empty(t, take.Extras)
		assert.Zero(t, take.Count(follow.Wrong))
		assert.Equal(t, len(out), take.Count(follow.Missed))
	})
}
