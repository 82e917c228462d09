package stand_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/device/stand"
)

const rate = 48000

// clicked is a recording of clicks of 15 ms, so many s later than they were made, in noise.
func clicked(clicks []float64, delay, loud float64, seed uint64) []int32 {
	rng := rand.New(rand.NewPCG(seed, 8))
	x := make([]int32, int((clicks[len(clicks)-1]+1)*rate))
	for i := range x {
		x[i] = int32(1e-3 * (1 << 23) * rng.NormFloat64())
	}
	for _, c := range clicks {
		at := int((c + delay) * rate)
		for i := range int(0.015 * rate) {
			t := float64(i) / rate
			x[at+i] += int32(loud * (1 << 23) * math.Exp(-200*t) * math.Sin(2*math.Pi*1500*t))
		}
	}
	return x
}

// sixteen clicks that come unevenly, as they are made.
func sixteen() []float64 {
	var clicks []float64
	for i := range 16 {
		clicks = append(clicks, 0.4+0.7*float64(i)+0.06*math.Sin(float64(i*i)))
	}
	return clicks
}

func TestTheDelayOfADeviceIsFound(t *testing.T) {
	for i, delay := range []float64{0, 0.008, 0.043, 0.12, 0.31} {
		for _, loud := range []float64{0.5, 0.03} {
			got, err := stand.FindDelay(question(t, stand.Clicked{Rate: rate, Clicks: sixteen()}), clicked(sixteen(), delay, loud, uint64(i)))
			require.NoError(t, err)
			require.True(t, got.Sure, "%g s, %g loud: %s", delay, loud, got.Text)
			assert.InDelta(t, delay, got.Seconds, 0.002)
			assert.Less(t, got.SpreadMs, 1.5)
		}
	}
}

// Somebody plays a note on each click, 15 ms about it.
func TestTheDelayIsFoundByPlayingOnTheClick(t *testing.T) {
	d := drill.New("on the click", drill.Free{Notes: []drill.FreeNote{{String: 3, Fret: 5}}})
	d.Path.Position, d.Path.Strings, d.Path.Stay.Count, d.Rhythm.NotesPerBeat = 5, []int{3}, 16, 1
	d.Rhythm.Passes = 1
	chart, err := d.Chart(guitar.Standard(), 85)
	require.NoError(t, err)
	for seed := range uint64(6) {
		_, x, err := simulate.Player{Seed: seed, MotorMs: 15, NoiseDB: -62}.Take(chart)
		require.NoError(t, err)
		const delay = 0.07
		var clicks []float64
		for _, n := range chart.Notes {
			clicks = append(clicks, simulate.CountIn+n.Beat*60/chart.BPM-delay)
		}
		samples := make([]int32, len(x))
		for i, v := range x {
			samples[i] = int32(v * (1 << 23))
		}
		got, err := stand.FindDelay(question(t, stand.Clicked{Rate: simulate.Rate, Clicks: clicks, Played: true}), samples)
		require.NoError(t, err)
		require.True(t, got.Sure, got.Text)
		assert.InDelta(t, delay, got.Seconds, 0.012, "16 notes of 15 ms: 4 ms of error, thrice")
	}
}

// Where nothing, or something else, was heard no delay is told.
func TestWithoutTheClickNoDelayIsTold(t *testing.T) {
	ask := func(x []int32, played bool) stand.Delayed {
		got, err := stand.FindDelay(question(t, stand.Clicked{Rate: rate, Clicks: sixteen(), Played: played}), x)
		require.NoError(t, err)
		return got
	}
	noise := clicked(sixteen(), 0.05, 0, 1)
	silence := make([]int32, len(noise))
	for _, played := range []bool{false, true} {
		assert.False(t, ask(noise, played).Sure)
		assert.False(t, ask(silence, played).Sure)
		assert.False(t, ask(nil, played).Sure)
	}
	wrong := 0
	for seed := range uint64(40) { // knocks at any time
		rng := rand.New(rand.NewPCG(seed, 9))
		var knocks []float64
		for at := 0.3; at < 11; at += 0.3 + 0.8*rng.Float64() {
			knocks = append(knocks, at)
		}
		if ask(clicked(knocks, 0, 0.3, seed), false).Sure {
			wrong++
		}
	}
	assert.Zero(t, wrong)
	_, err := stand.FindDelay(question(t, stand.Clicked{Rate: 10}), noise)
	assert.Error(t, err)
	_, err = stand.FindDelay([]byte("{"), noise)
	assert.Error(t, err)
}
