package advice_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/advice"
	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
)

func chartOf(t *testing.T, passes int) chart.Chart {
	t.Helper()
	d := drill.New("test", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.HammerOns})
	d.Path.Strings, d.Path.Stay.Count = []int{3, 2, 1}, 2
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 3, passes
	c, err := d.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	return c
}

// exact is every note of the chart, moved by what off says, in ms.
func exact(c chart.Chart, off func(i int, n chart.Note) float64) []listen.Note {
	var heard []listen.Note
	for i, n := range c.Unroll() {
		at := 2 + n.Beat*60/c.BPM + off(i, n)/1000
		heard = append(heard, listen.Note{Onset: at, End: at + 1/c.NotesPerSecond(), Pitch: float64(n.MIDI), LevelDB: -20})
	}
	return heard
}

func none(int, chart.Note) float64 { return 0 }

func said(c chart.Chart, heard []listen.Note) advice.Advice {
	return advice.Of(evenness.Judge(follow.Follow(c, heard)), c)
}

func abouts(a advice.Advice) []string {
	var of []string
	for _, f := range a.Findings {
		of = append(of, f.About)
	}
	return of
}

// lateFourth is a little finger that comes late.
func lateFourth(_ int, n chart.Note) float64 {
	if n.Finger == 4 {
		return 40
	}
	return 0
}

// Mistakes head what is said, each with where it was and what was heard instead, before
// any word on evenness.
func TestMistakesAreSaidFirstAndWhere(t *testing.T) {
	c := chartOf(t, 2)
	heard := exact(c, lateFourth)
	heard[20].Pitch++                         // pass 2, note 3
	heard = append(heard[:8:8], heard[9:]...) // pass 1, note 9
	open := listen.Note{Onset: heard[25].Onset + 0.15, Pitch: 59, LevelDB: -22}
	heard = append(heard[:26:26], append([]listen.Note{open}, heard[26:]...)...)
	a := said(c, heard)
	assert.Equal(t, "34 of 36 notes right, 1 extra", a.Tally)
	require.Len(t, a.Mistakes, 3)
	assert.Equal(t, "pass 1, note 9: string 2 fret 8, little finger, missed", a.Mistakes[0].Text)
	assert.Equal(t, follow.Missed, a.Mistakes[0].Status)
	assert.Equal(t, 8, a.Mistakes[0].Index)
	assert.Equal(t, "pass 2, note 3: string 3 fret 8, little finger, fret 9 heard instead", a.Mistakes[1].Text)
	assert.Equal(t, "after pass 2, note 9: an open string touched", a.Mistakes[2].Text)
	assert.Empty(t, a.Mistakes[2].Status)
	require.NotEmpty(t, a.Findings)
	assert.Equal(t, "mistakes", a.Findings[0].About)
	assert.Equal(t, "34 of 36 notes right, 1 extra. Pass 1, note 9: string 2 fret 8, little finger, missed; pass 2, note 3: string 3 fret 8, little finger, fret 9 heard instead; after pass 2, note 9: an open string touched.", a.Findings[0].Text)
	assert.Equal(t, "late", a.Findings[1].About, "then the cause of the unevenness")
	assert.NotContains(t, abouts(a), "even")
}

// Three wrong notes in an even take: nothing is called even, or said not to stand out.
func TestWrongNotesAreNoEvenTake(t *testing.T) {
	c := chartOf(t, 2)
	heard := exact(c, none)
	for _, i := range []int{4, 13, 22} {
		heard[i].Pitch--
	}
	a := said(c, heard)
	assert.Equal(t, []string{"mistakes"}, abouts(a))
	for _, f := range a.Findings {
		assert.NotContains(t, strings.ToLower(f.Text), "nothing stands out")
	}
}

// Many mistakes are counted, the first three named, and all of them listed.
func TestManyMistakesAreCounted(t *testing.T) {
	c := chartOf(t, 2)
	heard := exact(c, none)
	for _, i := range []int{2, 5, 9, 14, 20} {
		heard[i].Pitch++
	}
	a := said(c, heard)
	assert.Len(t, a.Mistakes, 5)
	assert.True(t, strings.HasSuffix(a.Findings[0].Text, "; and 2 more."), a.Findings[0].Text)
	assert.Equal(t, 5, a.Findings[0].Count)
}

// What was not played because the player left is told as that, once.
func TestADrillThatWasLeftIsNoListOfMistakes(t *testing.T) {
	c := chartOf(t, 2)
	a := said(c, exact(c, none)[:20])
	assert.Empty(t, a.Mistakes)
	assert.Equal(t, "course", a.Findings[0].About)
	assert.Contains(t, a.Findings[0].Text, "left off after pass 2, note 2")
}

// Of something else one thing is said, without figures.
func TestOfSomethingElseOneThingIsSaid(t *testing.T) {
	c := chartOf(t, 2)
	heard := exact(c, none)
	for i := range heard {
		heard[i].Pitch = 60 + float64(i*7%12)
		heard[i].Onset = 2 + float64(i)*0.41
	}
	a := said(c, heard)
	assert.Equal(t, []string{"foreign"}, abouts(a))
	assert.Empty(t, a.Mistakes)
	assert.Empty(t, a.Remedies)
}

// Where two things are late, the one that explains more of the unevenness comes first,
// and the first remedy is for it.
func TestTheCauseThatExplainsMostComesFirst(t *testing.T) {
	c := chartOf(t, 4)
	crossing := func(i int, n chart.Note) float64 {
		notes := c.Unroll()
		if i > 0 && notes[i-1].String != n.String {
			return 70
		}
		return 0
	}
	both := func(i int, n chart.Note) float64 { return crossing(i, n) + lateFourth(i, n)*0.3 }
	a := said(c, exact(c, both))
	assert.Equal(t, "crossing", a.Findings[0].About, a.Findings)
	require.NotEmpty(t, a.Remedies)
	assert.Contains(t, a.Remedies[0].Drill.Name, "string change")

	a = said(c, exact(c, lateFourth))
	assert.Equal(t, "late", a.Findings[0].About)
	assert.Contains(t, a.Remedies[0].Drill.Name, "2 to 4")
}

// A pair that varies though it is in time on average is said with both figures, as the
// table of fingers shows them.
func TestTheHeadlineAndTheTableSayTheSame(t *testing.T) {
	c := chartOf(t, 4)
	k := 0
	wavers := func(_ int, n chart.Note) float64 {
		if n.Finger == 4 {
			k++
			return 33 * float64(1-2*(k/2%2))
		}
		return 0
	}
	a := evenness.Judge(follow.Follow(c, exact(c, wavers)))
	text := ""
	for _, f := range advice.Of(a, c).Findings {
		if f.About == "uneven" {
			text = f.Text
		}
	}
	require.NotEmpty(t, text)
	assert.Contains(t, text, "in time, but it varies by 33 ms")
}

func TestAnEvenTakeNeedsNothing(t *testing.T) {
	c := chartOf(t, 2)
	a := said(c, exact(c, none))
	assert.Equal(t, []string{"even"}, abouts(a))
	assert.Empty(t, a.Remedies)
	assert.Empty(t, a.Mistakes)
}

// Each remedy is a drill that can be written out, starts at 70 % of the tempo at
// which its notes came, and there are two at the most.
func TestRemediesAreReadyDrills(t *testing.T) {
	written := chartOf(t, 4)
	a := said(written, exact(written, lateFourth))
	require.NotEmpty(t, a.Remedies)
	assert.LessOrEqual(t, len(a.Remedies), 2)
	for _, r := range a.Remedies {
		assert.Empty(t, r.Ladder.Check(r.Drill.Rhythm.NotesPerBeat), r.Drill.Name)
		c, err := r.Drill.Chart(guitar.Standard(), r.Ladder.StartBPM)
		require.NoError(t, err, r.Drill.Name)
		assert.InDelta(t, 0.7*written.NotesPerSecond(), c.NotesPerSecond(), 0.1)
		assert.NotEmpty(t, r.Reason)
	}
	c, err := a.Remedies[0].Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	assert.Equal(t, 2, c.Notes[0].Finger)
	assert.Equal(t, 4, c.Notes[1].Finger)
	assert.Equal(t, chart.Hammer, c.Notes[1].Attack)
}

// What is wrong with every note comes before a finger that explains little of the
// unevenness; one that explains most of it comes first.
func TestHowNotesAreJoinedComesBeforeACauseThatExplainsLittle(t *testing.T) {
	c := chartOf(t, 4)
	for lateMs, first := range map[float64]string{20: "gaps", 60: "late"} {
		rng := rand.New(rand.NewPCG(3, 5))
		heard := exact(c, func(_ int, n chart.Note) float64 {
			off := 16 * rng.NormFloat64()
			if n.Finger == 4 {
				off += lateMs
			}
			return off
		})
		for i := range heard[1:] {
			heard[i].End = heard[i].Onset + 0.6*(heard[i+1].Onset-heard[i].Onset)
		}
		a := said(c, heard)
		assert.Equal(t, first, a.Findings[0].About, "%v", a.Findings)
		assert.Contains(t, abouts(a), "late")
		assert.Contains(t, abouts(a), "gaps")
	}
}

// Of a hand that strays alike everywhere no spot is named but by chance, and seldom: no
// finger, no string change, no tiring.
func TestOfAHandThatStraysAlikeNoSpotIsNamed(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	rng := rand.New(rand.NewPCG(1, 2))
	for _, passes := range []int{2, 4} {
		c := chartOf(t, passes)
		of := map[string]int{}
		const takes = 400
		for range takes {
			for _, about := range abouts(said(c, exact(c, func(int, chart.Note) float64 { return 10 * rng.NormFloat64() }))) {
				of[about]++
			}
		}
		named := 0
		for _, about := range []string{"late", "uneven", "hurried", "crossing", "shift", "drift", "click"} {
			named += of[about]
		}
		assert.Less(t, named, takes*6/100, "%d passes: %v", passes, of)
		assert.Less(t, of["tires"], takes*3/100, "%d passes", passes)
		assert.Greater(t, of["everywhere"], takes*8/10, "%d passes: %v", passes, of)
	}
}

// One finger that strays by far more than the others is the least sure.
func TestTheFingerThatVariesMostIsNamed(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	c := chartOf(t, 4)
	a := said(c, exact(c, func(_ int, n chart.Note) float64 {
		if n.Finger == 4 {
			return 30 * rng.NormFloat64()
		}
		return 4 * rng.NormFloat64()
	}))
	assert.Equal(t, "uneven", a.Findings[0].About, a.Findings)
	assert.Contains(t, a.Findings[0].Text, "The little finger after the middle finger")
}
