package drill_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/guitar"
)

// a makes a drill of a pattern with one setting after another.
func a(p drill.Pattern, settings ...func(*drill.Drill)) drill.Drill {
	d := drill.New("test", p)
	d.Rhythm.Passes = 1
	for _, set := range settings {
		set(&d)
	}
	return d
}

func at(position int, strings ...int) func(*drill.Drill) {
	return func(d *drill.Drill) { d.Path.Position, d.Path.Strings = position, strings }
}
func back(b drill.Back) func(*drill.Drill)       { return func(d *drill.Drill) { d.Path.Back = b } }
func rule(r drill.AttackRule) func(*drill.Drill) { return func(d *drill.Drill) { d.Attacks.Rule = r } }
func stay(n int, unit string) func(*drill.Drill) {
	return func(d *drill.Drill) { d.Path.Stay = drill.Stay{Count: n, Unit: unit} }
}
func shift(s drill.Shift) func(*drill.Drill)   { return func(d *drill.Drill) { d.Path.Shift = s } }
func spread(s drill.Spread) func(*drill.Drill) { return func(d *drill.Drill) { d.Path.Spread = s } }
func perBeat(n int) func(*drill.Drill)         { return func(d *drill.Drill) { d.Rhythm.NotesPerBeat = n } }
func in(root int, scale string) func(*drill.Drill) {
	return func(d *drill.Drill) { d.Key = &guitar.Key{Root: root, Scale: scale} }
}
func together(d *drill.Drill) { d.Path.Together = true }

func slurs(s drill.Slur, combinations ...[]int) drill.Pattern {
	return drill.SlurCombinations{Combinations: combinations, Slur: s}
}

func chartOf(t require.TestingT, d drill.Drill) drill.Chart {
	c, err := d.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	return c
}

// written is a chart as an instructor would write it: string/fret, attack's
// first letter (n: hammer-on from nowhere), finger.
func written(notes []drill.Note) string {
	var out []string
	for _, n := range notes {
		out = append(out, fmt.Sprintf("%d/%d%c%d", n.String, n.Fret, n.Attack[0], n.Finger))
	}
	return strings.Join(out, " ")
}

// frets is a chart by its places alone.
func frets(notes []drill.Note) string {
	var out []string
	for i, n := range notes {
		if i > 0 && notes[i-1].String == n.String {
			out[len(out)-1] += fmt.Sprintf("-%d", n.Fret)
			continue
		}
		out = append(out, fmt.Sprintf("%d:%d", n.String, n.Fret))
	}
	return strings.Join(out, " ")
}

// E4 on string 1 is MIDI note 64 (MIDI 1.0 note number table), so fret 5 is A4.
func TestChartSounds(t *testing.T) {
	d := a(slurs(drill.HammerOns, []int{1, 4}), at(5, 1))
	chart, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	assert.Equal(t, 69, chart.Notes[0].MIDI)
	assert.Equal(t, 72, chart.Notes[1].MIDI)
	assert.Equal(t, []float64{0, 0.5}, []float64{chart.Notes[0].Beat, chart.Notes[1].Beat})
	assert.InDelta(t, 3, chart.NotesPerSecond(), 1e-9, "90 bpm, 2 a beat")
	assert.InDelta(t, 60.0/90, chart.Seconds(), 1e-9)

	capo := guitar.Standard()
	capo.Capo = 2
	d.Fingering.BendHeld = 1
	chart, err = d.Chart(capo, 90)
	require.NoError(t, err)
	assert.Equal(t, 72, chart.Notes[0].MIDI, "sounding = open string + capo + fret + bend")
}

func TestStrokes(t *testing.T) {
	d := a(slurs(drill.HammerOns, []int{1, 2}), at(5, 3, 2, 1))
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
		for _, n := range chartOf(t, d).Notes {
			got = append(got, map[bool]string{true: "-", false: string(n.Stroke)}[n.Stroke == ""])
		}
		assert.Equal(t, c.want, strings.Join(got, " "), "%v", c)
	}
	// Economy going down to thicker strings takes upstrokes across, and alternates on a string.
	d = a(drill.FingerPerFret{Orders: [][]int{{1, 2, 3}}}, at(5, 1, 2), rule(drill.AllPicked))
	d.Strokes.Rule = drill.Economy
	var got string
	for _, n := range chartOf(t, d).Notes {
		got += string(n.Stroke[0])
	}
	assert.Equal(t, "dududu", got, "the third stroke is down, the crossing to a thicker string up")
}

func TestFaultsSayWhatToDo(t *testing.T) {
	good := a(slurs(drill.HammerOns, []int{1, 4}), at(7, 6, 5))
	pattern := func(p drill.Pattern) drill.Drill { return a(p, at(7, 6, 5)) }
	change := func(f func(*drill.Drill)) drill.Drill { d := good; f(&d); return d }
	for name, c := range map[string]struct {
		drill drill.Drill
		field string
		says  string
	}{
		"off the neck":      {change(at(20, 6)), "path.position", "Use position 19"},
		"position 0":        {change(at(0, 6)), "path.position", "fret 1"},
		"no string":         {change(at(7)), "path.strings", "at least one string"},
		"string 7":          {change(at(7, 7)), "path.strings", "strings 1 to 6"},
		"no combination":    {pattern(slurs(drill.HammerOns)), "pattern", "at least one finger combination"},
		"empty combination": {pattern(slurs(drill.HammerOns, []int{})), "pattern", "at least two fingers"},
		"finger twice":      {pattern(slurs(drill.HammerOns, []int{2, 2})), "pattern", "finger 2 twice"},
		"finger 5":          {pattern(slurs(drill.HammerOns, []int{1, 5})), "pattern", "finger 5"},
		"no slur":           {pattern(slurs("", []int{1, 2})), "pattern", "hammer, pull or both"},
		"two strings few":   {pattern(drill.Diagonal{Orders: [][]int{{1, 2, 3, 4}}}), "path.strings", "4 strings"},
		"no key":            {pattern(drill.ScaleRun{PerString: []int{3}, Order: drill.Up}), "key", "Choose a key"},
		"strange sequence": {change(func(d *drill.Drill) {
			d.Pattern = drill.ScaleRun{PerString: []int{3}, Order: drill.Up, Sequence: drill.Sequence{Length: 3}}
			in(0, "major")(d)
		}), "pattern", "groups of 2 to 12"},
		"no own note":  {pattern(drill.Free{}), "pattern", "click a place"},
		"tap too low":  {pattern(drill.Tapping{Low: 1, Middle: 4, TapAt: 3, Order: drill.TapLowMiddle}), "pattern", "tap above"},
		"five a beat":  {change(perBeat(5)), "rhythm.notesPerBeat", "1, 2, 3, 4, 6 or 8"},
		"no pass":      {change(func(d *drill.Drill) { d.Rhythm.Passes = 0 }), "rhythm.passes", "1 to 64"},
		"endless":      {change(func(d *drill.Drill) { d.Rhythm.Passes = 64; stay(240, drill.Times)(d) }), "rhythm.passes", "more than 4000"},
		"no stay":      {change(stay(0, drill.Times)), "path.stay", "1 to 240"},
		"strange rule": {change(rule("shout")), "attacks", "shout"},
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
		assert.Equal(t, drill.Cycle{Notes: c.notes, ClosesAfter: c.closes, Passes: c.passes, Add: c.add, Drop: c.drop}, drill.CycleOf(c.notes, c.perBeat))
	}
}

func TestUnrollGoesOnWithoutABreak(t *testing.T) {
	d := a(slurs(drill.HammerOns, []int{1, 2}), at(7, 6, 5))
	d.Rhythm.Passes = 3
	notes := chartOf(t, d).Unroll()
	require.Len(t, notes, 12)
	for i, n := range notes {
		assert.InDelta(t, float64(i)/2, n.Beat, 1e-9)
	}
}

func TestEveryFamilyKeepsItsDrillInJSON(t *testing.T) {
	for _, f := range drill.Families() {
		b, err := json.Marshal(f.Drill)
		require.NoError(t, err, f.ID)
		var read drill.Drill
		require.NoError(t, json.Unmarshal(b, &read), f.ID)
		assert.Equal(t, chartOf(t, f.Drill), chartOf(t, read), f.ID)
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
	good := chartOf(t, a(slurs(drill.HammerOns, []int{1, 2})))
	require.NoError(t, good.Validate())
	note := drill.Note{Beat: 0, Attack: drill.Pick, MIDI: 60}
	later := note
	later.Beat = 1
	for name, c := range map[string]drill.Chart{
		"no notes": {BPM: 60, NotesPerBeat: 1}, "no tempo": {NotesPerBeat: 1, Notes: good.Notes},
		"no division":    {BPM: 60, Notes: good.Notes},
		"unknown attack": {BPM: 60, NotesPerBeat: 1, Notes: []drill.Note{{Attack: "shout"}}},
		"backwards":      {BPM: 60, NotesPerBeat: 1, Notes: []drill.Note{later, note}},
		"endless":        {BPM: 60, NotesPerBeat: 1, Passes: 1e6, Notes: good.Notes},
	} {
		assert.Error(t, c.Validate(), name)
	}
}
