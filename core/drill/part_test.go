package drill_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/review"
	"manudrill/core/guitar"
	"manudrill/drilltest"
)

// one is a drill of finger orders picked on one string, four notes a beat.
func one(orders ...[]int) drill.Drill {
	d := drill.New("one", drill.FingerPerFret{Orders: orders})
	d.Path.Strings, d.Attacks.Rule = []int{3}, drill.AllPicked
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 4, 1
	return d
}

// Worked out by hand: four orders of 15 s each at 80 bpm last 20 beats each, so 80 notes
// at four a beat, and change at beats 0, 20, 40 and 60.
func TestFourOrdersOfFifteenSecondsChangeOnTheBeat(t *testing.T) {
	orders := [][]int{{1, 2, 3, 4}, {1, 3, 2, 4}, {4, 3, 2, 1}, {2, 1, 4, 3}}
	var drills []drill.Drill
	for _, o := range orders {
		drills = append(drills, one(o))
	}
	joined := drill.Joined("Four orders", drills, []int{15, 15, 15, 15})
	c, err := joined.Chart(guitar.Standard(), 80)
	require.NoError(t, err)
	assert.Len(t, c.Notes, 4*80)
	assert.InDelta(t, 60, c.TakeSeconds(), 1e-9)
	for part, o := range orders {
		first := c.Notes[80*part]
		assert.Equal(t, part, first.Part)
		assert.InDelta(t, float64(20*part), first.Beat, 1e-9)
		assert.Equal(t, o[0], first.Finger)
		assert.Equal(t, chart.DownStroke, first.Stroke, "each part begins on its first stroke")
	}
	slow, err := joined.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	assert.Len(t, slow.Notes, 4*60, "15 s at 60 bpm are 15 beats")
}

// 21 31 41 31 21 are ten notes; at four a beat the part ends in the middle of a beat, and
// its first two notes fill it, so that what follows begins on the click.
func TestAPartEndsWithTheBeat(t *testing.T) {
	first := drill.New("to 1", drill.Free{Notes: []drill.FreeNote{
		{String: 3, Fret: 6}, {String: 3, Fret: 5}, {String: 3, Fret: 7}, {String: 3, Fret: 5}, {String: 3, Fret: 8},
		{String: 3, Fret: 5}, {String: 3, Fret: 7}, {String: 3, Fret: 5}, {String: 3, Fret: 6}, {String: 3, Fret: 5},
	}})
	first.Path.Position, first.Path.Strings = 5, []int{3}
	first.Rhythm.NotesPerBeat, first.Rhythm.Passes = 4, 1
	second := one([]int{1, 2, 3, 4})
	c, err := drill.Joined("both", []drill.Drill{first, second}, nil).Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	require.Len(t, c.Notes, 12+4)
	assert.Equal(t, []int{6, 5}, []int{c.Notes[10].Fret, c.Notes[11].Fret})
	assert.InDelta(t, 3, c.Notes[12].Beat, 1e-9)
	assert.Equal(t, chart.Pick, c.Notes[12].Attack, "nothing is slurred into a new part")
	assert.Equal(t, []string{"to 1", "one"}, c.Parts)
	alone := c.Alone(1)
	require.NoError(t, alone.Validate())
	assert.Len(t, alone.Notes, 4)
	assert.Zero(t, alone.Notes[0].Beat)
}

func TestPickedFirstPutsTheSameNotesBeforeTheSlurs(t *testing.T) {
	d := drill.New("legato", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.HammerOns})
	c, err := d.PickedFirst().Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	picked, slurred := c.Alone(0), c.Alone(1)
	require.Len(t, slurred.Notes, len(picked.Notes))
	hammered := 0
	for i := range picked.Notes {
		assert.Equal(t, chart.Pick, picked.Notes[i].Attack)
		assert.Equal(t, picked.Notes[i].Fret, slurred.Notes[i].Fret)
		if slurred.Notes[i].Attack == chart.Hammer {
			hammered++
		}
	}
	assert.Positive(t, hammered)
	assert.Equal(t, []string{"Picked", "Slurred"}, c.Parts)
	assert.Len(t, one([]int{1, 2}).PickedFirst().Parts(), 1, "what is picked anyway needs no yardstick")
}

func TestFaultsAndMendsOfAPartStayWithIt(t *testing.T) {
	low := one([]int{1, 2, 3, 4})
	off := one([]int{1, 2, 3, 4})
	off.Path.Position = 30
	d := drill.Joined("both", []drill.Drill{low, off}, nil)
	faults := d.Check(guitar.Standard())
	require.Len(t, faults, 1)
	assert.Equal(t, "then.0.path.position", faults[0].Field)
	assert.Contains(t, faults[0].Text, "Part 2: ")
	require.NotEmpty(t, faults[0].Mends)
	mended := faults[0].Mends[0].Drill
	assert.Empty(t, mended.Check(guitar.Standard()))
	assert.Equal(t, low.Path, mended.Parts()[0].Path)

	d = drill.Joined("many", make([]drill.Drill, chart.MaxParts+1), nil)
	assert.NotEmpty(t, d.Check(guitar.Standard()))
}

func TestRemarksOfPartsAreToldOnceWithTheirNotes(t *testing.T) {
	wide := one([]int{1, 4})
	wide.Pattern = drill.Diagonal{Orders: [][]int{{1, 2, 3, 4}}}
	wide.Path = drill.New("", wide.Pattern).Path
	wide.Path.Position = 1
	d := drill.Joined("all", []drill.Drill{one([]int{1, 2, 3, 4}), wide, wide}, nil)
	c, err := d.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	hand := guitar.UsualHand()
	alone := review.Of(wide, c.Alone(1), guitar.Standard(), hand)
	require.NotEmpty(t, alone)
	together := review.Of(d, c, guitar.Standard(), hand)
	for _, r := range together {
		if r.Check == alone[0].Check {
			assert.Equal(t, "Part 2: "+alone[0].Text+" Something like it goes for 1 more part.", r.Text)
			assert.Equal(t, alone[0].Notes[0]+4, r.Notes[0], "counted over the whole chart")
			for _, m := range r.Mends {
				assert.Len(t, m.Drill.Parts(), 3)
			}
		}
	}
}

// What lasts so many seconds has more notes the faster it is played.
func TestHowManyNotesThereAreAtATempo(t *testing.T) {
	held := one([]int{1, 2})
	held.Path.Stay = drill.Stay{Count: 6, Unit: drill.Seconds}
	for bpm, notes := range map[float64]int{60: 24, 100: 40, 120: 48} {
		assert.Equal(t, notes, held.NotesAt(guitar.Standard(), bpm))
	}
	rapid.Check(t, func(t *rapid.T) {
		d := drilltest.AnyDrill(t)
		c, err := d.Chart(guitar.Standard(), 60)
		if err != nil {
			t.Fatal(err)
		}
		if got := d.NotesAt(guitar.Standard(), 60); got != len(c.Notes) {
			t.Fatalf("%d notes are told, there are %d", got, len(c.Notes))
		}
	})
}

// Whatever parts are joined: each begins on a click, the chart is whole, and comes back
// from JSON as it was.
func TestJoinedDrillsStandOnTheBeat(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var drills []drill.Drill
		for range rapid.IntRange(1, 4).Draw(t, "parts") {
			drills = append(drills, drilltest.AnyDrill(t))
		}
		var seconds []int
		if rapid.Bool().Draw(t, "timed") {
			for range drills {
				seconds = append(seconds, rapid.IntRange(5, 30).Draw(t, "seconds"))
			}
		}
		d := drill.Joined("joined", drills, seconds)
		if len(d.Check(guitar.Standard())) > 0 {
			t.Skip("no drill")
		}
		if len(d.CheckAt(guitar.Standard(), 70)) > 0 {
			t.Skip("too long")
		}
		c, err := d.Chart(guitar.Standard(), 70)
		if err != nil {
			t.Fatal(err)
		}
		if err := c.Validate(); err != nil {
			t.Fatal(err)
		}
		for i := 1; i < len(c.Notes); i++ {
			n := c.Notes[i]
			if n.Part != c.Notes[i-1].Part && i%d.Rhythm.NotesPerBeat != 0 {
				t.Fatalf("part %d begins at beat %g", n.Part, n.Beat)
			}
		}
		document, err := json.Marshal(d)
		if err != nil {
			t.Fatal(err)
		}
		var back drill.Drill
		if err := json.Unmarshal(document, &back); err != nil {
			t.Fatal(err)
		}
		again, err := json.Marshal(back)
		if err != nil {
			t.Fatal(err)
		}
		assert.JSONEq(t, string(document), string(again))
	})
}
