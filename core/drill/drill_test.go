package drill_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/guitar"
)

func slurs(position int, strings []int, back bool, slur drill.Slur, combinations ...[]int) drill.Drill {
	return drill.Drill{
		Name: "test", Pattern: drill.SlurCombinations{Combinations: combinations, Slur: slur},
		Position: position, Strings: strings, ThereAndBack: back, Repeats: 1, NotesPerBeat: 2, Passes: 1,
	}
}

// written is a chart as an instructor would write it: string/fret, attack's
// first letter, finger.
func written(notes []drill.Note) string {
	var out []string
	for _, n := range notes {
		out = append(out, fmt.Sprintf("%d/%d%c%d", n.String, n.Fret, n.Attack[0], n.Finger))
	}
	return strings.Join(out, " ")
}

// Drills written out by hand.
func TestChartsAgainstHandWrittenOnes(t *testing.T) {
	fingers := drill.Drill{
		Name: "test", Pattern: drill.FingerPerFret{Order: []int{1, 3, 2, 4}},
		Position: 5, Strings: []int{2, 1}, Repeats: 1, NotesPerBeat: 4, Passes: 1,
	}
	twice := slurs(7, []int{3}, false, drill.PullOffs, []int{2, 4})
	twice.Repeats = 2
	for name, c := range map[string]struct {
		drill drill.Drill
		want  string
	}{
		"hammer-ons up":           {slurs(7, []int{6, 5}, false, drill.HammerOns, []int{1, 3}), "6/7p1 6/9h3 5/7p1 5/9h3"},
		"there and back":          {slurs(7, []int{3, 2, 1}, true, drill.HammerOns, []int{1, 2}), "3/7p1 3/8h2 2/7p1 2/8h2 1/7p1 1/8h2 2/7p1 2/8h2 3/7p1 3/8h2"},
		"pull-offs down":          {slurs(5, []int{1}, false, drill.PullOffs, []int{1, 2, 4}), "1/8p4 1/6p2 1/5p1"},
		"both":                    {slurs(5, []int{4}, false, drill.BothSlurs, []int{1, 2, 4}), "4/5p1 4/6h2 4/8h4 4/6p2 4/5p1"},
		"each combination across": {slurs(1, []int{2, 1}, false, drill.HammerOns, []int{1, 2}, []int{3, 4}), "2/1p1 2/2h2 1/1p1 1/2h2 2/3p3 2/4h4 1/3p3 1/4h4"},
		"repeated on a string":    {twice, "3/10p4 3/8p2 3/10p4 3/8p2"},
		"one finger per fret":     {fingers, "2/5p1 2/7p3 2/6p2 2/8p4 1/5p1 1/7p3 1/6p2 1/8p4"},
	} {
		chart, err := c.drill.Chart(guitar.Standard(), 80)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, written(chart.Notes), name)
	}
}

// E4 on string 1 is MIDI note 64 (MIDI 1.0 note number table), so fret 5 is A4.
func TestChartSounds(t *testing.T) {
	chart, err := slurs(5, []int{1}, false, drill.HammerOns, []int{1, 4}).Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	assert.Equal(t, 69, chart.Notes[0].MIDI)
	assert.Equal(t, 72, chart.Notes[1].MIDI)
	assert.Equal(t, []float64{0, 0.5}, []float64{chart.Notes[0].Beat, chart.Notes[1].Beat})
	assert.InDelta(t, 3, chart.NotesPerSecond(), 1e-9, "90 bpm, 2 a beat")
	assert.InDelta(t, 60.0/90, chart.Seconds(), 1e-9)
}

func TestStrokesFlipAtPickedNotesOnly(t *testing.T) {
	chart, err := slurs(5, []int{3, 2, 1}, false, drill.HammerOns, []int{1, 2}).Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	var strokes []drill.Stroke
	for _, n := range chart.Notes {
		strokes = append(strokes, n.Stroke)
	}
	assert.Equal(t, []drill.Stroke{drill.Down, "", drill.Up, "", drill.Down, ""}, strokes)
}

func TestFaultsSayWhatToDo(t *testing.T) {
	good := slurs(7, []int{6, 5}, false, drill.HammerOns, []int{1, 4})
	change := func(f func(*drill.Drill)) drill.Drill {
		d := good
		f(&d)
		return d
	}
	for name, c := range map[string]struct {
		drill drill.Drill
		field string
		says  string
	}{
		"off the neck":      {change(func(d *drill.Drill) { d.Position = 20 }), "position", "position 19 or lower"},
		"position 0":        {change(func(d *drill.Drill) { d.Position = 0 }), "position", "fret 1"},
		"no combination":    {slurs(7, []int{6}, false, drill.HammerOns), "pattern", "at least one finger combination"},
		"empty combination": {slurs(7, []int{6}, false, drill.HammerOns, []int{}), "pattern", "at least two fingers"},
		"finger twice":      {slurs(7, []int{6}, false, drill.HammerOns, []int{2, 2}), "pattern", "finger 2 twice"},
		"finger 5":          {slurs(7, []int{6}, false, drill.HammerOns, []int{1, 5}), "pattern", "finger 5"},
		"no slur":           {slurs(7, []int{6}, false, "", []int{1, 2}), "pattern", "hammer, pull or both"},
		"no string":         {change(func(d *drill.Drill) { d.Strings = nil }), "strings", "at least one string"},
		"string 7":          {change(func(d *drill.Drill) { d.Strings = []int{7} }), "strings", "strings 1 to 6"},
		"five a beat":       {change(func(d *drill.Drill) { d.NotesPerBeat = 5 }), "notesPerBeat", "1, 2, 3, 4, 6 or 8"},
		"no pass":           {change(func(d *drill.Drill) { d.Passes = 0 }), "passes", "1 to 64"},
		"no repeat":         {change(func(d *drill.Drill) { d.Repeats = 0 }), "repeats", "1 to 16"},
		"no name":           {change(func(d *drill.Drill) { d.Name = " " }), "name", "name"},
	} {
		faults := c.drill.Check(guitar.Standard())
		require.NotEmpty(t, faults, name)
		assert.Equal(t, c.field, faults[0].Field, name)
		assert.Contains(t, faults[0].Text, c.says, name)
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
	d := slurs(7, []int{6, 5}, false, drill.HammerOns, []int{1, 2})
	d.Passes = 3
	chart, err := d.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	notes := chart.Unroll()
	require.Len(t, notes, 12)
	for i, n := range notes {
		assert.InDelta(t, float64(i)/2, n.Beat, 1e-9)
	}
}

func TestJSONRoundTripAndUnknownPatterns(t *testing.T) {
	d := slurs(7, []int{6, 5}, true, drill.BothSlurs, []int{1, 2, 4})
	b, err := json.Marshal(d)
	require.NoError(t, err)
	var back drill.Drill
	require.NoError(t, json.Unmarshal(b, &back))
	first, err := d.Chart(guitar.Standard(), 80)
	require.NoError(t, err)
	second, err := back.Chart(guitar.Standard(), 80)
	require.NoError(t, err)
	assert.Equal(t, first, second)

	for _, bad := range []string{`{}`, `{"pattern":{"kind":"sorcery"}}`, `{"pattern":{"kind":"fingerPerFret","order":"1"}}`, `[]`} {
		assert.Error(t, json.Unmarshal([]byte(bad), &back), bad)
	}
}

func TestChartsFromFilesAreChecked(t *testing.T) {
	note := drill.Note{Attack: drill.Pick, MIDI: 60}
	good := drill.Chart{BPM: 60, NotesPerBeat: 1, Notes: []drill.Note{note}}
	assert.NoError(t, good.Validate())
	later := note
	later.Beat = 1
	for name, c := range map[string]drill.Chart{
		"no notes":       {BPM: 60, NotesPerBeat: 1},
		"no tempo":       {NotesPerBeat: 1, Notes: good.Notes},
		"no division":    {BPM: 60, Notes: good.Notes},
		"unknown attack": {BPM: 60, NotesPerBeat: 1, Notes: []drill.Note{{Attack: "shout"}}},
		"backwards":      {BPM: 60, NotesPerBeat: 1, Notes: []drill.Note{later, note}},
		"endless":        {BPM: 60, NotesPerBeat: 1, Passes: 1e6, Notes: good.Notes},
	} {
		assert.Error(t, c.Validate(), name)
	}
}

// anyDrill draws drills that may or may not be playable.
func anyDrill(t *rapid.T) drill.Drill {
	fingers := rapid.Permutation([]int{1, 2, 3, 4})
	d := drill.Drill{
		Name: "any", Position: rapid.IntRange(1, 22).Draw(t, "position"),
		Strings:      rapid.Permutation([]int{1, 2, 3, 4, 5, 6}).Draw(t, "strings")[:rapid.IntRange(1, 6).Draw(t, "many")],
		ThereAndBack: rapid.Bool().Draw(t, "back"), Repeats: rapid.IntRange(1, 4).Draw(t, "repeats"),
		NotesPerBeat: rapid.SampledFrom(drill.Divisions).Draw(t, "perBeat"), Passes: 1,
	}
	if rapid.Bool().Draw(t, "slurred") {
		combination := fingers.Draw(t, "combination")[:rapid.IntRange(2, 4).Draw(t, "of")]
		d.Pattern = drill.SlurCombinations{Combinations: [][]int{combination},
			Slur: rapid.SampledFrom([]drill.Slur{drill.HammerOns, drill.PullOffs, drill.BothSlurs}).Draw(t, "slur")}
	} else {
		d.Pattern = drill.FingerPerFret{Order: fingers.Draw(t, "order")}
	}
	return d
}

func TestAnyChartStaysOnTheNeckAndEverySlurCanBePlayed(t *testing.T) {
	g := guitar.Standard()
	rapid.Check(t, func(t *rapid.T) {
		d := anyDrill(t)
		chart, err := d.Chart(g, 100)
		if err != nil {
			assert.Greater(t, d.Position+3, g.Frets, "only the end of the neck may stop these drills")
			return
		}
		for i, n := range chart.Notes {
			midi, err := g.Pitch(n.String, n.Fret)
			require.NoError(t, err)
			assert.Equal(t, midi, n.MIDI)
			assert.Equal(t, n.Fret, d.Position+n.Finger-1, "one finger per fret")
			if !n.Attack.Slurred() {
				continue
			}
			require.Positive(t, i)
			before := chart.Notes[i-1]
			assert.Equal(t, before.String, n.String, "a new string needs a stroke")
			assert.NotEqual(t, before.Finger, n.Finger)
			assert.Equal(t, n.Attack == drill.Hammer, n.Fret > before.Fret, "hammer-ons go up, pull-offs down")
		}
	})
}

func TestThereAndBackIsItsOwnMirror(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := anyDrill(t)
		d.ThereAndBack, d.Position, d.Repeats = true, 5, 1
		chart, err := d.Chart(guitar.Standard(), 100)
		require.NoError(t, err)
		var visits []int
		for i, n := range chart.Notes {
			if i == 0 || chart.Notes[i-1].String != n.String {
				visits = append(visits, n.String)
			}
		}
		for i := range visits {
			assert.Equal(t, visits[i], visits[len(visits)-1-i])
		}
	})
}
