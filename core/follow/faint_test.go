package follow_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
)

// loud gives all notes a level.
func loud(notes []listen.Note, db float64) []listen.Note {
	out := append([]listen.Note{}, notes...)
	for i := range out {
		out[i].LevelDB = db
	}
	return out
}

// A voice in the room is no mistake of the player's, an extra note is, and a soft note
// of the drill is still played. Measured: what was falsely told lay 15 to 33 dB below the
// notes played, real extra notes within 4.
func TestFaintSoundsAreNoMistakes(t *testing.T) {
	written := pairs(t)
	played := loud(exact(written, 2, 90), -20)
	voice := listen.Note{Onset: played[6].Onset + 0.15, Pitch: 58, LevelDB: -37}
	behind := played[21].Onset + 1
	before := listen.Note{Onset: 0.7, Pitch: 61, LevelDB: -36}
	for name, c := range map[string]struct {
		heard   []listen.Note
		played  int
		missed  int
		extras  int
		missing int // index of the one missed
	}{
		"a word said after":  {with(played, 22, listen.Note{Onset: behind, Pitch: 58, LevelDB: -31.5}), 22, 0, 0, -1},
		"a word said before": {with(played, 0, listen.Note{Onset: before.Onset, Pitch: 58, LevelDB: -31.5}), 22, 0, 0, -1},
		"one more after":     {with(played, 22, listen.Note{Onset: behind, Pitch: 58, LevelDB: -28.5}), 22, 0, 1, -1},
		"a touched string":   {with(played, 7, listen.Note{Onset: voice.Onset, Pitch: 58, LevelDB: -31.5}), 22, 0, 1, -1},
		"voices":             {append([]listen.Note{before}, with(played, 7, voice)...), 22, 0, 0, -1},
		"an extra note":      {with(played, 7, listen.Note{Onset: voice.Onset, Pitch: 58, LevelDB: -25}), 22, 0, 1, -1},
		"a voice for a note": {with(without(played, 9), 9, listen.Note{Onset: played[9].Onset, Pitch: 58, LevelDB: -38}), 21, 1, 0, 9},
	} {
		take := follow.Follow(written, c.heard)
		assert.Equal(t, c.played, take.Count(follow.Played), name)
		assert.Equal(t, c.missed, take.Count(follow.Missed), name)
		assert.Len(t, take.Extras, c.extras, name)
		if c.missing >= 0 {
			assert.Equal(t, follow.Missed, take.Matches[c.missing].Status, name)
		}
	}
	soft := loud(played, -20)
	soft[4].LevelDB = -38
	assert.Equal(t, 22, follow.Follow(written, soft).Count(follow.Played), "a weak slur in its place is played")
}

// What is said after a drill may have pitches of it, and times: none of it is the player's,
// however it is laid on another pass.
func TestWhatIsSaidAfterADrillIsNoExtra(t *testing.T) {
	written := pairs(t)
	for seed := range uint64(40) {
		rng := rand.New(rand.NewPCG(seed, 5))
		heard := loud(exact(written, 2, 90), -20)
		at, notes := heard[len(heard)-1].Onset, len(heard)
		for range 12 {
			at += 0.1 + 0.3*rng.Float64()
			said := listen.Note{Onset: at, Pitch: heard[rng.IntN(notes)].Pitch, LevelDB: -35 - 8*rng.Float64()}
			heard = append(heard, said)
		}
		take := follow.Follow(written, heard)
		assert.Equal(t, notes, take.Count(follow.Played), "seed %d", seed)
		assert.Empty(t, take.Extras, "seed %d", seed)
	}
}

// An extra note an octave off is not laid on the note before it that was missed; one
// the listener takes for its octave still is the note.
func TestAnOctaveCostsSomething(t *testing.T) {
	c := pairs(t)
	played := exact(c, 2, 90)
	octave := append([]listen.Note{}, played...)
	octave[5].Pitch += 12
	take := follow.Follow(c, octave)
	assert.Equal(t, 22, take.Count(follow.Played), "told in another octave")
	assert.Empty(t, take.Extras)

	between := played[9]
	between.Onset, between.Pitch = (played[9].Onset+played[10].Onset)/2, played[9].Pitch+12
	take = follow.Follow(c, with(without(played, 9), 9, between))
	assert.Equal(t, follow.Missed, take.Matches[9].Status)
	require.Len(t, take.Extras, 1)
	assert.InDelta(t, between.Onset, take.Extras[0].Onset, 1e-9)
}

// Of something else nothing is listed: what fits does so by chance.
func TestNothingIsListedOfSomethingElse(t *testing.T) {
	c := pairs(t)
	d := drill.New("other", drill.FingerPerFret{Orders: [][]int{{4, 2, 3, 1}}})
	d.Path.Position, d.Attacks.Rule, d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 2, drill.AllPicked, 4, 1
	other, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	take := follow.Follow(c, exact(other, 2, 90))
	require.True(t, take.Foreign())
	assert.Equal(t, len(take.Matches), take.Count(follow.Missed))
	assert.Empty(t, take.Extras)
	assert.Empty(t, take.Aside)
}

// A chart without notes has none played: nothing is divided by their number.
func TestAnEmptyChartIsForeignToAllSound(t *testing.T) {
	take := follow.Follow(chart.Chart{BPM: 90, NotesPerBeat: 2}, exact(pairs(t), 1, 90))
	assert.True(t, take.Foreign())
	assert.Empty(t, take.Matches)
}

// A last note that was not heard is missed: what comes much later, soft and an octave off or at
// another pitch, is some other sound. As loud as the rest it is the player's, and late.
func TestWhatIsSaidAfterADrillIsNotItsLastNote(t *testing.T) {
	written := pairs(t)
	played := loud(exact(written, 2, 90), -20)
	end := len(played) - 1
	for name, c := range map[string]struct {
		semitones, db float64
		status        follow.Status
	}{
		"soft, an octave off":  {12, -32, follow.Missed},
		"soft, another":        {3, -32, follow.Missed},
		"soft, its own":        {0, -32, follow.Played},
		"loud, an octave off":  {12, -21, follow.Played},
		"softer, in its place": {0, -42, follow.Played},
	} {
		heard := loud(played, -20)
		heard[end].Pitch += c.semitones
		heard[end].LevelDB = c.db
		if c.db > -40 {
			heard[end].Onset += 0.7
		}
		take := follow.Follow(written, heard)
		assert.Equal(t, c.status, take.Matches[end].Status, name)
		assert.Empty(t, take.Extras, name)
	}
}
