package simulate_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
)

func chartOf(t *testing.T, bpm float64, slur drill.Slur, passes int) chart.Chart {
	t.Helper()
	d := drill.New("test", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: slur})
	d.Path.Strings = []int{5, 4, 3, 2, 1}
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 3, passes
	c, err := d.Chart(guitar.Standard(), bpm)
	require.NoError(t, err)
	return c
}

// take lets a player play a chart.
func take(t *testing.T, p simulate.Player, c chart.Chart) ([]simulate.Stroke, []float64) {
	t.Helper()
	strokes, samples, err := p.Take(c)
	require.NoError(t, err)
	return strokes, samples
}

func TestTheSameSeedPlaysTheSame(t *testing.T) {
	c := chartOf(t, 90, drill.HammerOns, 1)
	p := simulate.Player{Seed: 7, ClockMs: 8, MotorMs: 5, NoiseDB: -60}
	first, a := take(t, p, c)
	second, b := take(t, p, c)
	assert.Equal(t, first, second)
	assert.Equal(t, a, b)
	p.Seed = 8
	other, _ := take(t, p, c)
	assert.NotEqual(t, first, other)
}

func TestThePlayerDoesWhatItIsTold(t *testing.T) {
	c := chartOf(t, 90, drill.HammerOns, 40)
	notes := c.Unroll()
	steady := simulate.Player{Seed: 1}.Perform(c, 2)
	p := simulate.Player{Seed: 1, MotorMs: 10, LevelSDDB: 1.5, SlurDropDB: 4, Miss: 5, Wrong: 6, Extra: 7, Weak: &simulate.Weak{From: 2, To: 4, LateMs: 20}}
	var off, level []float64
	wrong, extra := 0, 0
	strokes := p.Perform(c, 2)
	for _, s := range strokes {
		if s.Index < 0 {
			extra++
			continue
		}
		n := notes[s.Index]
		if s.MIDI != n.MIDI {
			wrong++
		}
		if n.Finger == 4 {
			continue // the weak pair
		}
		off = append(off, 1000*(s.T-2-n.Beat*60/90))
		if n.Attack == chart.Pick {
			level = append(level, s.LevelDB)
		}
	}
	assert.Len(t, steady, len(notes))
	assert.Equal(t, 7, extra)
	assert.Equal(t, 6, wrong)
	assert.Len(t, strokes, len(notes)-5+7)
	assert.InDelta(t, 10, stat.StdDev(off, nil), 1)
	assert.InDelta(t, 1.5, stat.StdDev(level, nil), 0.25)
}

// The rendered string sounds at the level and the time it was told, measured
// without the listener.
func TestRenderedLevelAndOnset(t *testing.T) {
	p := simulate.Player{Seed: 3}
	x := p.Render([]simulate.Stroke{{T: 0.5, Until: 2, String: 3, MIDI: 62, Attack: chart.Pick, LevelDB: -18}}, 44100, 2)
	sum := 0.0
	for _, v := range x[22271:26681] {
		sum += v * v
	}
	assert.InDelta(t, -18, 10*math.Log10(sum/4410), 0.1)
	for _, v := range x[:22050] {
		require.Zero(t, v, "silence before the note")
	}
}

func TestValidate(t *testing.T) {
	assert.NoError(t, simulate.Player{}.Validate())
	for name, p := range map[string]simulate.Player{
		"negative clock": {ClockMs: -1}, "wild hand": {MotorMs: 1000}, "negative misses": {Miss: -1}, "endless extras": {Extra: 1e6}, "backwards": {BPM: -60},
	} {
		assert.Error(t, p.Validate(), name)
	}
}

// A simulated take gives back what it was told: every note, the tempo within
// 0.5 %, the spread of the onsets within 1.5 ms and the weak pair.
func TestATakeGivesBackWhatItWasTold(t *testing.T) {
	for seed := range uint64(12) {
		t.Run(fmt.Sprint("seed ", seed), func(t *testing.T) { givesBack(t, seed) })
	}
}

func givesBack(t *testing.T, seed uint64) {
	rng := rand.New(rand.NewPCG(seed, 1))
	slur, weak := drill.HammerOns, &simulate.Weak{From: 2, To: 4, LateMs: 30, DropDB: 2}
	if seed%2 == 1 {
		slur, weak.From, weak.To = drill.PullOffs, 4, 2
	}
	c := chartOf(t, 60+60*rng.Float64(), slur, 2)
	p := simulate.Player{
		Seed: seed, ClockMs: 1 + 4*rng.Float64(), MotorMs: 3, LevelSDDB: 1, SlurDropDB: 2, NoiseDB: -66,
		Miss: rng.IntN(3), Weak: weak,
	}
	strokes, x := take(t, p, c)
	a := evenness.Judge(follow.Follow(c, listen.Listen(simulate.Rate, x)))
	assert.Equal(t, p.Miss, a.Counts.Missed)
	assert.Zero(t, a.Counts.Wrong)
	assert.Zero(t, a.Counts.Extra)

	beats, onsets := make([]float64, len(strokes)), make([]float64, len(strokes))
	notes := c.Unroll()
	for i, s := range strokes {
		beats[i], onsets[i] = notes[s.Index].Beat, s.T
	}
	alpha, beta := stat.LinearRegression(beats, onsets, nil, false)
	var left []float64
	for i := range beats {
		left = append(left, 1000*(onsets[i]-alpha-beta*beats[i]))
	}
	assert.InEpsilon(t, 60/beta, a.Tempo.BPM, 0.005)
	assert.InDelta(t, stat.PopStdDev(left, nil), a.Timing.SpreadMs, 1.5)
	assert.Equal(t, [2]int{weak.From, weak.To}, [2]int{a.Weakest.From, a.Weakest.To})
}

// The rendition of a chart sounds at its times, with a click on every beat.
func TestARenditionIsExact(t *testing.T) {
	c := chartOf(t, 90, drill.HammerOns, 2)
	plain, err := simulate.Rendition(c, false)
	require.NoError(t, err)
	clicked, err := simulate.Rendition(c, true)
	require.NoError(t, err)
	require.Len(t, clicked, len(plain))
	assert.InDelta(t, 2*c.Seconds()+1, float64(len(plain))/simulate.Rate, 1e-3)
	changed := func(at, seconds float64) bool {
		for i := int(at * simulate.Rate); i < int((at+seconds)*simulate.Rate); i++ {
			if plain[i] != clicked[i] {
				return true
			}
		}
		return false
	}
	for beat := range int(2 * c.Beats()) {
		at := float64(beat) * 60 / 90
		assert.True(t, changed(at, 0.03), "a click at beat %d", beat)
		assert.False(t, changed(at+0.04, 0.5), "and nothing else until the next")
	}
	again, err := simulate.Rendition(c, true)
	require.NoError(t, err)
	assert.Equal(t, clicked, again)
}

// From the bench to the measured take: a steady player's drill of every family
// is heard note for note, and as uneven as the player was.
func TestEveryFamilyIsHeardNoteForNote(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	for _, f := range library.Families() {
		c, err := f.Drill.Chart(guitar.Standard(), 100)
		require.NoError(t, err)
		c.Passes = 1 + 40/len(c.Notes) // few notes tell little of the tempo
		p := simulate.Player{Seed: 9, ClockMs: 6, MotorMs: 4, SlurDropDB: 2, NoiseDB: -66}
		strokes, x := take(t, p, c)
		a := evenness.Judge(follow.Follow(c, listen.Listen(simulate.Rate, x)))
		assert.Equal(t, evenness.Counts{Expected: len(strokes), Played: len(strokes)}, a.Counts, f.ID)
		assert.InDelta(t, 100, a.Tempo.BPM, 1, f.ID)
		assert.InDelta(t, 7, a.Timing.SpreadMs, 3, "%s: the clock's 6 ms and the hand's 4 ms", f.ID)
	}
}

// A slur that ends where it began is none: a wrong one is a fret off on the other side.
func TestAWrongSlurNeverEndsWhereItBegan(t *testing.T) {
	d := drill.New("pairs", drill.SlurCombinations{Combinations: [][]int{{1, 2}}, Slur: drill.HammerOns})
	c, err := d.Chart(guitar.Standard(), 80)
	require.NoError(t, err)
	wrong := 0
	for seed := range uint64(20) {
		strokes := simulate.Player{Seed: seed, Wrong: 6}.Perform(c, simulate.CountIn)
		notes := c.Unroll()
		for i, s := range strokes {
			if s.MIDI == notes[i].MIDI {
				continue
			}
			wrong++
			assert.Equal(t, 1, max(s.MIDI-notes[i].MIDI, notes[i].MIDI-s.MIDI), "a fret off")
			if s.Attack.Slurred() {
				assert.NotEqual(t, notes[i-1].MIDI, s.MIDI, "seed %d, note %d", seed, i)
			}
		}
	}
	assert.Equal(t, 120, wrong)
}
