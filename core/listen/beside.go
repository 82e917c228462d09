package listen

import (
	"math"
	"slices"

	"manudrill/core/listen/dsp"
)

// Times of the sound in which two strings are told apart, in seconds about the
// start of the later one.
const (
	besideFrom, besideTo = 0.008, 0.083
)

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
