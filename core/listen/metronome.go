package listen

import (
	"math"
	"slices"

	"manudrill/core/listen/dsp"
)

// A click is how a metronome sounds alone, and where.
type click struct {
	at    int // sample
	sound []float64
}

// A click alone is kept from a little before it until the room is quiet; as many
// are kept as a bar has beats, for its first may sound otherwise. In seconds.
const (
	aloneFrom, aloneTo = -0.001, 0.036
	clicksKept         = 8
)

// A click that was heard alone is known again where it explains all but a share of
// the first sound, shifted by so much at the most and about as loud as it was.
const (
	againWithin      = 0.0035
	againShift       = 0.001
	againUnexplained = 0.4
	alikeUnexplained = 0.25 // alone
	againQuieter     = 0.4
	againLouder      = 2.5
)

// Beats of a metronome are so far apart, in seconds: at 30 to 300 a minute.
const (
	leastBeat = 0.2
	mostBeat  = 2.0
)

// quietBefore is what the power of the sound before a click is of the click's at the
// most, where it counts as alone.
const quietBefore = 0.03

// keepClick keeps what sounds at a sample before the first note, if it is alone. Two
// that are alike are a metronome's, a beat apart; until there are, the last two may be, of
// which the first is accented. Where knocks are taken for beats nothing sounds like them.
func (l *Listener) keepClick(at int) {
	from, to := at+int(aloneFrom*l.rate)-modelOrder, at+int(aloneTo*l.rate)
	sound := slices.Clone(l.sound.slice(from, to))
	before := l.sound.slice(at-int(clickBody*l.rate), at+int(aloneFrom*l.rate))
	if l.begun || len(l.alone) == clicksKept || len(sound) < to-from ||
		dsp.MeanSquare(before) > quietBefore*dsp.MeanSquare(l.sound.slice(at, at+int(clickBody*l.rate))) {
		return
	}
	shift := int(againShift * l.rate)
	for _, c := range l.alone {
		aside, _, left := l.match(sound, c.sound[shift:])
		apart := at + aside - shift - c.at
		apart = max(apart, -apart) // they are not told in order
		if left < alikeUnexplained && apart > int(minInterval*l.rate) && (!l.beats || apart < l.beat) {
			l.beat, l.beatAt, l.beats = apart, c.at, true
		}
	}
	if n := len(l.alone); n > 0 && !l.beats {
		if apart := at - l.alone[n-1].at; apart > int(leastBeat*l.rate) && apart < int(mostBeat*l.rate) {
			l.beat, l.beatAt = apart, at
		}
	}
	l.alone = append(l.alone, click{at, sound})
}

// onBeat reports whether a sample is where a click of the metronome is, as far as
// one is known.
func (l *Listener) onBeat(at int) bool {
	if l.beat == 0 {
		return false
	}
	return l.offBeat(at) < onBeatWithin
}

// offBeat is how far from the nearest beat a sample is, in seconds.
func (l *Listener) offBeat(at int) float64 {
	return math.Abs(math.Remainder(float64(at-l.beatAt), float64(l.beat))) / l.rate
}

// onBeatWithin is how far from its beat a click is heard at the most, in seconds.
const onBeatWithin = 0.004

// match shifts a model to where its beginning explains most of x, from the start of
// x on. It returns how loud the model is there and the share of x that is left.
func (l *Listener) match(x, model []float64) (shift int, gain, left float64) {
	fit, shifts := int((againWithin-aloneFrom)*l.rate), int(2*againShift*l.rate)
	left = 1
	for at := range shifts + 1 {
		if g, rest := scaled(x[at:at+fit], model); rest < left {
			shift, gain, left = at, g, rest
		}
	}
	return shift, gain, left
}

// outOfAClick finds where a note really starts whose start was taken at a click, a
// little before it or after. The click is known from when it was heard alone, and
// taken out of the innovation, in which it stands out from a string that rings on.
func (l *Listener) outOfAClick(at int) int {
	from, to := at-int(beforeClick*l.rate), at+int(aloneTo*l.rate)
	clear := at - int((againShift-aloneFrom)*l.rate) // of the click, wherever it is
	past := l.sound.slice(from-int(modelSpan*l.rate), from)
	region := l.sound.slice(from-modelOrder, to)
	if len(past) < 4*modelOrder || len(region) < to-from {
		return at
	}
	a := dsp.Burg(past, modelOrder)
	e := dsp.Innovation(a, region)
	if !l.takeClickOut(e[clear-from:], a) {
		return at
	}
	change, gain := l.attackIn(e)
	if over := from + change - at; gain == 0 || math.Abs(float64(over)) < clickAside*l.rate {
		return at
	}
	return from + change
}

// beforeClick is how long before a click a note may begin that was taken to begin there, in
// seconds.
const beforeClick = 0.028

// clickAside is how far from a click a note begins at the least that is found when
// the click is taken out, in seconds: nearer is what is left of the click.
const clickAside = 0.002

// takeClickOut takes a click that is known again out of an innovation, which
// begins as long before it as a click that is kept and what it may be shifted.
func (l *Listener) takeClickOut(e, a []float64) bool {
	var best []float64
	var start int
	var gain float64
	least := againUnexplained
	for _, c := range l.alone {
		model := dsp.Innovation(a, c.sound)
		shift, g, left := l.match(e, model)
		if left < least && g > againQuieter && g < againLouder {
			best, least, start, gain = model, left, shift, g
		}
	}
	for i := range min(len(best), len(e)-start) {
		e[start+i] -= gain * best[i]
	}
	return best != nil
}

// scaled returns how loud a model's beginning must be to leave the least of x, and
// the share of x that it leaves.
func scaled(x, model []float64) (gain, left float64) {
	var both, of, whole float64
	for i, v := range x {
		both, of, whole = both+v*model[i], of+model[i]*model[i], whole+v*v
	}
	if of == 0 || whole == 0 {
		return 0, 1
	}
	return both / of, 1 - both*both/(of*whole)
}
