package simulate

import (
	"math/rand/v2"

	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// soundingChunk is how many samples of a sounding are given at once.
const soundingChunk = Rate

// Sounding makes a string's sound of notes that came without one, as from MIDI,
// in order of their onsets: mono samples of full scale ±1 at [Rate], given to emit
// piece by piece, which has each piece until it returns. It fails with
// [bounds.ErrTakeTooLong] before any sound is made.
func Sounding(notes []listen.Note, emit func([]float64) error) error {
	end := 0.0
	for _, n := range notes {
		end = max(end, n.End)
	}
	if !(end <= bounds.TakeSeconds) {
		return bounds.ErrTakeTooLong
	}
	player := Player{Seed: 1}
	rng := rand.New(rand.NewPCG(player.Seed, 0x736f756e))
	at := 0 // of the first sample that is not given yet
	var ahead []float64
	give := func(until int) error {
		for ; at+soundingChunk <= until; at += soundingChunk {
			ahead = lengthened(ahead, soundingChunk)
			if err := emit(ahead[:soundingChunk]); err != nil {
				return err
			}
			ahead = ahead[:copy(ahead, ahead[soundingChunk:])]
		}
		return nil
	}
	for i, n := range notes {
		start := int(n.Onset * Rate)
		if err := give(start); err != nil {
			return err
		}
		x := player.sound(rng, Stroke{T: n.Onset, Until: min(n.End, n.Onset+maxRing), Index: i, MIDI: n.MIDI(), Attack: chart.Pick, LevelDB: pickedDB + n.LevelDB/2}, Rate)
		ahead = lengthened(ahead, start-at+len(x))
		mix(ahead, x, start-at)
	}
	if err := give(int((end + ringOut) * Rate)); err != nil {
		return err
	}
	rest := int((end+ringOut)*Rate) - at
	return emit(lengthened(ahead, rest)[:rest])
}

// lengthened is x with silence behind it, to n samples at the least.
func lengthened(x []float64, n int) []float64 {
	if n > len(x) {
		x = append(x, make([]float64, n-len(x))...)
	}
	return x
}
