package simulate

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"manudrill/core/drill"
)

// A Player is how somebody plays: steady or not, with which faults.
//
// Each onset is off by a clock part, which carries over to the next notes until
// the click corrects it, and by a motor part of its own (the two sources of
// Wing & Kristofferson, Percept. Psychophys. 14, 1973).
type Player struct {
	Seed       uint64  `json:"seed"`
	BPM        float64 `json:"bpm,omitempty"` // tempo really played; the chart's where 0
	ClockMs    float64 `json:"clockMs"`       // standard deviation of the clock
	MotorMs    float64 `json:"motorMs"`       // standard deviation of the hand
	LevelSDDB  float64 `json:"levelSdDb"`     // standard deviation of the level
	SlurDropDB float64 `json:"slurDropDb"`    // by how much slurred notes are softer
	Weak       *Weak   `json:"weak,omitempty"`
	Miss       int     `json:"miss"`    // notes left out
	Wrong      int     `json:"wrong"`   // notes a fret off
	Extra      int     `json:"extra"`   // open strings touched in between
	NoiseDB    float64 `json:"noiseDb"` // level of the room's noise; 0 is none
}

// Weak is a finger pair that comes late and soft.
type Weak struct {
	From   int     `json:"from"`
	To     int     `json:"to"`
	LateMs float64 `json:"lateMs"`
	DropDB float64 `json:"dropDb"`
}

// Validate says what the player cannot be, or nil.
func (p Player) Validate() error {
	for name, v := range map[string]float64{"clockMs": p.ClockMs, "motorMs": p.MotorMs, "levelSdDb": p.LevelSDDB} {
		if v < 0 || v > 100 {
			return fmt.Errorf("the player's %s is %g; set it from 0 to 100", name, v)
		}
	}
	for name, n := range map[string]int{"miss": p.Miss, "wrong": p.Wrong, "extra": p.Extra} {
		if n < 0 || n > drill.MaxNotes {
			return fmt.Errorf("the player's %s is %d; set it from 0 to %d", name, n, drill.MaxNotes)
		}
	}
	if p.BPM < 0 || p.BPM > 1000 {
		return fmt.Errorf("the player's tempo is %g bpm; set it from 0 to 1000", p.BPM)
	}
	return nil
}

// A Stroke is one note as it was played.
type Stroke struct {
	T       float64 // onset, s
	Index   int     // of the chart note over all passes, −1 for an extra note
	String  int
	MIDI    int
	Attack  drill.Attack
	LevelDB float64 // RMS from 5 to 105 ms after the onset, dB of full scale
}

// pickedDB is the level of a picked note.
const pickedDB = -18

// correction is the share of the clock's error that the click takes away from
// each note to the next.
const correction = 0.5

// Perform plays all passes of the chart, the first note at start seconds, and
// returns the notes in order of time. The chart must be valid.
func (p Player) Perform(chart drill.Chart, start float64) []Stroke {
	rng := rand.New(rand.NewPCG(p.Seed, 0x6d616e75))
	notes := chart.Unroll()
	bpm := chart.BPM
	if p.BPM > 0 {
		bpm = p.BPM
	}
	step := 60 / bpm / float64(chart.NotesPerBeat)
	missed, wrong, extra := p.mistakes(rng, len(notes))
	var out []Stroke
	clock := 0.0
	for i, n := range notes {
		clock = clock*(1-correction) + rng.NormFloat64()*p.ClockMs/1000
		s := Stroke{
			T:     start + n.Beat*60/bpm + clock + rng.NormFloat64()*p.MotorMs/1000,
			Index: i, String: n.String, MIDI: n.MIDI, Attack: n.Attack,
			LevelDB: pickedDB + rng.NormFloat64()*p.LevelSDDB,
		}
		if n.Attack.Slurred() {
			s.LevelDB -= p.SlurDropDB
		}
		if i > 0 && p.Weak.is(notes[i-1], n) {
			s.T += p.Weak.LateMs / 1000
			s.LevelDB -= p.Weak.DropDB
		}
		if wrong[i] {
			s.MIDI += 1 - 2*(i%2) // a fret above or below
		}
		if !missed[i] {
			out = append(out, s)
		}
		if extra[i] {
			out = append(out, Stroke{T: s.T + step/2, Index: -1, String: n.String, MIDI: chart.Tuning[n.String-1], Attack: drill.Pull, LevelDB: s.LevelDB - 6})
		}
	}
	slices.SortStableFunc(out, func(a, b Stroke) int { return int(math.Copysign(1, a.T-b.T)) })
	return out
}

// is reports whether going from a to b is the weak pair.
func (w *Weak) is(a, b drill.Note) bool {
	return w != nil && a.Finger == w.From && b.Finger == w.To && a.String == b.String
}

// mistakes deals out which notes go wrong: no note twice, and never the first
// or the last, by which a take is found.
func (p Player) mistakes(rng *rand.Rand, n int) (missed, wrong, extra map[int]bool) {
	missed, wrong, extra = map[int]bool{}, map[int]bool{}, map[int]bool{}
	if n < 3 {
		return missed, wrong, extra
	}
	deck := rng.Perm(n - 2)
	deal := func(to map[int]bool, count int) {
		for ; count > 0 && len(deck) > 0; count-- {
			to[deck[0]+1] = true
			deck = deck[1:]
		}
	}
	deal(missed, p.Miss)
	deal(wrong, p.Wrong)
	deal(extra, p.Extra)
	return missed, wrong, extra
}
