package drill_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/drill/review"
	"manudrill/core/guitar"
	"manudrill/drilltest"
)

// E4 on string 1 is MIDI note 64 (MIDI 1.0 note number table), so fret 5 is A4.
func TestChartSounds(t *testing.T) {
	d := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 4}), drilltest.At(5, 1))
	c, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	assert.Equal(t, 69, c.Notes[0].MIDI)
	assert.Equal(t, 72, c.Notes[1].MIDI)
	assert.Equal(t, []float64{0, 0.5}, []float64{c.Notes[0].Beat, c.Notes[1].Beat})
	assert.InDelta(t, 3, c.NotesPerSecond(), 1e-9, "90 bpm, 2 a beat")
	assert.InDelta(t, 60.0/90, c.Seconds(), 1e-9)

	capo := guitar.Standard()
	capo.Capo = 2
	d.Fingering.BendHeld = 1
	c, err = d.Chart(capo, 90)
	require.NoError(t, err)
	assert.Equal(t, 72, c.Notes[0].MIDI, "sounding = open string + capo + fret + bend")
}

func TestStrokes(t *testing.T) {
	d := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(5, 3, 2, 1))
	for _, c := range []struct {
		rule   drill.StrokeRule
		fromUp bool
		want   string
	}{
		{drill.Alternate, false, "down - up - down -"}, {drill.Alternate, true, "up - down - up -"},
		{drill.AllDown, false, "down - down - down -"}, {drill.ByFingers, false, "i - m - i -"},
		{drill.KeepTime, false, "down - down - down -"}, {drill.Economy, false, "down - down - down -"},
	} {
		d.Strokes = drill.Strokes{Rule: c.rule, FromUp: c.fromUp}
		var got []string
		for _, n := range drilltest.Chart(t, d).Notes {
			got = append(got, map[bool]string{true: "-", false: string(n.Stroke)}[n.Stroke == ""])
		}
		assert.Equal(t, c.want, strings.Join(got, " "), "%v", c)
	}
	// Economy going down to thicker strings takes upstrokes across, and alternates on a string.
	d = drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2, 3}}}, drilltest.At(5, 1, 2), drilltest.Rule(drill.AllPicked))
	d.Strokes.Rule = drill.Economy
	var got string
	for _, n := range drilltest.Chart(t, d).Notes {
		got += string(n.Stroke[0])
	}
	assert.Equal(t, "dududu", got, "the third stroke is down, the crossing to a thicker string up")
}

func TestFaultsSayWhatToDo(t *testing.T) {
	good := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 4}), drilltest.At(7, 6, 5))
	pattern := func(p drill.Pattern) drill.Drill { return drilltest.Of(p, drilltest.At(7, 6, 5)) }
	change := func(f func(*drill.Drill)) drill.Drill { d := good; f(&d); return d }
	for name, c := range map[string]struct {
		drill drill.Drill
		field string
		says  string
	}{
		"off the neck":      {change(drilltest.At(20, 6)), "path.position", "Use position 19"},
		"position 0":        {change(drilltest.At(0, 6)), "path.position", "fret 1"},
		"no string":         {change(drilltest.At(7)), "path.strings", "at least one string"},
		"string 7":          {change(drilltest.At(7, 7)), "path.strings", "strings 1 to 6"},
		"no combination":    {pattern(drilltest.Slurs(drill.HammerOns)), "pattern", "at least one finger combination"},
		"empty combination": {pattern(drilltest.Slurs(drill.HammerOns, []int{})), "pattern", "at least two fingers"},
		"finger twice":      {pattern(drilltest.Slurs(drill.HammerOns, []int{2, 2})), "pattern", "finger 2 twice"},
		"finger 5":          {pattern(drilltest.Slurs(drill.HammerOns, []int{1, 5})), "pattern", "finger 5"},
		"no slur":           {pattern(drilltest.Slurs("", []int{1, 2})), "pattern", "hammer, pull, both or asWritten"},
		"two strings few":   {pattern(drill.Diagonal{Orders: [][]int{{1, 2, 3, 4}}}), "path.strings", "4 strings"},
		"no key":            {pattern(drill.ScaleRun{PerString: []int{3}, Order: drill.Up}), "key", "Choose a key"},
		"strange sequence": {change(func(d *drill.Drill) {
			d.Pattern = drill.ScaleRun{PerString: []int{3}, Order: drill.Up, Sequence: drill.Sequence{Length: 3}}
			drilltest.In(0, "major")(d)
		}), "pattern", "groups of 2 to 12"},
		"no own note":  {pattern(drill.Free{}), "pattern", "click a place"},
		"tap too low":  {pattern(drill.Tapping{Low: 1, Middle: 4, TapAt: 3, Order: drill.TapLowMiddle}), "pattern", "tap above"},
		"five a beat":  {change(drilltest.PerBeat(5)), "rhythm.notesPerBeat", "1, 2, 3, 4, 6 or 8"},
		"no pass":      {change(func(d *drill.Drill) { d.Rhythm.Passes = 0 }), "rhythm.passes", "1 to 64"},
		"endless":      {change(func(d *drill.Drill) { d.Rhythm.Passes = 64; drilltest.Stay(240, drill.Times)(d) }), "rhythm.passes", "more than 4000"},
		"no stay":      {change(drilltest.Stay(0, drill.Times)), "path.stay", "1 to 240"},
		"strange rule": {change(drilltest.Rule("shout")), "attacks", "shout"},
		"no name":      {change(func(d *drill.Drill) { d.Name = " " }), "name", "name"},
	} {
		faults := c.drill.Check(guitar.Standard())
		require.NotEmpty(t, faults, name)
		assert.Equal(t, c.field, faults[0].Field, name)
		assert.Contains(t, strings.ToLower(faults[0].Text), strings.ToLower(c.says), name)
		_, err := c.drill.Chart(guitar.Standard(), 80)
		assert.Error(t, err, name)
	}
	assert.Empty(t, good.Check(guitar.Standard()))
}

// A run of 5 notes in fours needs 20 notes, four runs, to meet the click again;
// the least common multiples are worked out by hand.
func TestCycleAgainstTheBeat(t *testing.T) {
	for _, c := range []struct{ notes, perBeat, closes, passes, add, drop int }{
		{5, 4, 20, 4, 3, 1}, {22, 2, 22, 1, 0, 0}, {7, 3, 21, 3, 2, 1}, {10, 6, 30, 3, 2, 4}, {24, 8, 24, 1, 0, 0},
	} {
		assert.Equal(t, review.Cycle{Notes: c.notes, ClosesAfter: c.closes, Passes: c.passes, Add: c.add, Drop: c.drop}, review.CycleOf(c.notes, c.perBeat))
	}
}

func TestUnrollGoesOnWithoutABreak(t *testing.T) {
	d := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(7, 6, 5))
	d.Rhythm.Passes = 3
	notes := drilltest.Chart(t, d).Unroll()
	require.Len(t, notes, 12)
	for i, n := range notes {
		assert.InDelta(t, float64(i)/2, n.Beat, 1e-9)
	}
}

func TestEveryFamilyKeepsItsDrillInJSON(t *testing.T) {
	for _, f := range library.Families() {
		b, err := json.Marshal(f.Drill)
		require.NoError(t, err, f.ID)
		var read drill.Drill
		require.NoError(t, json.Unmarshal(b, &read), f.ID)
		assert.Equal(t, drilltest.Chart(t, f.Drill), drilltest.Chart(t, read), f.ID)
	}
}

func TestDrillsThatCannotBeRead(t *testing.T) {
	for name, document := range map[string]string{
		"no pattern": `{"name": "x"}`, "unknown kind": `{"pattern": {"kind": "yodel"}}`, "no object": `[]`,
		"misspelt in the pattern": `{"pattern": {"kind": "trill", "finger": [1, 2]}}`,
		"misspelt in the drill":   `{"pattern": {"kind": "trill", "fingers": [1, 2]}, "positoin": 3}`,
	} {
		var d drill.Drill
		assert.Error(t, json.Unmarshal([]byte(document), &d), name)
	}
	_, err := json.Marshal(drill.Drill{})
	assert.Error(t, err)
}

func TestChartsFromFilesAreChecked(t *testing.T) {
	good := drilltest.Chart(t, drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2})))
	require.NoError(t, good.Validate())
	note := chart.Note{Beat: 0, Attack: chart.Pick, MIDI: 60}
	later := note
	later.Beat = 1
	for name, c := range map[string]chart.Chart{
		"no notes": {BPM: 60, NotesPerBeat: 1}, "no tempo": {NotesPerBeat: 1, Notes: good.Notes},
		"no division":    {BPM: 60, Notes: good.Notes},
		"unknown attack": {BPM: 60, NotesPerBeat: 1, Notes: []chart.Note{{Attack: "shout"}}},
		"backwards":      {BPM: 60, NotesPerBeat: 1, Notes: []chart.Note{later, note}},
		"endless":        {BPM: 60, NotesPerBeat: 1, Passes: 1e6, Notes: good.Notes},
	} {
		assert.Error(t, c.Validate(), name)
	}
}
