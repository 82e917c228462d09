package simulate

import (
	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// Notes plays the chart and returns its notes as a listener would tell them that hears
// everything as it was played: what there is of a take whose sound was never made.
func (p Player) Notes(c chart.Chart) []listen.Note {
	strokes := p.Perform(c, CountIn)
	notes := make([]listen.Note, len(strokes))
	for i, s := range strokes {
		notes[i] = listen.Note{Onset: s.T, End: s.Until, Pitch: float64(s.MIDI), LevelDB: s.LevelDB, Bend: s.BendCents}
		if i+1 < len(strokes) {
			notes[i].End = min(s.Until, strokes[i+1].T)
		}
		if i > 0 {
			notes[i].Carry = listen.Carry{Known: true, DB: silent}
			if strokes[i-1].Until > s.T+ringing {
				notes[i].Carry.DB = 0
			}
		}
	}
	return notes
}

// A string left behind rings on in the next note where it is stopped so long after its
// start, s; else it is as still as this, dB.
const (
	ringing = 0.040
	silent  = -60
)
