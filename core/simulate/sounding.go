package simulate

import (
	"manudrill/core/drill"
	"manudrill/core/listen"
)

// Sounding makes a string's sound of notes that came without one, as from MIDI:
// mono samples of full scale ±1 at [Rate].
func Sounding(notes []listen.Note) []float64 {
	strokes := make([]Stroke, len(notes))
	end := 0.0
	for i, n := range notes {
		strokes[i] = Stroke{T: n.Onset, Until: n.End, Index: i, MIDI: n.MIDI(), Attack: drill.Pick, LevelDB: pickedDB + n.LevelDB/2}
		end = max(end, n.End)
	}
	return Player{Seed: 1}.Render(strokes, Rate, end+ringOut)
}
