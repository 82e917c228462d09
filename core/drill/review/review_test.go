package review_test

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/drill/review"
	"manudrill/core/guitar"
	"manudrill/core/setup"
	"manudrill/drilltest"
)

// remark returns what the review says of one kind, if anything.
func remark(t *testing.T, d drill.Drill, check string) (review.Remark, bool) {
	t.Helper()
	for _, r := range review.Of(d, drilltest.Chart(t, d), guitar.Standard(), guitar.UsualHand()) {
		if r.Check == check {
			return r, true
		}
	}
	return review.Remark{}, false
}

func own(notes ...drill.FreeNote) drill.Drill {
	d := drilltest.Of(drill.Free{Notes: notes})
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
		"hammer-on downwards": {own(drill.FreeNote{String: 3, Fret: 7}, drill.FreeNote{String: 3, Fret: 5, Attack: chart.Hammer}), "slur", "a hammer-on goes up"},
		"pull-off upwards":    {own(drill.FreeNote{String: 3, Fret: 5}, drill.FreeNote{String: 3, Fret: 7, Attack: chart.Pull}), "slur", "a pull-off goes down"},
		"slur across strings": {own(drill.FreeNote{String: 3, Fret: 5}, drill.FreeNote{String: 2, Fret: 7, Attack: chart.Hammer}), "slur", "a new string needs"},
		"same finger":         {own(drill.FreeNote{String: 3, Fret: 5, Finger: 1}, drill.FreeNote{String: 3, Fret: 7, Finger: 1, Attack: chart.Hammer}), "slur", "two different fingers"},
		"fingers cross":       {own(drill.FreeNote{String: 3, Fret: 5, Finger: 3}, drill.FreeNote{String: 3, Fret: 7, Finger: 1}), "order", "the higher fret takes the higher finger"},
		"near the nut":        {own(drill.FreeNote{String: 3, Fret: 1, Finger: 1}, drill.FreeNote{String: 3, Fret: 5, Finger: 4}), "reach", "It fits from position"},
		"two alike in a row":  {drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2, 3}}}, drilltest.At(5, 3), drilltest.Rule(drill.AllPicked), drilltest.PerBeat(3), func(d *drill.Drill) { d.Rhythm.Passes = 2 }), "seam", "notes 3 and 1"},
		"five in fours":       {drilltest.Of(drill.SlurCombinations{Combinations: [][]int{{1, 2, 3}}, Slur: drill.BothSlurs}, drilltest.At(5, 3), drilltest.PerBeat(4), func(d *drill.Drill) { d.Rhythm.BeatsPerBar = 1 }), "cycle", "after 4 passes, 20 notes"},
		"stroke flips":        {drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2, 3}}}, drilltest.At(5, 3, 2), drilltest.Rule(drill.AllPicked), drilltest.PerBeat(3)), "strokes", "The stroke flips"},
		"hands meet":          {drilltest.Of(drill.TwoHands{Fretted: []int{0, 5}, Tapped: []int{5, 7}}, drilltest.At(5, 3, 2), drilltest.Rule(drill.NoPluck)), "hands", "The hands meet at string 2 fret 10"},
	} {
		r, found := remark(t, c.drill, c.check)
		require.True(t, found, name)
		assert.Contains(t, r.Text, c.says, name)
		require.NotEmpty(t, r.Mends, name)
		mended := r.Mends[0].Drill
		require.Empty(t, mended.Check(guitar.Standard()), name)
		after, still := remark(t, mended, c.check)
		assert.False(t, still, "%s: mended, but still %q", name, after.Text)
	}
}

func TestAPlainDrillHasNoRemark(t *testing.T) {
	d := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(7, 6, 5, 4, 3))
	assert.Empty(t, review.Of(d, drilltest.Chart(t, d), guitar.Standard(), guitar.UsualHand()))
}

func TestAStringSkippedIsToldWithItsNotes(t *testing.T) {
	d := drilltest.Of(drill.StringPair{Orders: [][]int{{1, 3, 2, 4}}}, drilltest.At(5, 5, 3), drilltest.Rule(drill.AllPicked))
	r, found := remark(t, d, "skips")
	require.True(t, found)
	assert.Contains(t, r.Text, "3 strokes skip a string")
	assert.Equal(t, []int{1, 2, 3}, r.Notes)
	d.Rhythm.Passes = 2
	r, _ = remark(t, d, "skips")
	assert.Equal(t, []int{0, 1, 2, 3}, r.Notes, "the first stroke of the next pass skips too")
	d = d.OfParts([]drill.Part{d.Part, d.Part})
	r, _ = remark(t, d, "skips")
	assert.NotContains(t, r.Notes, 0, "a part among others does not come again by itself")
}

// A shorter hand needs a higher position: 4 frets from 1 to 4 span 97 mm at the
// nut and 77 mm from fret 5 (DESIGN values of a 648 mm scale).
func TestReachFollowsTheHand(t *testing.T) {
	d := drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}}, drilltest.At(1, 3), drilltest.Rule(drill.AllPicked))
	small := guitar.Hand{"14": 77.5}
	for _, r := range review.Of(d, drilltest.Chart(t, d), guitar.Standard(), small) {
		assert.NotEqual(t, "reach", r.Check, "finger 1 has left when finger 4 comes")
	}
	d.Fingering.KeepDown = true
	for _, r := range review.Of(d, drilltest.Chart(t, d), guitar.Standard(), small) {
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
	d := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 4}), drilltest.At(15, 1))
	faults := d.Check(g)
	require.Len(t, faults, 1)
	assert.Contains(t, faults[0].Text, "the hand reaches only to fret 17")
	require.Len(t, faults[0].Mends, 1)
	assert.Equal(t, 14, faults[0].Mends[0].Drill.Path.Position)
	assert.Empty(t, faults[0].Mends[0].Drill.Check(g))
}

// Which strings ring unless they are damped (common practice).
func TestDamping(t *testing.T) {
	d := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(5, 4, 3))
	got := review.DampingOf(drilltest.Chart(t, d))
	assert.Equal(t, []review.Damping{
		{From: 0, To: 1, String: 4, Thicker: []int{5, 6}, ThickerWith: review.Palm, Thinner: []int{1, 2, 3}, With: review.FirstFinger},
		{From: 2, To: 3, String: 3, Thicker: []int{4, 5, 6}, ThickerWith: review.Palm, Thinner: []int{1, 2}, With: review.FirstFinger},
	}, got)
	open := review.DampingOf(drilltest.Chart(t, drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{0, 2}), drilltest.At(5, 3))))
	assert.Equal(t, review.OtherFinger, open[0].With)
	tapped := review.DampingOf(drilltest.Chart(t, drilltest.Of(drill.Tapping{Low: 1, Middle: 3, TapAt: 7, Order: drill.TapInTurn}, drilltest.At(5, 3))))
	assert.Equal(t, review.StringDamp, tapped[0].With)
	assert.Equal(t, review.StringDamp, tapped[0].ThickerWith, "the palm taps")
	shape := drill.ChordShape{Shape: []drill.Held{{Finger: 3, Fret: 2}, {Finger: 2, Fret: 1}, {Finger: 1}}, Leaper: 3, Leaps: []drill.Leapt{{String: 1, Fret: 3}}}
	for _, d := range review.DampingOf(drilltest.Chart(t, drilltest.Of(shape, drilltest.At(5, 4, 3, 2), drilltest.Rule(drill.AllPicked)))) {
		if d.From < 3 {
			assert.NotContains(t, append(d.Thicker, d.Thinner...), 4, "the chord that is held rings")
			assert.NotContains(t, append(d.Thicker, d.Thinner...), 3)
			assert.Contains(t, d.Thicker, 5)
			assert.Contains(t, d.Thinner, 1)
		}
	}
}

func TestDifficultyGrowsWithWhatIsHard(t *testing.T) {
	total := func(d drill.Drill, w setup.Weights) float64 {
		return review.DifficultyOf(drilltest.Chart(t, d), guitar.Standard(), guitar.UsualHand(), w).Total
	}
	usual := setup.UsualWeights()
	easy := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(9, 3))
	for name, harder := range map[string]drill.Drill{
		"a weaker pair":   drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{3, 4}), drilltest.At(9, 3)),
		"near the nut":    drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(1, 3)),
		"more strings":    drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(9, 3, 2, 1)),
		"skipped strings": drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(9, 5, 3, 1)),
		"faster":          drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(9, 3), drilltest.PerBeat(8)),
		"shifting":        drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(9, 3), drilltest.Shift(drill.Shift{By: 2, Each: drill.EachRound, Count: 3})),
	} {
		assert.Greater(t, total(harder, usual), total(easy, usual), name)
	}
	other := usual
	other.Pair = map[string]float64{"12": 1}
	assert.Greater(t, total(easy, other), total(easy, usual), "teachers may hold another pair for hard")
	assert.Error(t, setup.Weights{Stretch: -1}.Validate())
	assert.NoError(t, usual.Validate())
}

// Every mend that is offered takes its remark away; one that closes with the beat may leave
// the bar open.
func TestEveryMendMends(t *testing.T) {
	g, h := guitar.Standard(), guitar.UsualHand()
	rapid.Check(t, func(t *rapid.T) {
		d := drilltest.AnyDrill(t)
		d.Rhythm.Passes = rapid.IntRange(1, 3).Draw(t, "passes")
		if len(d.Check(g)) > 0 || len(d.CheckAt(g, 60)) > 0 {
			t.Skip("no drill")
		}
		for _, r := range review.Of(d, drilltest.Chart(t, d), g, h) {
			for _, m := range r.Mends {
				for _, after := range review.Of(m.Drill, drilltest.Chart(t, m.Drill), g, h) {
					if r.Check == "cycle" && strings.Contains(m.Text, "beat") {
						assert.NotContains(t, after.Text, "starts on the click again", m.Text)
						continue
					}
					assert.NotEqual(t, r.Check, after.Check, "%s: %s, after %q still %q", r.Check, r.Text, m.Text, after.Text)
				}
			}
		}
	})
}

// Fingers that are proposed are never what the order or the reach of fingers is complained of
// while there is another way without it: a hand that can play the shape somewhere can play
// what is proposed there.
func TestProposedFingersAreNotComplainedOf(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		scale := rapid.SampledFrom([]string{"major", "naturalMinor", "minorPentatonic"}).Draw(t, "scale")
		most := 3
		if scale == "minorPentatonic" {
			most = 2 // three of five notes lie too far apart for any hand
		}
		d := drilltest.Of(drill.ScaleRun{
			PerString: []int{rapid.IntRange(1, most).Draw(t, "a string")}, Order: rapid.SampledFrom(drill.Orders).Draw(t, "order"),
			Sequence: rapid.SampledFrom([]drill.Sequence{{}, {Length: 3, Advance: 1}, {Length: 4, Advance: 1}}).Draw(t, "groups"),
		}, drilltest.In(rapid.IntRange(0, 11).Draw(t, "root"), scale),
			drilltest.At(rapid.IntRange(5, 12).Draw(t, "position"), 5, 4, 3, 2))
		if len(d.Check(guitar.Standard())) > 0 {
			t.Skip("no drill")
		}
		for _, r := range review.Of(d, drilltest.Chart(t, d), guitar.Standard(), guitar.UsualHand()) {
			assert.False(t, r.Care, "%s: %s", r.Check, r.Text)
		}
	})
}

// A teacher's grading within a family, by construction (common practice): what is faster,
// nearer the nut with the same fingers, skips more, has a fretted note for an open one, or
// moves further, is never easier. Fifty pairs of shipped drills and more.
func TestHardnessGradesAsATeacherDoes(t *testing.T) {
	g, h, w := guitar.Standard(), guitar.UsualHand(), setup.UsualWeights()
	pairs := 0
	fingers := func(c chart.Chart) (all []int) {
		for _, n := range c.Notes {
			all = append(all, n.Finger)
		}
		return all
	}
	harder := func(name string, easy, hard drill.Drill, bpm float64) {
		t.Helper()
		a, err := easy.Chart(g, 60)
		if err != nil {
			return
		}
		b, err := hard.Chart(g, bpm)
		if err != nil {
			return
		}
		if !slices.Equal(fingers(a), fingers(b)) && !strings.Contains(name, "open") {
			return // another fingering is another drill
		}
		pairs++
		assert.GreaterOrEqual(t, review.DifficultyOf(b, g, h, w).Total, review.DifficultyOf(a, g, h, w).Total-1e-9, "%s, %s", easy.Name, name)
	}
	shipped := []drill.Drill{}
	for _, f := range library.Families() {
		shipped = append(shipped, f.Drill)
	}
	for _, s := range library.ReadySets() {
		shipped = append(shipped, s.Drills...)
	}
	for _, d := range shipped {
		harder("faster", d, d, 90)
		if d.Key == nil && d.Path.Position > 2 {
			harder("nearer the nut", d, d.InPosition(d.Path.Position-2), 60)
		}
		skipping := d
		if len(d.Path.Strings) == 3 && d.Path.Strings[0] <= 3 && d.Key == nil {
			skipping.Path.Strings = []int{5, 3, 1}
			harder("skipping strings", d, skipping, 60)
		}
	}
	for finger := 1; finger <= 4; finger++ {
		open := drilltest.Of(drill.OpenStrings{Fingers: []int{finger, 0, 0}}, drilltest.At(5, 1), drilltest.Rule(drill.AllPicked))
		fretted := open
		fretted.Pattern = drill.OpenStrings{Fingers: []int{finger, 0, 1 + finger%4}}
		harder("fewer open strings", open, fretted, 60)
	}
	assert.Greater(t, pairs, 100)
}

// What a figure must not overlook: taps, two hands, a hand that moves under open strings, a
// stretch that no hand makes.
func TestHardnessOverlooksNothing(t *testing.T) {
	part := func(d drill.Drill, name string) review.DifficultyPart {
		for _, p := range review.DifficultyOf(drilltest.Chart(t, d), guitar.Standard(), guitar.UsualHand(), setup.UsualWeights()).Parts {
			if p.Name == name {
				return p
			}
		}
		return review.DifficultyPart{}
	}
	total := func(d drill.Drill) float64 {
		return review.DifficultyOf(drilltest.Chart(t, d), guitar.Standard(), guitar.UsualHand(), setup.UsualWeights()).Total
	}
	tapping := drilltest.Of(drill.Tapping{Low: 1, Middle: 3, TapAt: 7, Order: drill.TapInTurn}, drilltest.At(5, 2))
	assert.Positive(t, part(tapping, "hands").Value)
	hands := drilltest.Of(drill.TwoHands{Fretted: []int{0, 0}, Tapped: []int{7, 8}}, drilltest.At(5, 3, 2), drilltest.Rule(drill.NoPluck))
	assert.Greater(t, part(hands, "hands").Value, part(tapping, "hands").Value)
	hidden := drilltest.Of(drill.OneString{Steps: []int{-1, 0}}, drilltest.In(4, "major"), drilltest.At(2, 1), drilltest.Shift(drill.Shift{By: 1, Each: drill.EachCell, Count: 5}))
	assert.Positive(t, part(hidden, "shifts").Value)
	impossible := drilltest.Of(drill.Free{Notes: []drill.FreeNote{{String: 3, Fret: 1, Finger: 1}, {String: 3, Fret: 9, Finger: 4}}}, drilltest.At(1, 3))
	assert.Greater(t, total(impossible), 6.0)
	semitone := drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2}}}, drilltest.At(5, 3), drilltest.Shift(drill.Shift{By: 1, Each: drill.EachRound, Count: 1, Home: true}))
	assert.Equal(t, "2 frets moved in 2 shifts", part(semitone, "shifts").Text)
}

// Weights that were kept before a part was known count it as it usually does.
func TestWeightsOfBefore(t *testing.T) {
	var w setup.Weights
	require.NoError(t, json.Unmarshal([]byte(`{"stretch":2,"pairs":1,"crossings":1,"skips":1,"shifts":1,"speed":1,"pair":{"12":0.5}}`), &w))
	assert.InDelta(t, 1, w.Hands, 0)
	assert.InDelta(t, 2, w.Stretch, 0)
	require.NoError(t, json.Unmarshal([]byte(`{"hands":0}`), &w))
	assert.Zero(t, w.Hands)
}

// Chords by their notes (common practice).
func TestChordsBetweenTheHands(t *testing.T) {
	// C and G on string 5 and 4 fretted, E and C above them tapped.
	d := drilltest.Of(drill.TwoHands{Fretted: []int{0, 2}, Tapped: []int{4, 7}}, drilltest.At(3, 5, 4), drilltest.Rule(drill.NoPluck))
	chords := review.ChordsOf(drilltest.Chart(t, d))
	require.Len(t, chords, 1)
	assert.Equal(t, "C major", chords[0].Chord.Name)
	assert.Equal(t, map[int]string{0: "root", 4: "third", 7: "fifth"}, chords[0].Chord.Roles)
	assert.Empty(t, review.ChordsOf(drilltest.Chart(t, drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2})))))
}

func TestReadySetsCanAllBePlayed(t *testing.T) {
	for _, set := range library.ReadySets() {
		assert.NotEmpty(t, set.About, set.ID)
		for _, d := range set.Drills {
			assert.Empty(t, d.Check(guitar.Standard()), d.Name)
			for _, r := range review.Of(d, drilltest.Chart(t, d), guitar.Standard(), guitar.UsualHand()) {
				assert.False(t, r.Care, "%s: %s", d.Name, r.Text)
			}
		}
	}
}

func TestFamiliesStartFromDrillsWithoutFault(t *testing.T) {
	for _, f := range library.Families() {
		require.Empty(t, f.Drill.Check(guitar.Standard()), f.ID)
		for _, r := range review.Of(f.Drill, drilltest.Chart(t, f.Drill), guitar.Standard(), guitar.UsualHand()) {
			assert.False(t, r.Care, "%s: %s", f.ID, r.Text)
		}
	}
}
