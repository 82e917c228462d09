package listen

import (
	"cmp"
	"math"
	"slices"

	"manudrill/core/listen/dsp"
)

// Times of the sound in which two strings are told apart, in seconds about the
// start of the later one.
const (
	besideFrom, besideTo = 0.008, 0.083
)

// beside tells how the note before sounds on in a note, and which other pitch the
// note has where that hides its own: that of the partials which have grown; else the one
// towards its end, the one beside it, or another that fits.
func (l *Listener) beside(n *Note, at, end int, late, other float64) {
	n.Carry.DB, n.Carry.Known = l.carry(at, end, l.last.Pitch, n.Pitch)
	if grown := l.newcomer(at, end); grown != 0 {
		if math.Abs(grown-n.Pitch) > otherPitch {
			n.Or = grown
		}
		return
	}
	switch {
	case late != 0 && math.Abs(late-n.Pitch) > leastStep && !l.asBefore(late):
		n.Or = late
	case !n.Carry.Known || n.Carry.DB > faintCarryDB:
		n.Or, _ = l.pitchBeside(at, end)
	}
	n.Or = cmp.Or(n.Or, other)
}

// otherPitch is how far apart two pitches are at the least that are not one, in semitones.
const otherPitch = 0.3

// faintCarryDB is below what the string before cannot hide the pitch of the next.
const faintCarryDB = -20

// What makes the string before count as ringing on, in power against what it was;
// and how much of the sound must be left without it to tell a pitch.
const (
	stillRings  = 0.06 // −12 dB
	besideShare = 0.08
)

// pitchBeside returns the pitch of a note that starts at a sample while the string
// before rings on: what it sang is taken out of the sound first, partial by
// partial. It reports false where nothing rings on, or too little is left.
func (l *Listener) pitchBeside(at, end int) (float64, bool) {
	was, is := l.slowly(at, end, ringFrom, ringTo), l.slowly(at, end, carryFrom, carryTo)
	x := slices.Clone(l.slowly(at, end, besideFrom, besideTo))
	if len(was) == 0 || len(is) < len(was) || len(x) < len(is) {
		return 0, false
	}
	old := l.pursuit.Partials(was, 0)
	window := l.pursuit.Window(len(was))
	var before, after float64
	for _, p := range old {
		a, b := dsp.PowersAt(was, is, window, p.Step/(2*math.Pi))
		before, after = before+a, after+b
	}
	if after < stillRings*before {
		return 0, false
	}
	whole := dsp.SumSquares(x)
	for _, p := range old {
		dsp.TakeOut(x, p.Step)
	}
	if dsp.SumSquares(x) < besideShare*whole {
		return 0, false
	}
	pitch := l.slow.Pitch(x)
	return pitch, pitch != 0
}
