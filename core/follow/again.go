package follow

import (
	"math"

	"manudrill/core/listen"
)

// againWithin is how far from its place, as a share of the time to it, a note may come
// that repeats the one before.
const againWithin = 0.3

// fillAgain takes a note that was missed as played where it repeats what was played before,
// right or wrong, and the string may have been struck again at its time: by itself the sound
// hardly shows it, but the chart asks for it.
func (t *Take) fillAgain(secondsPerBeat float64) {
	for i := range t.Matches {
		if i == 0 || t.Matches[i].Status != Missed || t.Matches[i-1].Status == Missed {
			continue
		}
		before, m := &t.Matches[i-1], &t.Matches[i]
		again, asked := before.Heard.Again, (m.Chart.Beat-before.Chart.Beat)*secondsPerBeat
		repeats := m.Chart.MIDI == before.Chart.MIDI
		if before.Status == Wrong {
			repeats = m.Chart.MIDI == t.MIDI(before.Heard)
		}
		if !repeats || again.T == 0 || math.Abs(again.T-before.Heard.Onset-asked) > againWithin*asked {
			continue
		}
		m.Status, m.Heard = Played, before.Heard
		m.Heard.Onset, m.Heard.LevelDB = again.T, again.LevelDB
		m.Heard.Bend, m.Heard.Carry, m.Heard.Again = 0, listen.Carry{}, listen.Again{}
		before.Heard.End, before.Heard.Again = again.T, listen.Again{}
	}
}
