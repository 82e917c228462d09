package stand_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/device/stand"
)

// short plays a chart at its tempo, as somebody whose hand is less sure the faster it is: by
// so many ms at four notes a second, growing with the square of the speed.
func short(c chart.Chart, ms float64, seed uint64) evenness.Analysis {
	p := simulate.Player{Seed: seed, MotorMs: ms * math.Pow(c.NotesPerSecond()/4, 2), LevelSDDB: 0.8}
	var heard []listen.Note
	for _, s := range p.Perform(c, 2) {
		heard = append(heard, listen.Note{Onset: s.T, End: s.Until, Pitch: float64(s.MIDI), LevelDB: s.LevelDB})
	}
	return evenness.Judge(follow.Follow(c, heard))
}

func clean(a evenness.Analysis, c chart.Chart, l tempo.Ladder) bool {
	result := a.Result()
	d := l.Decide(tempo.Rung{BPM: c.BPM, NotesPerBeat: c.NotesPerBeat}, c.NotesPerBeat, []tempo.Result{result})
	return d.Clean(result)
}

// Simulated players whose limit is known, from the share of their takes that pass the gate
// at each tempo, are found by a search within three minutes.
func TestASearchFindsTheLimitOfAPlayer(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	d := drill.New("slurs", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.BothSlurs})
	d.Path.Back = drill.Returns
	l := tempo.Usual()
	begin := stand.Sought{Drill: d, Guitar: guitar.Standard(), Ladder: l, NotesPerBeat: 2, From: 60, BarBeats: 4}
	for _, ms := range []float64{14, 8, 5} {
		limit := limitOf(t, d, l, ms)
		var off []float64
		for seed := range uint64(25) {
			q, played := begin, uint64(0)
			for {
				got, err := stand.Seek(question(t, q))
				require.NoError(t, err)
				if got.Next == nil {
					require.True(t, got.Sure, got.Found.Text)
					off = append(off, math.Abs(got.Found.BPM/limit-1))
					break
				}
				played++
				q.Search, q.Take = &got.Search, "unclean"
				if clean(short(got.Next.Chart, ms, 1000*seed+played), got.Next.Chart, l) {
					q.Take = "clean"
				}
				q.Seconds = 4*60/got.Search.BPM + got.Next.Chart.TakeSeconds() + 3
				require.LessOrEqual(t, got.Search.Seconds+q.Seconds, float64(tempo.SearchSeconds))
			}
		}
		slices.Sort(off)
		assert.Less(t, off[len(off)/2], 0.05, "half of the searches, at %.0f bpm", limit)
		assert.Less(t, off[len(off)*9/10], 0.12, "nine of ten, at %.0f bpm", limit)
	}
}

// limitOf is the tempo at which 70.7 % of the short takes of somebody are clean, by playing
// many of them: between the last tempo at which more are, by halves, and one 4 bpm above.
func limitOf(t *testing.T, d drill.Drill, l tempo.Ladder, ms float64) float64 {
	t.Helper()
	const of, step = 120, 4
	share := func(at int) float64 {
		whole, err := d.Chart(guitar.Standard(), float64(at*step))
		require.NoError(t, err)
		c := whole.Opening(6, 16)
		n := 0
		for seed := range uint64(of) {
			if clean(short(c, ms, 5000+seed), c, l) {
				n++
			}
		}
		return float64(n) / of
	}
	const wanted = 0.707
	slow, fast := 10, 75 // 40 and 300 bpm
	require.Greater(t, share(slow), wanted)
	for fast-slow > 1 {
		if middle := (slow + fast) / 2; share(middle) > wanted {
			slow = middle
		} else {
			fast = middle
		}
	}
	require.Less(t, fast, 75, "this player has no limit")
	below, above := share(slow), share(fast)
	return step * (float64(slow) + (below-wanted)/(below-above))
}

// A short take begins as the drill does, has whole beats, and enough notes to be judged.
func TestAShortTakeIsTheBeginningOfTheDrill(t *testing.T) {
	d := drill.New("slurs", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.BothSlurs})
	d.Path.Back = drill.Returns
	for _, bpm := range []float64{40, 60, 120, 240} {
		got, err := stand.Seek(question(t, stand.Sought{Drill: d, Guitar: guitar.Standard(), Ladder: tempo.Usual(), NotesPerBeat: 2, From: bpm, BarBeats: 4}))
		require.NoError(t, err)
		whole, err := d.Chart(guitar.Standard(), bpm)
		require.NoError(t, err)
		short := got.Next.Chart
		assert.Equal(t, whole.Notes[:len(short.Notes)], short.Notes)
		assert.GreaterOrEqual(t, len(short.Notes), 16)
		assert.InDelta(t, math.Round(got.Next.BeatsPerPass), got.Next.BeatsPerPass, 1e-9)
		assert.NoError(t, short.Validate())
	}
	d.Path.Strings, d.Path.Back = []int{3}, drill.OneWay // a pass of five notes
	got, err := stand.Seek(question(t, stand.Sought{Drill: d, Guitar: guitar.Standard(), Ladder: tempo.Usual(), NotesPerBeat: 2, From: 60, BarBeats: 4}))
	require.NoError(t, err)
	assert.GreaterOrEqual(t, got.Next.Chart.Passes*len(got.Next.Chart.Notes), 16)
	_, err = stand.Seek([]byte("{"))
	assert.Error(t, err)
}
