package simulate

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"

	"manudrill/core/drill/chart"
)

// A Stroke is one note as it was played.
type Stroke struct {
	T         float64 // onset, s
	Due       float64 // when it would have come if the player were even, s
	Until     float64 // when its string is stopped, s
	Index     int     // of the chart note over all passes, −1 for an extra note
	Aside     bool    // played in vain: the player goes back to before it
	String    int
	MIDI      int
	Attack    chart.Attack
	LevelDB   float64 // RMS from 5 to 105 ms after the onset, dB of full scale
	BendCents float64 // how far it is dragged at its end
}

// pickedDB is the level of a picked note.
const pickedDB = -18

// correction is the share of the clock's error that the click takes away from
// each note to the next.
const correction = 0.5

// beginAgain is how long a player waits after a false start, in seconds.
const beginAgain = 1.5

// Perform plays all passes of the chart, the first note at start seconds, and
// returns the notes in order of time. The chart must be valid.
func (p Player) Perform(c chart.Chart, start float64) []Stroke {
	rng := rand.New(rand.NewPCG(p.Seed, 0x6d616e75))
	notes := c.Unroll()
	bpm := c.BPM
	if p.BPM > 0 {
		bpm = p.BPM
	}
	step := 60 / bpm / float64(c.NotesPerBeat)
	var out []Stroke
	for _, n := range notes[:min(p.FalseStart, len(notes))] {
		out = append(out, Stroke{T: start + n.Beat*60/bpm, Index: -1, Aside: true, String: n.String, MIDI: n.MIDI, Attack: n.Attack, LevelDB: pickedDB})
	}
	if len(out) > 0 {
		start = out[len(out)-1].T + beginAgain
	}
	faults := p.mistakes(rng, len(notes))
	clock := 0.0
	for _, turn := range p.turns(c, notes, 60/bpm) {
		i, n := turn.index, notes[turn.index]
		if p.Free {
			clock += rng.NormFloat64() * p.ClockMs / 1000
		} else {
			clock = clock*(1-correction) + rng.NormFloat64()*p.ClockMs/1000
		}
		through := float64(i) / float64(len(notes))
		tired := 1 + p.FatiguePercent/100*through
		due := start + n.Beat*60/bpm + turn.late + p.swung(n.Beat*float64(c.NotesPerBeat), step)
		s := Stroke{
			T: due + p.drifted(through, len(notes), step) + clock + rng.NormFloat64()*tired*p.MotorMs/1000, Due: due,
			Index: i, String: n.String, MIDI: n.MIDI + p.Transpose, Attack: n.Attack,
			LevelDB: pickedDB + rng.NormFloat64()*tired*p.LevelSDDB,
		}
		if n.Attack.Slurred() {
			s.LevelDB -= p.SlurDropDB
		}
		if i > 0 && p.Weak.is(notes[i-1], n) {
			s.T += p.Weak.LateMs / 1000
			s.LevelDB -= p.Weak.DropDB
		}
		if i+1 < len(notes) && notes[i+1].Attack == chart.Pull {
			s.BendCents = p.BendCents
		}
		if faults.wrong[i] || turn.wrong {
			s.MIDI += wrongBy(notes, i)
		}
		if turn.again {
			s.Attack = chart.Pick
		}
		if turn.aside {
			s.Index, s.Aside = -1, true
		} else if turn.again || turn.wrong {
			s.Index = -1
		}
		if !faults.missed[i] {
			out = append(out, s)
		}
		if faults.extra[i] {
			out = append(out, Stroke{T: s.T + step/2, Index: -1, String: n.String, MIDI: c.Tuning[n.String-1], Attack: chart.Pull, LevelDB: s.LevelDB - 6})
		}
		if faults.repeated[i] {
			out = append(out, Stroke{T: s.T + step/2, Index: -1, String: n.String, MIDI: s.MIDI, Attack: chart.Pick, LevelDB: s.LevelDB})
		}
	}
	slices.SortStableFunc(out, func(a, b Stroke) int { return cmp.Compare(a.T, b.T) })
	p.stopStrings(out)
	return out
}

// wrongBy is by how many frets note i is wrong: one above or below, and never so that a
// slur ends where it began, which nobody can play.
func wrongBy(notes []chart.Note, i int) int {
	by := 1 - 2*(i%2)
	if n := notes[i]; i > 0 && n.Attack.Slurred() && notes[i-1].String == n.String && notes[i-1].MIDI == n.MIDI+by {
		return -by
	}
	return by
}

// swung is how much later than written a note comes that lies on so many divisions of the
// beat, where the player swings.
func (p Player) swung(division, step float64) float64 {
	if p.Swing == 0 || int(math.Round(division))%2 == 0 {
		return 0
	}
	return (2*p.Swing - 1) * step
}

// drifted is how far a steady change of tempo has moved a note.
func (p Player) drifted(through float64, n int, step float64) float64 {
	return p.DriftPercent / 100 * step * float64(n) * (through - through*through) / 2
}

// lift is how long a string rings into a note on another, in seconds.
const lift = 0.030

// stopStrings tells when each string is stopped: at the next note on it, soon
// after the next note on another, or where the finger is lifted early.
func (p Player) stopStrings(strokes []Stroke) {
	over := lift
	if p.RingMs > 0 {
		over = p.RingMs / 1000
	}
	for i := range strokes {
		s := &strokes[i]
		s.Until = s.T + maxRing
		for _, next := range strokes[i+1:] {
			if next.String == s.String {
				s.Until = min(s.Until, next.T)
				break
			}
			s.Until = min(s.Until, next.T+over)
		}
		if p.GapPercent > 0 && i+1 < len(strokes) {
			s.Until = min(s.Until, s.T+(1-p.GapPercent/100)*(strokes[i+1].T-s.T))
		}
	}
}

// is reports whether going from a to b is the weak pair.
func (w *Weak) is(a, b chart.Note) bool {
	return w != nil && a.Finger == w.From && b.Finger == w.To && a.String == b.String
}

// A deal says which notes go wrong.
type deal struct{ missed, wrong, extra, repeated map[int]bool }

// mistakes deals out which notes go wrong: no note twice, and never the first
// or the last, by which a take is found.
func (p Player) mistakes(rng *rand.Rand, n int) deal {
	d := deal{map[int]bool{}, map[int]bool{}, map[int]bool{}, map[int]bool{}}
	if n < 3 {
		return d
	}
	deck := rng.Perm(n - 2)
	give := func(to map[int]bool, count int) {
		for ; count > 0 && len(deck) > 0; count-- {
			to[deck[0]+1] = true
			deck = deck[1:]
		}
	}
	give(d.missed, p.Miss)
	give(d.wrong, p.Wrong)
	give(d.extra, p.Extra)
	give(d.repeated, p.Repeat)
	return d
}
