package drill_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/drilltest"
)

// cycle sets attacks by a cycle, p picked and s slurred, anew where it is said.
func cycle(ps string, each drill.Anew) drilltest.Setting {
	return func(d *drill.Drill) {
		d.Attacks = drill.Attacks{Rule: drill.InTurn, Each: each}
		for _, r := range ps {
			d.Attacks.Cycle = append(d.Attacks.Cycle, r == 's')
		}
	}
}

func again(d *drill.Drill)           { d.Path.Turn = drill.TurnAgain }
func passes(n int) drilltest.Setting { return func(d *drill.Drill) { d.Rhythm.Passes = n } }

// attacks are the first letters of how notes start.
func attacks(notes []chart.Note) string {
	var out strings.Builder
	for _, n := range notes {
		out.WriteByte(n.Attack[0])
	}
	return out.String()
}

// Thirty drills as an instructor says them, and their notes as they are written by hand.
func TestDrillsAsTheyAreSaid(t *testing.T) {
	require.Len(t, drilltest.Said(), 30)
	for _, c := range drilltest.Said() {
		assert.Equal(t, c.Notes, drilltest.Written(drilltest.Chart(t, c.Drill).Notes), c.Said)
	}
}

// The turning note is played once or again, by choice, and a pass that is repeated doubles
// nothing unasked.
func TestTurningNotes(t *testing.T) {
	run := func(o drill.Order, seq drill.Sequence) drill.ScaleRun {
		return drill.ScaleRun{PerString: []int{3}, Order: o, Sequence: seq}
	}
	threes := drill.Sequence{Length: 3, Advance: 1}
	order := drill.FingerPerFret{Orders: [][]int{{1, 2}}}
	key := drilltest.In(7, "major")
	for name, c := range map[string]struct {
		drill drill.Drill
		want  string
	}{
		"a scale":               {drilltest.Of(run(drill.Both, drill.Sequence{}), key, drilltest.At(3, 6)), "6:3-5-7-5"},
		"a scale, again":        {drilltest.Of(run(drill.Both, drill.Sequence{}), key, drilltest.At(3, 6), again), "6:3-5-7-7-5-3"},
		"a sequence":            {drilltest.Of(run(drill.Both, threes), key, drilltest.At(3, 6, 5), drilltest.Rule(drill.AllPicked)), "6:3-5-7-5-7 5:3 6:7 5:3-5-3-5-7-5-3 6:7 5:3 6:7-5"},
		"a sequence, again":     {drilltest.Of(run(drill.Both, threes), key, drilltest.At(3, 6), again), "6:3-5-7-7-5-3"},
		"there and back":        {drilltest.Of(order, drilltest.At(5, 3, 2), drilltest.Back(drill.Returns)), "3:5-6 2:5-6 3:5-6"},
		"there and back twice":  {drilltest.Of(order, drilltest.At(5, 3, 2, 1), drilltest.Back(drill.Returns), passes(2)), "3:5-6 2:5-6 1:5-6 2:5-6"},
		"there and back, again": {drilltest.Of(order, drilltest.At(5, 3, 2), drilltest.Back(drill.Returns), again, passes(2)), "3:5-6 2:5-6-5-6 3:5-6"},
		"a mirror":              {drilltest.Of(order, drilltest.At(5, 3, 2), drilltest.Back(drill.Mirrored), drilltest.Rule(drill.AllPicked)), "3:5-6 2:5-6-5 3:6-5"},
		"a mirror twice":        {drilltest.Of(order, drilltest.At(5, 3, 2), drilltest.Back(drill.Mirrored), drilltest.Rule(drill.AllPicked), passes(2)), "3:5-6 2:5-6-5 3:6"},
		"a mirror, again":       {drilltest.Of(order, drilltest.At(5, 3, 2), drilltest.Back(drill.Mirrored), drilltest.Rule(drill.AllPicked), again, passes(2)), "3:5-6 2:5-6-6-5 3:6-5"},
	} {
		assert.Equal(t, c.want, drilltest.Frets(drilltest.Chart(t, c.drill).Notes), name)
	}
}

// Unless it is asked for, a scale, a sequence or a return never plays a place twice in a row,
// not where a pass begins anew either.
func TestNothingIsDoubledUnasked(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := drilltest.Of(drill.ScaleRun{
			PerString: []int{rapid.IntRange(2, 3).Draw(t, "a string")}, Order: rapid.SampledFrom([]drill.Order{drill.Up, drill.Down, drill.Both}).Draw(t, "order"),
			Sequence: rapid.SampledFrom([]drill.Sequence{{}, {Length: 3, Advance: 1}, {Length: 4, Advance: 1}}).Draw(t, "groups"),
		}, drilltest.In(rapid.IntRange(0, 11).Draw(t, "root"), "major"), drilltest.At(8, 6, 5, 4, 3), passes(2))
		if len(d.Check(guitar.Standard())) > 0 {
			t.Skip("it leaves the neck")
		}
		notes := drilltest.Chart(t, d).Unroll()
		for i := 1; i < len(notes); i++ {
			a, b := notes[i-1], notes[i]
			assert.False(t, a.String == b.String && a.Fret == b.Fret, "note %d is the one before", i)
		}
		if n := d.Pattern.(drill.ScaleRun).Sequence.Length; n > 0 {
			assert.Zero(t, len(notes)%n, "a sequence comes back in whole groups")
		}
	})
}

// One slur and three strokes, wherever the run goes: no more than three strokes stand between
// two slurs but where a slur cannot be made, and it slurs coming down as it does going up.
func TestOneSlurThreeStrokes(t *testing.T) {
	for position := range 5 {
		at := []int{5, 7, 9, 12, 14}[position]
		d := drilltest.Of(drill.ScaleRun{PerString: []int{2}, Order: drill.Both}, drilltest.In(9, "minorPentatonic"), drilltest.At(at, 6, 5, 4, 3, 2, 1), cycle("pspp", drill.RunsOn))
		notes := drilltest.Chart(t, d).Notes
		said := attacks(notes)
		half := len(notes) / 2
		slurs := func(part string) int { return strings.Count(part, "h") }
		assert.GreaterOrEqual(t, slurs(said[:half]), 3, "going up from %d: %s", at, said)
		down := 0
		for i := half; i < len(notes); i++ {
			if notes[i].Attack == chart.Pull {
				down++
			}
		}
		assert.GreaterOrEqual(t, down, 2, "coming down from %d: %s", at, said)
		strokes := 0
		for _, n := range notes {
			strokes++
			if n.Attack.Slurred() {
				strokes = 0
			}
			assert.LessOrEqual(t, strokes, 4, "from %d: %s", at, said)
		}
	}
}

// A cycle begins anew with each cell, each string or each bar.
func TestCyclesBeginAnew(t *testing.T) {
	d := drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}}, drilltest.At(5, 6, 5, 4, 3), drilltest.PerBeat(2))
	d.Rhythm.BeatsPerBar = 3 // six notes a bar
	for each, want := range map[drill.Anew]string{
		drill.RunsOn:     "pphp phpp phpp phpp", // a slur that would begin a string waits
		drill.AnewCell:   "pphp pphp pphp pphp",
		drill.AnewString: "pphp pphp pphp pphp",
		drill.AnewBar:    "pphp phpp phpp pphp",
	} {
		cycle("pps", each)(&d)
		got := attacks(drilltest.Chart(t, d).Notes)
		assert.Equal(t, want, strings.Join([]string{got[:4], got[4:8], got[8:12], got[12:]}, " "), "%q", each)
	}
	cycle("pps", drill.AnewCell)(&d)
	d.Path.Stay = drill.Stay{Count: 2, Unit: drill.Times}
	assert.Equal(t, "pphppphp", attacks(drilltest.Chart(t, d).Notes)[:8])
	d.Attacks.Each = drill.AnewString
	assert.Equal(t, "pphpphpp", attacks(drilltest.Chart(t, d).Notes)[:8])
}

// Frets that are said stay where they are when the position moves, and come along when the
// whole drill is moved; distances move with the position.
func TestFretsAndDistances(t *testing.T) {
	tap := func(m bool, at int) drill.Drill {
		return drilltest.Of(drill.Tapping{Low: 1, Middle: 4, TapAt: at, Order: drill.TapLowMiddle, Measured: drill.Measured{AtFrets: m}}, drilltest.At(5, 2))
	}
	tapped := func(d drill.Drill) int { return drilltest.Chart(t, d).Notes[0].Fret }
	fret, distance := tap(true, 12), tap(false, 7)
	assert.Equal(t, 12, tapped(fret))
	assert.Equal(t, 12, tapped(distance))
	fret.Path.Position, distance.Path.Position = 3, 3
	assert.Equal(t, 12, tapped(fret))
	assert.Equal(t, 10, tapped(distance))
	assert.Equal(t, 14, tapped(fret.InPosition(5)))
	assert.Equal(t, 14, tapped(fret.Transposed(2)))
	assert.Equal(t, 12, fret.Pattern.(drill.Tapping).TapAt, "the drill that was moved is not changed")
	assert.Contains(t, tap(true, 8).Check(guitar.Standard())[0].Text, "fret 9 to 29")
	assert.Contains(t, tap(false, 3).Check(guitar.Standard())[0].Text, "4 to 24 frets above the position")
}

func TestChordsInThirdsNeedSevenNotes(t *testing.T) {
	d := drilltest.Of(drill.Triad{Voices: []int{0, 1, 2}, Order: drill.Up}, drilltest.In(9, "minorPentatonic"), drilltest.At(5, 3, 2, 1))
	faults := d.Check(guitar.Standard())
	require.Len(t, faults, 1)
	assert.Equal(t, "key", faults[0].Field)
	assert.Contains(t, faults[0].Text, "A minor pentatonic has 5")
}

// What is new is written and read again as it was, and left out where it says nothing.
func TestSettingsAreKept(t *testing.T) {
	d := drilltest.Of(drill.SkipArpeggio{PerString: 3, ExtraAt: &drill.Fixed{String: 5, Fret: 8}, Order: drill.Both}, drilltest.In(2, "minor7"), drilltest.At(5, 3, 1), drilltest.Within(drill.WithinDown), again, drilltest.FromRoot, cycle("ps", drill.AnewBar))
	written, err := json.Marshal(d)
	require.NoError(t, err)
	var read drill.Drill
	require.NoError(t, json.Unmarshal(written, &read))
	kept, err := json.Marshal(read)
	require.NoError(t, err)
	assert.JSONEq(t, string(written), string(kept))
	plain, err := json.Marshal(drilltest.Of(drill.Tapping{Low: 1, Middle: 3, TapAt: 7, Order: drill.TapInTurn}))
	require.NoError(t, err)
	for _, left := range []string{"atFrets", "within", "turn", "fromRoot", "each"} {
		assert.NotContains(t, strings.ReplaceAll(string(plain), `"each":"round"`, ""), `"`+left+`"`)
	}
}

// No settings, however wild, make the engine fail otherwise than with a fault.
func TestWildPartsHaveFaultsOrNotes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(-3, 20)
		m := drill.Measured{AtFrets: rapid.Bool().Draw(t, "at frets")}
		p := rapid.SampledFrom([]drill.Pattern{
			drill.BentTaps{Finger: n.Draw(t, "finger"), Taps: []int{n.Draw(t, "tap"), n.Draw(t, "tap")}, Between: rapid.Bool().Draw(t, "between"), Measured: m},
			drill.TwoStringShape{Lower: []int{n.Draw(t, "low"), 7}, Higher: []int{0, n.Draw(t, "high")}, Order: drill.OneByOne, Measured: m},
			drill.SkipArpeggio{PerString: 2, ExtraAt: &drill.Fixed{String: n.Draw(t, "string"), Fret: n.Draw(t, "fret")}, Order: drill.Both},
			drill.SlurCombinations{Combinations: [][]int{{n.Draw(t, "a"), n.Draw(t, "b")}}, Slur: drill.AsWritten},
		}).Draw(t, "pattern")
		d := drilltest.Of(p, drilltest.In(0, "major"), drilltest.At(n.Draw(t, "position"), 4, 2), drilltest.Within(rapid.SampledFrom([]drill.Within{"", "up", "down", "both"}).Draw(t, "within")))
		c, err := d.Chart(guitar.Standard(), 60)
		if err != nil {
			assert.IsType(t, drill.Faults{}, err)
			return
		}
		assert.NoError(t, c.Validate())
	})
}
