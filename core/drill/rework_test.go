package drill_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/drill/review"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/core/setup"
	"manudrill/drilltest"
)

func TestTransposingMovesHandAndKey(t *testing.T) {
	d := drilltest.Of(drill.ScaleRun{PerString: []int{3}, Order: drill.Up}, drilltest.In(7, "major"), drilltest.At(3, 6))
	up := d.Transposed(2)
	assert.Equal(t, "6:5-7-9", drilltest.Frets(drilltest.Chart(t, up).Notes), "G major becomes A major")
	assert.Equal(t, 9, up.Key.Root)
	assert.Equal(t, 7, d.Key.Root, "the original stays")
	d.Fingering.Own = []drill.PlacedFinger{{String: 6, Fret: 5, Finger: 3}}
	moved := drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2}), drilltest.At(5, 4, 3)).OnStrings(-1)
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
	fingers := drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}})
	assert.Len(t, names(fingers, drill.ByFingerOrder), 24)
	three := drilltest.Of(drill.FingerPerFret{Orders: [][]int{{1, 2, 4}}})
	assert.Len(t, names(three, drill.ByFingerOrder), 6, "3! orders")
	shape := drilltest.Of(drill.TwoStringShape{Lower: []int{0, 2}, Higher: []int{0, 2}, Order: drill.Up}, drilltest.At(5, 2, 1))
	assert.Equal(t, []string{"test, up", "test, down", "test, both", "test, cascade"}, names(shape, drill.ByOrder))
	assert.Len(t, names(drilltest.Of(drilltest.Slurs(drill.HammerOns, []int{1, 2})), drill.BySlur), 3)
	assert.Len(t, names(fingers, drill.ByString), 6)
	assert.Len(t, names(fingers, drill.ByPosition), 10, "1, 3 … 19: fret 22 is the last")
	_, err := shape.Variations(g, drill.BySlur)
	assert.Error(t, err)
	assert.Contains(t, shape.Varieties(), drill.ByOrder)
}

func TestADrillMadeFreeSoundsTheSame(t *testing.T) {
	for _, f := range library.Families() {
		c := drilltest.Chart(t, f.Drill)
		if len(c.Notes) > drill.MaxFreeNotes {
			continue
		}
		free := drilltest.Chart(t, score.FreeOf(f.Drill, c))
		assert.Equal(t, drilltest.Written(c.Notes), drilltest.Written(free.Notes), f.ID)
	}
}

func TestEveryDrillLiesOnTheNeckAndCanBeSlurred(t *testing.T) {
	g := guitar.Standard()
	rapid.Check(t, func(t *rapid.T) {
		notes := drilltest.Chart(t, drilltest.AnyDrill(t)).Notes
		for i, n := range notes {
			pitch, err := g.Pitch(n.String, n.Fret)
			require.NoError(t, err)
			assert.Equal(t, pitch+n.Bend, n.MIDI)
			assert.Equal(t, n.Fret == 0 && n.Hand == chart.FrettingHand, n.Finger == 0, "the open string, and only it, has no finger")
			switch n.Attack {
			case chart.Hammer:
				require.Positive(t, i)
				assert.True(t, notes[i-1].String == n.String && notes[i-1].Fret < n.Fret, "note %d", i)
			case chart.Pull:
				require.Positive(t, i)
				assert.True(t, notes[i-1].String == n.String && notes[i-1].Fret > n.Fret, "note %d", i)
			case chart.Slide:
				require.Positive(t, i)
				assert.True(t, notes[i-1].String == n.String && notes[i-1].Fret != n.Fret, "note %d", i)
			}
			assert.Equal(t, n.Attack == chart.Pick, n.Stroke != "", "picked notes have strokes and no others")
		}
	})
}

func TestThereAndBackIsItsOwnMirror(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		order := rapid.SampledFrom(drill.FingerOrders()).Draw(t, "order")
		by := rapid.IntRange(0, 2).Draw(t, "by")
		d := drilltest.Of(drill.FingerPerFret{Orders: [][]int{order}}, drilltest.At(5, 6, 5, 4, 3), drilltest.Rule(drill.AllPicked), drilltest.Back(drill.Mirrored),
			drilltest.Shift(drill.Shift{By: by, Each: drill.EachCell, Count: rapid.IntRange(0, 4).Draw(t, "count"), Home: true}))
		notes := drilltest.Chart(t, d).Notes
		for i := range notes {
			mirror := notes[len(notes)-1-i]
			require.Equal(t, []int{notes[i].String, notes[i].Fret, notes[i].Finger}, []int{mirror.String, mirror.Fret, mirror.Finger})
		}
	})
}

func TestReversingTwiceIsNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := drilltest.AnyDrill(t)
		d.Rhythm.Close = 0
		forward := drilltest.Chart(t, d).Notes
		d.Reverse = !d.Reverse
		back := drilltest.Chart(t, d).Notes
		require.Len(t, back, len(forward))
		for i := range forward {
			o := back[len(back)-1-i]
			require.Equal(t, []int{forward[i].String, forward[i].Fret}, []int{o.String, o.Fret})
		}
	})
}

func BenchmarkWriteOutAndReview500Notes(b *testing.B) {
	d := drilltest.Of(drill.FingerPerFret{Orders: drill.FingerOrders()[:21]}, drilltest.At(5, 6, 5, 4, 3, 2, 1), drilltest.Rule(drill.AllPicked))
	g, h := guitar.Standard(), guitar.UsualHand()
	notes := 0
	for b.Loop() {
		c := drilltest.Chart(b, d)
		review.Of(d, c, g, h)
		review.DampingOf(c)
		review.DifficultyOf(c, g, h, setup.UsualWeights())
		notes = len(c.Notes)
	}
	b.ReportMetric(float64(notes), "notes")
}
