package drill_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/drilltest"
)

// Drills of every pattern, written out by hand.
func TestChartsAgainstHandWrittenOnes(t *testing.T) {
	orders := func(o ...[]int) drill.FingerPerFret { return drill.FingerPerFret{Orders: o} }
	triads := drill.Triad{Voices: []int{0, 1, 2}, Order: drill.Up}
	for name, c := range map[string]struct {
		drill drill.Drill
		want  string
	}{
		"hammer-ons up":           {drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 3}), drilltest.At(7, 6, 5)), "6/7p1 6/9h3 5/7p1 5/9h3"},
		"there and back":          {drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(7, 3, 2, 1), drilltest.Back(drill.Returns)), "3/7p1 3/8h2 2/7p1 2/8h2 1/7p1 1/8h2 2/7p1 2/8h2 3/7p1 3/8h2"},
		"pull-offs down":          {drilltest.Of(drilltest.Slurs(drill.PullOffs, []int{1, 2, 4}), drilltest.At(5, 1)), "1/8p4 1/6p2 1/5p1"},
		"both":                    {drilltest.Of(drilltest.Slurs(drill.BothSlurs, []int{1, 2, 4}), drilltest.At(5, 4)), "4/5p1 4/6h2 4/8h4 4/6p2 4/5p1"},
		"each combination across": {drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}, []int{3, 4}), drilltest.At(1, 2, 1)), "2/1p1 2/2h2 1/1p1 1/2h2 2/3p3 2/4h4 1/3p3 1/4h4"},
		"all on a string first":   {drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}, []int{3, 4}), drilltest.At(1, 2, 1), drilltest.Together), "2/1p1 2/2h2 2/3p3 2/4h4 1/1p1 1/2h2 1/3p3 1/4h4"},
		"repeated on a string":    {drilltest.Of(drilltest.Slurs(drill.PullOffs, []int{2, 4}), drilltest.At(7, 3), drilltest.Stay(2, drill.Times)), "3/10p4 3/8p2 3/10p4 3/8p2"},
		"from the open string":    {drilltest.Of(drilltest.Slurs(drill.BothSlurs, []int{0, 2}), drilltest.At(5, 1)), "1/0p0 1/6h2 1/0p0"},
		"left hand alone":         {drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 3}), drilltest.At(5, 3, 2), drilltest.Rule(drill.NoPluck)), "3/5n1 3/7h3 2/5n1 2/7h3"},

		"trill by beats":         {drilltest.Of(drill.Trill{Fingers: []int{3, 1}}, drilltest.At(5, 2), drilltest.Stay(2, drill.Beats), drilltest.PerBeat(3), drilltest.Rule(drill.Legato)), "2/7p3 2/5p1 2/7h3 2/5p1 2/7h3 2/5p1"},
		"trill with open string": {drilltest.Of(drill.Trill{Fingers: []int{0, 1}}, drilltest.At(2, 3), drilltest.Stay(1, drill.Beats), drilltest.Rule(drill.Legato)), "3/0p0 3/2h1"},
		"trill by seconds":       {drilltest.Of(drill.Trill{Fingers: []int{1, 2}}, drilltest.At(5, 2), drilltest.Stay(2, drill.Seconds), drilltest.Rule(drill.Legato)), "2/5p1 2/6h2 2/5p1 2/6h2"},

		"one finger per fret":      {drilltest.Of(orders([]int{1, 3, 2, 4}), drilltest.At(5, 2, 1), drilltest.Rule(drill.AllPicked)), "2/5p1 2/7p3 2/6p2 2/8p4 1/5p1 1/7p3 1/6p2 1/8p4"},
		"reversed on the way back": {drilltest.Of(orders([]int{1, 2, 3}), drilltest.At(5, 2, 1), drilltest.Rule(drill.AllPicked), drilltest.Back(drill.Mirrored)), "2/5p1 2/6p2 2/7p3 1/5p1 1/6p2 1/7p3 1/6p2 1/5p1 2/7p3 2/6p2 2/5p1"},
		"a fret on at each far string": {drilltest.Of(orders([]int{1, 2}), drilltest.At(5, 2, 1), drilltest.Rule(drill.AllPicked), drilltest.Back(drill.Mirrored), drilltest.Shift(drill.Shift{By: 1, Each: drill.EachLeg, Count: 1})),
			"2/5p1 2/6p2 1/5p1 1/6p2 1/7p2 1/6p1 2/7p2 2/6p1"},
		"a fret back each pass and home": {drilltest.Of(orders([]int{1, 2}), drilltest.At(5, 1), drilltest.Rule(drill.AllPicked), drilltest.Shift(drill.Shift{By: -1, Each: drill.EachRound, Count: 1, Home: true})),
			"1/5p1 1/6p2 1/4p1 1/5p2 1/5p1 1/6p2"},

		"diagonal with its mirror": {drilltest.Of(drill.Diagonal{Orders: [][]int{{1, 2, 3}}}, drilltest.At(5, 3, 2, 1), drilltest.Rule(drill.AllPicked), drilltest.Back(drill.Mirrored), drilltest.Shift(drill.Shift{By: 1, Each: drill.EachCell, Count: 1, Home: true})),
			"3/5p1 2/6p2 1/7p3 3/6p1 2/7p2 1/8p3 2/7p2 3/6p1 1/7p3 2/6p2 3/5p1"},
		"widening strings": {drilltest.Of(drill.StringPair{Orders: [][]int{{1, 3, 2, 4}}}, drilltest.At(5, 6, 5, 4), drilltest.Spread(drill.Widening), drilltest.Rule(drill.AllPicked)),
			"6/5p1 5/7p3 6/6p2 5/8p4 6/5p1 4/7p3 6/6p2 4/8p4"},
		"opening strings": {drilltest.Of(drill.StringPair{Orders: [][]int{{1, 2}}}, drilltest.At(5, 4, 3, 2, 1), drilltest.Spread(drill.Opening), drilltest.Rule(drill.AllPicked)), "3/5p1 2/6p2 4/5p1 1/6p2"},
		"an octave up":    {drilltest.Of(drill.StringPair{Orders: [][]int{{1, 2}}}, drilltest.At(5, 2, 1), drilltest.Rule(drill.AllPicked), drilltest.Shift(drill.Shift{By: 12, Each: drill.EachRound, Count: 1})), "2/5p1 1/6p2 2/17p1 1/18p2"},

		"one fretted, two open": {drilltest.Of(drill.OpenStrings{Fingers: []int{1, 0, 0}}, drilltest.At(5, 1), drilltest.Rule(drill.AllPicked)), "1/5p1 1/0p0 1/0p0"},
		"tap, low, middle":      {drilltest.Of(drill.Tapping{Low: 1, Middle: 4, TapAt: 7, Order: drill.TapLowMiddle}, drilltest.At(5, 2)), "2/12t2 2/5p1 2/8h4"},
		"taps in turn":          {drilltest.Of(drill.Tapping{Low: 1, Middle: 3, TapAt: 7, Order: drill.TapInTurn}, drilltest.At(5, 2)), "2/12t2 2/5p1 2/7h3 2/12t2 2/7p3 2/5p1"},
		"two hands move apart": {drilltest.Of(drill.TwoHands{Fretted: []int{0, 2}, Tapped: []int{7, 9}, Moves: []drill.TwoMove{{}, {Fretting: 0, Tapping: 1}}}, drilltest.At(5, 3, 2), drilltest.Rule(drill.NoPluck)),
			"3/5n1 3/12t2 2/7n3 2/14t2 3/5n1 3/13t2 2/7n3 2/15t2"},
		"slide as the shift": {drilltest.Of(drill.OneString{Steps: []int{0, 1, 0}}, drilltest.In(0, "major"), drilltest.At(1, 2), drilltest.Shift(drill.Shift{By: 1, Each: drill.EachCell, Count: 1, Slide: true})),
			"2/1p1 2/3h3 2/1p1 2/3s1 2/5h3 2/3p1"},
		"leaping finger": {drilltest.Of(drill.ChordShape{Shape: []drill.Held{{Finger: 3, Fret: 2}, {Finger: 1, Fret: 0}}, Leaper: 3, Leaps: []drill.Leapt{{String: 1, Fret: 2}}}, drilltest.At(5, 3, 2), drilltest.Rule(drill.AllPicked)),
			"3/7p3 2/5p1 2/7p3 2/5p1"},
		// The last notes lead to the first: 14 keeps its finger on the way back.
		"arpeggio that closes": {drilltest.Of(drill.SkipArpeggio{PerString: 3, Extra: 1, Order: drill.Both}, drilltest.In(9, "minor7"), drilltest.At(12, 3, 1)),
			"3/12p1 3/14h2 3/17h4 1/12p1 1/15h2 1/17h3 1/20h4 1/17p3 1/15p2 1/12p1 3/17p4 3/14p2"},
		// C major triads on C and D: C-E-G and D-F-A, one finger per fret in
		// position 5 and 7 (common practice).
		"small triads": {drilltest.Of(triads, drilltest.In(0, "major"), drilltest.At(8, 6, 5, 4), drilltest.Rule(drill.AllPicked), drilltest.Shift(drill.Shift{By: 1, Each: drill.EachCell, Count: 1})),
			"6/8p4 5/7p3 4/5p1 6/10p4 5/8p2 4/7p1"},
		"one's own notes moved": {drilltest.Of(drill.Free{Notes: []drill.FreeNote{{String: 3, Fret: 2}, {String: 3, Fret: 4, Attack: chart.Hammer}, {String: 1, Fret: 0}}}, drilltest.At(7, 4, 3, 2)), "4/7p1 4/9h3 2/0p0"},
	} {
		laid, err := c.drill.Chart(guitar.Standard(), 60)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, drilltest.Written(laid.Notes), name)
	}
}

// Scales as they lie on the neck (common practice; the first two are the check
// values of the trade for three notes a string).
func TestScaleRunsAsTheyLie(t *testing.T) {
	run := func(perString ...int) drill.ScaleRun { return drill.ScaleRun{PerString: perString, Order: drill.Up} }
	six := []int{6, 5, 4, 3, 2, 1}
	for name, c := range map[string]struct {
		drill drill.Drill
		want  string
	}{
		"A blues":            {drilltest.Of(run(3), drilltest.In(9, "blues"), drilltest.At(5, six...)), "6:5-8-10 5:6-7-10 4:7-10-12 3:8-9-12 2:10-13-15 1:11-12-15"},
		"G major":            {drilltest.Of(run(3), drilltest.In(7, "major"), drilltest.At(3, six...)), "6:3-5-7 5:3-5-7 4:4-5-7 3:4-5-7 2:5-7-8 1:5-7-8"},
		"A minor pentatonic": {drilltest.Of(run(2), drilltest.In(9, "minorPentatonic"), drilltest.At(5, six...)), "6:5-8 5:5-7 4:5-7 3:5-7 2:5-8 1:5-8"},
		"A harmonic minor":   {drilltest.Of(run(3), drilltest.In(9, "harmonicMinor"), drilltest.At(5, 6, 5, 4)), "6:5-7-8 5:5-7-8 4:6-7-9"},
		"chromatic, four":    {drilltest.Of(run(4), drilltest.In(0, "chromatic"), drilltest.At(5, 6, 5)), "6:5-6-7-8 5:4-5-6-7"},
		"next degree":        {drilltest.Of(run(3), drilltest.In(7, "major"), drilltest.At(3, 6), drilltest.Shift(drill.Shift{By: 1, Each: drill.EachCell, Count: 1})), "6:3-5-7-5-7-8"},
		"both ways":          {drilltest.Of(drill.ScaleRun{PerString: []int{2}, Order: drill.Both}, drilltest.In(9, "minorPentatonic"), drilltest.At(5, 2, 1)), "2:5-8 1:5-8-5 2:8"},
		"by three":           {drilltest.Of(drill.ScaleRun{PerString: []int{4}, Order: drill.Up, Sequence: drill.Sequence{Length: 3, Advance: 1}}, drilltest.In(0, "chromatic"), drilltest.At(5, 6)), "6:5-6-7-6-7-8"},
		"up three, back one": {drilltest.Of(drill.ScaleRun{PerString: []int{3}, Order: drill.Up, Sequence: drill.Sequence{Length: 4, Advance: 2}}, drilltest.In(7, "major"), drilltest.At(3, 6, 5)), "6:3-5-7 5:3 6:7 5:3-5-7"},
		// A minor seventh: A C E G over the third and first string, and the C above.
		"skipped string": {drilltest.Of(drill.SkipArpeggio{PerString: 3, Extra: 1, Order: drill.Up}, drilltest.In(9, "minor7"), drilltest.At(12, 3, 1)), "3:12-14-17 1:12-15-17-20"},
		"mixed":          {drilltest.Of(drill.MixedRun{Slurred: 3, Picked: 2, Order: drill.Up}, drilltest.In(9, "naturalMinor"), drilltest.At(5, 2, 1)), "2:5-6-8 1:5-7"},
		"own scale": {drilltest.Of(run(3), func(d *drill.Drill) {
			d.Key = &guitar.Key{Root: 4, Scale: guitar.OwnScale, Intervals: []int{0, 1, 4, 7}}
		}, drilltest.At(12, 6)), "6:12-13-16"},
	} {
		written, err := c.drill.Chart(guitar.Standard(), 60)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, drilltest.Frets(written.Notes), name)
	}
}

func TestAttackRules(t *testing.T) {
	d := drilltest.Of(drill.ScaleRun{PerString: []int{3}, Order: drill.Both}, drilltest.In(7, "major"), drilltest.At(3, 2, 1))
	for r, want := range map[drill.AttackRule]string{
		drill.AllPicked: "pppppppppp", drill.Slurred: "phhphhpppp", drill.Hammers: "phhphhpppp",
	} {
		d.Attacks.Rule = r
		got := ""
		for _, n := range drilltest.Chart(t, d).Notes {
			got += string(n.Attack[0])
		}
		assert.Equal(t, want, got, r)
	}
	count := func(r drill.AttackRule) map[chart.Attack]int {
		d.Attacks.Rule = r
		by := map[chart.Attack]int{}
		for _, n := range drilltest.Chart(t, d).Notes {
			by[n.Attack]++
		}
		return by
	}
	assert.Equal(t, map[chart.Attack]int{chart.Pick: 7, chart.Pull: 3}, count(drill.Pulls), "8-7-5 on string 1, then 8-7 on string 2")
	assert.Equal(t, map[chart.Attack]int{chart.Nowhere: 3, chart.Hammer: 4, chart.Pull: 3}, count(drill.NoPluck))
	d.Attacks.Cycle = []bool{false, true, false, false}
	assert.Equal(t, chart.Hammer, func() chart.Attack { count(drill.InTurn); return drilltest.Chart(t, d).Notes[1].Attack }())

	mixed := drilltest.Of(drill.MixedRun{Slurred: 3, Picked: 2, Order: drill.Up}, drilltest.In(9, "naturalMinor"), drilltest.At(5, 2, 1))
	assert.Equal(t, "2/5p1 2/6h2 2/8h4 1/5p1 1/7p3", drilltest.Written(drilltest.Chart(t, mixed).Notes))
}

// The cascade over 3 + 3 notes: windows of three, one note lower each time, and
// back up, worked out by hand.
func TestFourOrdersOfATwoStringShape(t *testing.T) {
	for order, want := range map[drill.Order]string{
		drill.Up: "2:5-6-8 1:5-7-8", drill.Down: "1:8-7-5 2:8-6-5", drill.Both: "2:5-6-8 1:5-7-8-7-5 2:8-6",
		drill.Cascade: "1:8-7-5-7-5 2:8 1:5 2:8-6-8-6-5 1:5 2:8-6 1:7-5 2:8",
	} {
		d := drilltest.Of(drill.TwoStringShape{Lower: []int{0, 1, 3}, Higher: []int{0, 2, 3}, Order: order}, drilltest.At(5, 2, 1))
		assert.Equal(t, want, drilltest.Frets(drilltest.Chart(t, d).Notes), order)
	}
}

// There are 4! = 24 orders of four fingers, all different.
func TestTwentyFourOrders(t *testing.T) {
	orders := drill.FingerOrders()
	seen := map[string]bool{}
	for _, o := range orders {
		seen[drilltest.Frets(drilltest.Chart(t, drilltest.Of(drill.FingerPerFret{Orders: [][]int{o}}, drilltest.At(5, 1))).Notes)] = true
	}
	assert.Len(t, orders, 24)
	assert.Len(t, seen, 24)
}

func TestMirrorReverseAndClose(t *testing.T) {
	d := drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2, 4}}}, drilltest.At(5, 2), drilltest.Rule(drill.AllPicked))
	d.Mirror = true
	assert.Equal(t, "2/8p4 2/7p3 2/5p1", drilltest.Written(drilltest.Chart(t, d).Notes), "finger 1 and 4 change places")
	d.Mirror, d.Reverse = false, true
	assert.Equal(t, "2/8p4 2/6p2 2/5p1", drilltest.Written(drilltest.Chart(t, d).Notes))
	d.Reverse, d.Rhythm.Close = false, 1
	assert.Equal(t, "2:5-6-8-5", drilltest.Frets(drilltest.Chart(t, d).Notes))
	d.Rhythm.Close = -1
	assert.Equal(t, "2:5-6", drilltest.Frets(drilltest.Chart(t, d).Notes))
	d.Fingering.KeepDown, d.Rhythm.Close = true, 0
	var kept []bool
	for _, n := range drilltest.Chart(t, d).Notes {
		kept = append(kept, n.Keep)
	}
	assert.Equal(t, []bool{true, true, false}, kept)
}

func TestFingersSetByHandAndTheStretchOfOnesChoice(t *testing.T) {
	d := drilltest.Of(drill.Free{Notes: []drill.FreeNote{{String: 4, Fret: 5}, {String: 4, Fret: 7}, {String: 4, Fret: 9}}}, drilltest.At(5, 4))
	assert.Equal(t, "4/5p1 4/7h2 4/9h4", drilltest.Written(drilltest.Chart(t, d).Notes))
	d.Fingering.Stretch = drill.ByRing
	assert.Equal(t, "4/5p1 4/7h3 4/9h4", drilltest.Written(drilltest.Chart(t, d).Notes))
	d.Fingering.Own = []drill.PlacedFinger{{String: 4, Fret: 9, Finger: 3}}
	assert.Equal(t, "4/5p1 4/7h2 4/9h3", drilltest.Written(drilltest.Chart(t, d).Notes), "the others find their way around it")
}
