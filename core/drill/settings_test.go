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

// Every pattern says what it cannot be, and what to do about it.
func TestEveryPatternSaysWhatItCannotBe(t *testing.T) {
	long := make([]int, 40)
	for name, c := range map[string]struct {
		pattern drill.Pattern
		says    string
	}{
		"trill with one finger":      {drill.Trill{Fingers: []int{1}}, "at least two fingers"},
		"trill with the same":        {drill.Trill{Fingers: []int{2, 2}}, "finger 2 twice"},
		"no order":                   {drill.FingerPerFret{}, "at least one finger order"},
		"open string in an order":    {drill.FingerPerFret{Orders: [][]int{{0, 1}}}, "finger 0"},
		"diagonal of two":            {drill.Diagonal{Orders: [][]int{{1, 2}}}, "three or four fingers"},
		"pair with finger 7":         {drill.StringPair{Orders: [][]int{{1, 7}}}, "finger 7"},
		"one open note":              {drill.OpenStrings{Fingers: []int{1}}, "2 to 32 notes"},
		"open strings with finger 5": {drill.OpenStrings{Fingers: []int{5, 0}}, "finger 5"},
		"run with none":              {drill.ScaleRun{Order: drill.Up}, "how many notes lie on a string"},
		"run with nine":              {drill.ScaleRun{PerString: []int{9}, Order: drill.Up}, "1 to 4 notes on a string"},
		"run in no order":            {drill.ScaleRun{PerString: []int{3}}, "choose up, down, both or cascade"},
		"mixed with none":            {drill.MixedRun{Slurred: 0, Picked: 3, Order: drill.Up}, "1 to 4 notes"},
		"groups too long":            {drill.MixedRun{Slurred: 3, Picked: 3, Order: drill.Up, Sequence: drill.Sequence{Length: 20, Advance: 1}}, "groups of 2 to 12"},
		"groups that stand still":    {drill.ScaleRun{PerString: []int{3}, Order: drill.Up, Sequence: drill.Sequence{Length: 3}}, "groups of 2 to 12"},
		"cell of one":                {drill.OneString{Steps: []int{0}}, "2 to 16 notes"},
		"cell too far":               {drill.OneString{Steps: []int{0, 15}}, "step 15"},
		"many extras":                {drill.SkipArpeggio{PerString: 3, Extra: 9, Order: drill.Up}, "0 to 3 notes"},
		"triad of two":               {drill.Triad{Voices: []int{0, 1}, Order: drill.Up}, "3 or 4 notes"},
		"triad voice 20":             {drill.Triad{Voices: []int{0, 1, 20}, Order: drill.Up}, "voice 20"},
		"tap in no order":            {drill.Tapping{Low: 1, Middle: 3, TapAt: 7}, "tapLowMiddle"},
		"tap out of sight":           {drill.Tapping{Low: 1, Middle: 3, TapAt: 30, Order: drill.TapInTurn}, "to 24 frets above"},
		"hands that differ":          {drill.TwoHands{Fretted: []int{0, 2}, Tapped: []int{7}}, "one fretted and one tapped note"},
		"falling shape":              {drill.TwoStringShape{Lower: []int{4, 0}, Higher: []int{0}, Order: drill.Up}, "rising frets"},
		"shape of one":               {drill.ChordShape{Shape: []drill.Held{{Finger: 1}}}, "2 to 6 notes"},
		"leaper not in it":           {drill.ChordShape{Shape: []drill.Held{{Finger: 1}, {Finger: 2}}, Leaper: 4}, "finger 4 does not belong"},
		"leap beyond":                {drill.ChordShape{Shape: []drill.Held{{Finger: 1}, {Finger: 2}}, Leaper: 1, Leaps: []drill.Leapt{{String: 5}}}, "string 6 of the shape"},
		"own note off any neck":      {drill.Free{Notes: []drill.FreeNote{{String: 3, Fret: 99}}}, "no place on a neck"},
		"own note with finger 9":     {drill.Free{Notes: []drill.FreeNote{{String: 3, Fret: 9, Finger: 9}}}, "finger 9"},
		"own note with a foot":       {drill.Free{Notes: []drill.FreeNote{{String: 3, Fret: 9, Hand: "foot"}}}, "choose fret or tap"},
		"own note shouted":           {drill.Free{Notes: []drill.FreeNote{{String: 3, Fret: 9, Attack: "shout"}}}, "shout"},
		"too many open notes":        {drill.OpenStrings{Fingers: long}, "2 to 32"},
	} {
		_, err := c.pattern.Cells(drill.Path{Strings: []int{6, 5, 4, 3, 2, 1}})
		assert.ErrorContains(t, err, c.says, name)
	}
}

func TestEverySettingSaysWhatItCannotBe(t *testing.T) {
	for name, c := range map[string]struct {
		set         func(*drill.Drill)
		field, says string
	}{
		"strange spread":  {drilltest.Spread("scattered"), "path.strings", "widening"},
		"no groups":       {drilltest.Spread(drill.OwnGroups), "path.groups", "such as 4 3"},
		"groups off it":   {func(d *drill.Drill) { d.Path.Spread, d.Path.Groups = drill.OwnGroups, [][]int{{9}} }, "path.strings", "no string 9"},
		"strange way":     {drilltest.Back("by train"), "path.back", "none, return or mirror"},
		"strange unit":    {drilltest.Stay(3, "hours"), "path.stay", "times, beats or seconds"},
		"strange moment":  {drilltest.Shift(drill.Shift{By: 1, Each: "monday"}), "path.shift", "cell, leg or round"},
		"far shift":       {drilltest.Shift(drill.Shift{By: 99, Each: drill.EachCell}), "path.shift", "at most"},
		"empty cycle":     {drilltest.Rule(drill.InTurn), "attacks", "at least one note"},
		"strange strokes": {func(d *drill.Drill) { d.Strokes.Rule = "sideways" }, "strokes", "economy"},
		"strange stretch": {func(d *drill.Drill) { d.Fingering.Stretch = "thumb" }, "fingering.stretch", "middle or ring"},
		"tap by thumb":    {func(d *drill.Drill) { d.Fingering.TapFinger = 0 }, "fingering.tapFinger", "1 (index)"},
		"bend too far":    {func(d *drill.Drill) { d.Fingering.BendHeld = 9 }, "fingering.bendHeld", "0 to 3"},
		"own finger 6":    {func(d *drill.Drill) { d.Fingering.Own = []drill.PlacedFinger{{String: 1, Fret: 5, Finger: 6}} }, "fingering.own", "finger 6"},
		"no bar":          {func(d *drill.Drill) { d.Rhythm.BeatsPerBar = 0 }, "rhythm.beatsPerBar", "1 to 16"},
		"close by 100":    {func(d *drill.Drill) { d.Rhythm.Close = 100 }, "rhythm.close", "at most 64"},
		"strange key":     {drilltest.In(3, "polka"), "", ""},
	} {
		d := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(5, 3, 2), c.set)
		faults := d.Check(guitar.Standard())
		if c.field == "" {
			assert.Empty(t, faults, "%s: a pattern by the hand asks for no key", name)
			continue
		}
		require.NotEmpty(t, faults, name)
		assert.Equal(t, c.field, faults[0].Field, name)
		assert.Contains(t, faults[0].Text, c.says, name)
	}
	d := drilltest.Of(drill.ScaleRun{PerString: []int{3}, Order: drill.Up}, drilltest.In(3, "polka"), drilltest.At(5, 3, 2))
	assert.Equal(t, "key", d.Check(guitar.Standard())[0].Field)
}

// The hand's way over strings and positions, by the first note of each place.
func TestPaths(t *testing.T) {
	first := func(set ...func(*drill.Drill)) string {
		d := drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2}}}, append([]func(*drill.Drill){drilltest.At(5, 3, 2, 1), drilltest.Rule(drill.AllPicked)}, set...)...)
		var starts []chart.Note
		last := -1
		for _, n := range drilltest.Chart(t, d).Notes {
			if n.Cell != last {
				starts, last = append(starts, n), n.Cell
			}
		}
		return drilltest.Frets(starts)
	}
	each := func(by int, when string, count int, home bool) func(*drill.Drill) {
		return drilltest.Shift(drill.Shift{By: by, Each: when, Count: count, Home: home})
	}
	assert.Equal(t, "3:5 2:5 1:5", first())
	assert.Equal(t, "3:5 2:5 1:5 2:5 3:5", first(drilltest.Back(drill.Returns)))
	assert.Equal(t, "3:5 2:5 1:5 3:7 2:7 1:7", first(each(2, drill.EachRound, 1, false)))
	assert.Equal(t, "3:5 2:5 1:5-6 2:6 3:6-7 2:7 1:7", first(drilltest.Back(drill.Returns), each(1, drill.EachLeg, 2, false)))
	assert.Equal(t, "3:5 2:6 1:7 3:8", first(each(1, drill.EachCell, 3, false)))
	assert.Equal(t, "3:5 2:6 1:7 2:6 3:5", first(each(1, drill.EachCell, 2, true)))
	assert.Equal(t, "3:5 2:5 1:5 3:4 2:4 1:4 2:4 3:4 1:5 2:5 3:5", first(each(-1, drill.EachRound, 1, true)), "the turning place once")
}
