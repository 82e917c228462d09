package drill_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/guitar"
)

// remark returns what the review says of one kind, if anything.
func remark(t *testing.T, d drill.Drill, check string) (drill.Remark, bool) {
	t.Helper()
	for _, r := range d.Review(chartOf(t, d), guitar.Standard(), guitar.UsualHand()) {
		if r.Check == check {
			return r, true
		}
	}
	return drill.Remark{}, false
}

func own(notes ...drill.FreeNote) drill.Drill {
	d := a(drill.Free{Notes: notes})
	d.Path.Position, d.Path.Strings = drill.Free{Notes: notes}.Home()
	return d
}

// Each check fires on a drill made for it, and its mending works.
func TestChecksFireAndAreMended(t *testing.T) {
	for name, c := range map[string]struct {
		drill drill.Drill
		check string
		says  string
	}{
		"hammer-on downwards": {own(drill.FreeNote{String: 3, Fret: 7}, drill.FreeNote{String: 3, Fret: 5, Attack: drill.Hammer}), "slur", "a hammer-on goes up"},
		"pull-off upwards":    {own(drill.FreeNote{String: 3, Fret: 5}, drill.FreeNote{String: 3, Fret: 7, Attack: drill.Pull}), "slur", "a pull-off goes down"},
		"slur across strings": {own(drill.FreeNote{String: 3, Fret: 5}, drill.FreeNote{String: 2, Fret: 7, Attack: drill.Hammer}), "slur", "a new string needs"},
		"same finger":         {own(drill.FreeNote{String: 3, Fret: 5, Finger: 1}, drill.FreeNote{String: 3, Fret: 7, Finger: 1, Attack: drill.Hammer}), "slur", "two different fingers"},
		"fingers cross":       {own(drill.FreeNote{String: 3, Fret: 5, Finger: 3}, drill.FreeNote{String: 3, Fret: 7, Finger: 1}), "order", "the higher fret takes the higher finger"},
		"near the nut":        {own(drill.FreeNote{String: 3, Fret: 1, Finger: 1}, drill.FreeNote{String: 3, Fret: 5, Finger: 4}), "reach", "It fits from position"},
		"two whole steps":     {own(drill.FreeNote{String: 4, Fret: 7}, drill.FreeNote{String: 4, Fret: 9}, drill.FreeNote{String: 4, Fret: 11}), "stretch", "1-3-4"},
		"five in fours":       {a(drill.SlurCombinations{Combinations: [][]int{{1, 2, 3}}, Slur: drill.BothSlurs}, at(5, 3), perBeat(4), func(d *drill.Drill) { d.Rhythm.BeatsPerBar = 1 }), "cycle", "after 4 passes, 20 notes"},
		"stroke flips":        {a(drill.FingerPerFret{Orders: [][]int{{1, 2, 3}}}, at(5, 3, 2), rule(drill.AllPicked), perBeat(3)), "strokes", "The stroke flips"},
		"hands meet":          {a(drill.TwoHands{Fretted: []int{0, 5}, Tapped: []int{5, 7}}, at(5, 3, 2), rule(drill.NoPluck)), "hands", "The hands meet at string 2 fret 10"},
	} {
		r, found := remark(t, c.drill, c.check)
		require.True(t, found, name)
		assert.Contains(t, r.Text, c.says, name)
		require.NotEmpty(t, r.Mends, name)
		mended := r.Mends[0].Drill
		require.Empty(t, mended.Check(guitar.Standard()), name)
		after, still := remark(t, mended, c.check)
		if c.check == "stretch" {
			assert.Contains(t, after.Mends[0].Text, "1-2-4", "%s: the other choice is offered in turn", name)
			continue
		}
		assert.False(t, still, "%s: mended, but still %q", name, after.Text)
	}
}

func TestAPlainDrillHasNoRemark(t *testing.T) {
	d := a(slurs(drill.HammerOns, []int{1, 2}), at(7, 6, 5, 4, 3))
	assert.Empty(t, d.Review(chartOf(t, d), guitar.Standard(), guitar.UsualHand()))
}

func TestAStringSkippedIsToldWithItsNotes(t *testing.T) {
	d := a(drill.StringPair{Orders: [][]int{{1, 3, 2, 4}}}, at(5, 5, 3), rule(drill.AllPicked))
	r, found := remark(t, d, "strokes")
	require.True(t, found)
	assert.Contains(t, r.Text, "3 strokes skip a string")
	assert.Equal(t, []int{1, 2, 3}, r.Notes)
}

// A shorter hand needs a higher position: 4 frets from 1 to 4 span 97 mm at the
// nut and 77 mm from fret 5 (DESIGN values of a 648 mm scale).
func TestReachFollowsTheHand(t *testing.T) {
	d := a(drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}}, at(1, 3), rule(drill.AllPicked))
	small := guitar.Hand{"14": 77.5}
	for _, r := range d.Review(chartOf(t, d), guitar.Standard(), small) {
		if r.Check == "reach" {
			assert.Contains(t, r.Text, "must span 97 mm at frets 1 and 4")
			require.Len(t, r.Mends, 1)
			assert.Equal(t, 5, r.Mends[0].Drill.Path.Position)
			return
		}
	}
	t.Error("the stretch was not seen")
}

func TestTheNeckEndsWhereTheBodyBegins(t *testing.T) {
	g := guitar.Standard()
	g.Reachable = 17
	d := a(slurs(drill.HammerOns, []int{1, 4}), at(15, 1))
	faults := d.Check(g)
	require.Len(t, faults, 1)
	assert.Contains(t, faults[0].Text, "the hand reaches only to fret 17")
	require.Len(t, faults[0].Mends, 1)
	assert.Equal(t, 14, faults[0].Mends[0].Drill.Path.Position)
	assert.Empty(t, faults[0].Mends[0].Drill.Check(g))
}

// Which strings ring unless they are damped (common practice).
func TestDamping(t *testing.T) {
	d := a(slurs(drill.HammerOns, []int{1, 2}), at(5, 4, 3))
	got := drill.DampingOf(chartOf(t, d))
	assert.Equal(t, []drill.Damping{
		{From: 0, To: 1, String: 4, Thicker: []int{5, 6}, Thinner: []int{1, 2, 3}, With: drill.FirstFinger},
		{From: 2, To: 3, String: 3, Thicker: []int{4, 5, 6}, Thinner: []int{1, 2}, With: drill.FirstFinger},
	}, got)
	open := drill.DampingOf(chartOf(t, a(slurs(drill.HammerOns, []int{0, 2}), at(5, 3))))
	assert.Equal(t, drill.OtherFinger, open[0].With)
	tapped := drill.DampingOf(chartOf(t, a(drill.Tapping{Low: 1, Middle: 3, TapAt: 7, Order: drill.TapInTurn}, at(5, 3))))
	assert.Equal(t, drill.StringDamp, tapped[0].With)
}

func TestDifficultyGrowsWithWhatIsHard(t *testing.T) {
	total := func(d drill.Drill, w drill.Weights) float64 {
		return drill.DifficultyOf(chartOf(t, d), guitar.Standard(), guitar.UsualHand(), w).Total
	}
	usual := drill.UsualWeights()
	easy := a(slurs(drill.HammerOns, []int{1, 2}), at(9, 3))
	for name, harder := range map[string]drill.Drill{
		"a weaker pair":   a(slurs(drill.HammerOns, []int{3, 4}), at(9, 3)),
		"near the nut":    a(slurs(drill.HammerOns, []int{1, 2}), at(1, 3)),
		"more strings":    a(slurs(drill.HammerOns, []int{1, 2}), at(9, 3, 2, 1)),
		"skipped strings": a(slurs(drill.HammerOns, []int{1, 2}), at(9, 5, 3, 1)),
		"faster":          a(slurs(drill.HammerOns, []int{1, 2}), at(9, 3), perBeat(8)),
		"shifting":        a(slurs(drill.HammerOns, []int{1, 2}), at(9, 3), shift(drill.Shift{By: 2, Each: drill.EachRound, Count: 3})),
	} {
		assert.Greater(t, total(harder, usual), total(easy, usual), name)
	}
	other := usual
	other.Pair = map[string]float64{"12": 1}
	assert.Greater(t, total(easy, other), total(easy, usual), "teachers may hold another pair for hard")
	assert.Error(t, drill.Weights{Stretch: -1}.Validate())
	assert.NoError(t, usual.Validate())
}

// Chords by their notes (common practice).
func TestChordsBetweenTheHands(t *testing.T) {
	// C and G on string 5 and 4 fretted, E and C above them tapped.
	d := a(drill.TwoHands{Fretted: []int{0, 2}, Tapped: []int{4, 7}}, at(3, 5, 4), rule(drill.NoPluck))
	chords := drill.ChordsOf(chartOf(t, d))
	require.Len(t, chords, 1)
	assert.Equal(t, "C major", chords[0].Chord.Name)
	assert.Equal(t, map[int]string{0: "root", 4: "third", 7: "fifth"}, chords[0].Chord.Roles)
	assert.Empty(t, drill.ChordsOf(chartOf(t, a(slurs(drill.HammerOns, []int{1, 2})))))
}

func TestReadySetsCanAllBePlayed(t *testing.T) {
	for _, set := range drill.ReadySets() {
		assert.NotEmpty(t, set.About, set.ID)
		for _, d := range set.Drills {
			assert.Empty(t, d.Check(guitar.Standard()), d.Name)
			for _, r := range d.Review(chartOf(t, d), guitar.Standard(), guitar.UsualHand()) {
				assert.False(t, r.Care, "%s: %s", d.Name, r.Text)
			}
		}
	}
}

func TestFamiliesStartFromDrillsWithoutFault(t *testing.T) {
	for _, f := range drill.Families() {
		require.Empty(t, f.Drill.Check(guitar.Standard()), f.ID)
		for _, r := range f.Drill.Review(chartOf(t, f.Drill), guitar.Standard(), guitar.UsualHand()) {
			assert.False(t, r.Care, "%s: %s", f.ID, r.Text)
		}
	}
}
