package drill_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/guitar"
)

func TestTransposingMovesHandAndKey(t *testing.T) {
	d := a(drill.ScaleRun{PerString: []int{3}, Order: drill.Up}, in(7, "major"), at(3, 6))
	up := d.Transposed(2)
	assert.Equal(t, "6:5-7-9", frets(chartOf(t, up).Notes), "G major becomes A major")
	assert.Equal(t, 9, up.Key.Root)
	assert.Equal(t, 7, d.Key.Root, "the original stays")
	d.Fingering.Own = []drill.PlacedFinger{{String: 6, Fret: 5, Finger: 3}}
	moved := a(slurs(drill.HammerOns, []int{1, 2}), at(5, 4, 3)).OnStrings(-1)
	assert.Equal(t, []int{3, 2}, moved.Path.Strings)
	assert.Equal(t, 7, d.Transposed(2).Fingering.Own[0].Fret)
}

func TestVariations(t *testing.T) {
	g := guitar.Standard()
	names := func(d drill.Drill, by drill.Variety) []string {
		all, err := d.Variations(g, by)
		require.NoError(t, err)
		var out []string
		for _, v := range all {
			out = append(out, v.Name)
		}
		return out
	}
	fingers := a(drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}})
	assert.Len(t, names(fingers, drill.ByFingerOrder), 24)
	three := a(drill.FingerPerFret{Orders: [][]int{{1, 2, 4}}})
	assert.Len(t, names(three, drill.ByFingerOrder), 6, "3! orders")
	shape := a(drill.TwoStringShape{Lower: []int{0, 2}, Higher: []int{0, 2}, Order: drill.Up}, at(5, 2, 1))
	assert.Equal(t, []string{"test, up", "test, down", "test, both", "test, cascade"}, names(shape, drill.ByOrder))
	assert.Len(t, names(a(slurs(drill.HammerOns, []int{1, 2})), drill.BySlur), 3)
	assert.Len(t, names(fingers, drill.ByString), 6)
	assert.Len(t, names(fingers, drill.ByPosition), 10, "1, 3 … 19: fret 22 is the last")
	_, err := shape.Variations(g, drill.BySlur)
	assert.Error(t, err)
	assert.Contains(t, shape.Varieties(), drill.ByOrder)
}

func TestADrillMadeFreeSoundsTheSame(t *testing.T) {
	for _, f := range drill.Families() {
		c := chartOf(t, f.Drill)
		if len(c.Notes) > drill.MaxFreeNotes {
			continue
		}
		free := chartOf(t, drill.FreeOf(f.Drill, c))
		assert.Equal(t, written(c.Notes), written(free.Notes), f.ID)
	}
}

// anyDrill draws a drill from all families with other paths, rules and rhythms;
// those that are no drill are drawn again.
func anyDrill(t *rapid.T) drill.Drill {
	families := drill.Families()
	d := families[rapid.IntRange(0, len(families)-1).Draw(t, "family")].Drill
	d.Path.Position = rapid.IntRange(1, 17).Draw(t, "position")
	d.Path.Back = rapid.SampledFrom([]drill.Back{drill.OneWay, drill.Returns, drill.Mirrored}).Draw(t, "back")
	d.Path.Together = rapid.Bool().Draw(t, "together")
	d.Path.Shift = drill.Shift{
		By: rapid.IntRange(-2, 2).Draw(t, "by"), Each: rapid.SampledFrom([]string{drill.EachCell, drill.EachLeg, drill.EachRound}).Draw(t, "each"),
		Count: rapid.IntRange(0, 4).Draw(t, "count"), Home: rapid.Bool().Draw(t, "home"),
	}
	d.Path.Stay = drill.Stay{Count: rapid.IntRange(1, 3).Draw(t, "stay"), Unit: rapid.SampledFrom([]string{drill.Times, drill.Beats}).Draw(t, "unit")}
	d.Attacks = drill.Attacks{Rule: rapid.SampledFrom(drill.AttackRules).Draw(t, "attacks"), Cycle: []bool{false, true}}
	d.Strokes = drill.Strokes{Rule: rapid.SampledFrom(drill.StrokeRules).Draw(t, "strokes"), FromUp: rapid.Bool().Draw(t, "fromUp")}
	d.Rhythm.NotesPerBeat = rapid.SampledFrom(drill.Divisions).Draw(t, "perBeat")
	d.Mirror, d.Reverse = rapid.Bool().Draw(t, "mirror"), rapid.Bool().Draw(t, "reverse")
	d.Rhythm.Passes = 1
	if len(d.Check(guitar.Standard())) > 0 || len(d.CheckAt(guitar.Standard(), 60)) > 0 {
		t.Skip("no drill")
	}
	return d
}

func TestEveryDrillLiesOnTheNeckAndCanBeSlurred(t *testing.T) {
	g := guitar.Standard()
	rapid.Check(t, func(t *rapid.T) {
		notes := chartOf(t, anyDrill(t)).Notes
		for i, n := range notes {
			pitch, err := g.Pitch(n.String, n.Fret)
			require.NoError(t, err)
			assert.Equal(t, pitch+n.Bend, n.MIDI)
			assert.Equal(t, n.Fret == 0 && n.Hand == drill.FrettingHand, n.Finger == 0, "the open string, and only it, has no finger")
			switch n.Attack {
			case drill.Hammer:
				require.Positive(t, i)
				assert.True(t, notes[i-1].String == n.String && notes[i-1].Fret < n.Fret, "note %d", i)
			case drill.Pull:
				require.Positive(t, i)
				assert.True(t, notes[i-1].String == n.String && notes[i-1].Fret > n.Fret, "note %d", i)
			case drill.Slide:
				require.Positive(t, i)
				assert.True(t, notes[i-1].String == n.String && notes[i-1].Fret != n.Fret, "note %d", i)
			}
			assert.Equal(t, n.Attack == drill.Pick, n.Stroke != "", "picked notes have strokes and no others")
		}
	})
}

func TestThereAndBackIsItsOwnMirror(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		order := rapid.SampledFrom(drill.FingerOrders()).Draw(t, "order")
		by := rapid.IntRange(0, 2).Draw(t, "by")
		d := a(drill.FingerPerFret{Orders: [][]int{order}}, at(5, 6, 5, 4, 3), rule(drill.AllPicked), back(drill.Mirrored),
			shift(drill.Shift{By: by, Each: drill.EachCell, Count: rapid.IntRange(0, 4).Draw(t, "count"), Home: true}))
		notes := chartOf(t, d).Notes
		for i := range notes {
			mirror := notes[len(notes)-1-i]
			require.Equal(t, []int{notes[i].String, notes[i].Fret, notes[i].Finger}, []int{mirror.String, mirror.Fret, mirror.Finger})
		}
	})
}

func TestReversingTwiceIsNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := anyDrill(t)
		d.Rhythm.Close = 0
		forward := chartOf(t, d).Notes
		d.Reverse = !d.Reverse
		back := chartOf(t, d).Notes
		require.Len(t, back, len(forward))
		for i := range forward {
			o := back[len(back)-1-i]
			require.Equal(t, []int{forward[i].String, forward[i].Fret}, []int{o.String, o.Fret})
		}
	})
}

func BenchmarkWriteOutAndReview500Notes(b *testing.B) {
	d := a(drill.FingerPerFret{Orders: drill.FingerOrders()[:21]}, at(5, 6, 5, 4, 3, 2, 1), rule(drill.AllPicked))
	g, h := guitar.Standard(), guitar.UsualHand()
	notes := 0
	for b.Loop() {
		c := chartOf(b, d)
		d.Review(c, g, h)
		drill.DampingOf(c)
		drill.DifficultyOf(c, g, h, drill.UsualWeights())
		notes = len(c.Notes)
	}
	b.ReportMetric(float64(notes), "notes")
}
