package listen

import "slices"

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
	againUnexplained = 0.25
	againQuieter     = 0.4
	againLouder      = 2.5
)

// keepClick keeps what sounded alone at a sample. Two that are alike are a
// metronome's; knocks differ.
func (l *Listener) keepClick(at int) {
	from, to := at+int(aloneFrom*l.rate)-modelOrder, at+int(aloneTo*l.rate)
	alone := slices.Clone(l.sound.slice(from, to))
	if len(l.alone) == clicksKept || len(alone) < to-from {
		return
	}
	for _, click := range l.alone {
		_, _, left := l.match(alone, click[int(againShift*l.rate):])
		l.metronome = l.metronome || left < againUnexplained
	}
	l.alone = append(l.alone, alone)
}

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

// outOfAClick finds where a note really starts whose start was taken at a click.
// The click is known from when it was heard alone, and taken out of the innovation,
// in which it stands out from a string that rings on.
func (l *Listener) outOfAClick(at int) int {
	from, to := at-int((againShift-aloneFrom)*l.rate), at+int(aloneTo*l.rate)
	past := l.sound.slice(from-int(modelSpan*l.rate), from)
	region := l.sound.slice(from-modelOrder, to)
	if len(past) < 4*modelOrder || len(region) < to-from {
		return at
	}
	a := burg(past, modelOrder)
	e := innovation(a, region)
	if !l.takeClickOut(e, a) {
		return at
	}
	change, gain := l.attackIn(e)
	if gain == 0 {
		return at
	}
	return from + change
}

// takeClickOut takes a click that is known again out of an innovation, which
// begins as long before it as a click that is kept and what it may be shifted.
func (l *Listener) takeClickOut(e, a []float64) bool {
	var best []float64
	var start int
	var gain float64
	least := againUnexplained
	for _, click := range l.alone {
		model := innovation(a, click)
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
