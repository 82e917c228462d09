package listen

import (
	"cmp"
	"math"

	"manudrill/core/listen/dsp"
)

// Version counts the changes of what is made of the same sound, from its notes to the
// figures, so that takes judged by different ones can be told apart and measured again.
// Raise it with every change that moves a figure.
const Version = 7

// A Note is one heard note. Times are seconds from the first sample.
type Note struct {
	Onset     float64 `json:"t"`
	End       float64 `json:"end"`     // when it falls silent or the next note starts
	Pitch     float64 `json:"pitch"`   // MIDI note with its fraction
	Or        float64 `json:"or"`      // the pitch it has if the string before rings on; 0 where that cannot be
	LevelDB   float64 `json:"levelDb"` // RMS of the first 100 ms or of what there is, dB of full scale
	Bend      float64 `json:"bend"`    // cents by which the pitch has moved towards the end
	Carry     Carry   `json:"carry"`   // of the note before, on another string
	Again     Again   `json:"again"`
	Brief     bool    `json:"brief"`               // so short that only who expects it believes it
	Unpitched bool    `json:"unpitched,omitempty"` // tapped on what has no pitch: it is any note
}

// A Carry is how much of the note before still sounds within a note.
type Carry struct {
	Known bool    `json:"known"` // the two can be told apart
	DB    float64 `json:"db"`    // 40 to 84 ms into the note, against what it was; −60 at the least
}

// MIDI returns the nearest MIDI note.
func (n Note) MIDI() int { return int(math.Round(n.Pitch)) }

// A Listener turns a stream of samples into notes. Make one with [New].
type Listener struct {
	thin  *thinner
	rate  float64 // of the thinned samples, by which all below is counted
	hop   int
	sound recent    // the thinned samples still needed
	low   recent    // the same, thinned further, for the lower partials
	lower []float64 // those that low took in last
	by    int       // samples of sound in one of low
	lead  int       // samples of silence before the first

	spectrum *spectrum
	flux     *flux
	picker   picker
	peaks    []peak // not yet known to last
	pursuit  *dsp.Pursuit
	slow     *dsp.YIN // at the rate of fades
	brief    *dsp.YIN // of what is no longer than about a peak, at that rate
	fades    []fade

	alone  []click   // short sounds before the first note
	beat   int       // samples from a metronome's click to the next; 0 where none is heard
	beats  bool      // two of its clicks were alike
	beatAt int       // where one of its clicks is
	begun  bool      // a note was told that is no click in a room
	ticks  []float64 // when short sounds came, s

	sung   float64 // the steady pitch of the open note where it was last asked for; 0 before
	doubts []peak  // that were no note while the open one sounded

	open     *onset  // the onset whose note is still sounding
	last     *Note   // measured, but kept back: a click may have cut it short
	lastLate float64 // the pitch towards its end
	notes    []Note  // told since the last call

	early *early // nil where no early word is wanted
}

// An onset is where a note starts.
type onset struct {
	at      int     // sample
	lasting float64 // how much of what has grown there stays
	sure    bool    // nothing but the note starts there
	sharp   bool    // its attack is: see [start]
}

// Rates at which a listener hears, in samples a second: below there is too little left
// of a string, above nothing more.
const (
	LowestRate  = 8000
	HighestRate = 384000
)

// New returns a listener for samples at a rate per second, from [LowestRate] to
// [HighestRate]; it panics at another.
func New(rate float64) *Listener {
	if !(rate >= LowestRate && rate <= HighestRate) {
		panic("listen: the rate must be from 8,000 to 384,000 samples a second")
	}
	thin := newThinner(rate)
	rate /= float64(thin.by)
	slow := rate / float64(fadeStep(rate))
	s := newSpectrum(rate)
	l := &Listener{
		thin: thin, rate: rate, hop: int(math.Round(frameHop * rate)),
		spectrum: s, flux: newFlux(s.bands()),
		pursuit: dsp.NewPursuit(slow), slow: dsp.NewYIN(slow, pitchSpan), brief: dsp.NewYIN(slow, stepSpan), fades: newFades(slow),
		sound: newRecent(int((maxRing + 1) * rate)), low: newRecent(int((maxRing + 1) * slow)), by: fadeStep(rate), lead: int(leadSeconds * rate),
	}
	l.rest(l.lead)
	return l
}

// leadSeconds is the silence that is heard before a recording, so that a note at its
// very start has something to rise from.
const leadSeconds = 0.100

// seconds is when a sample comes.
func (l *Listener) seconds(at int) float64 { return max(0, float64(at-l.lead)/l.rate) }

// Listen hears a whole recording at once.
func Listen(rate float64, samples []float64) []Note {
	l := New(rate)
	notes := l.Write(samples)
	return append(notes, l.Close()...)
}

// Write hears more samples, of full scale ±1. It returns the notes that have
// become certain since the last call.
func (l *Listener) Write(samples []float64) []Note {
	l.notes = nil
	for len(samples) > 0 {
		n := min(len(samples), 4*l.hop*l.thin.by)
		l.hear(l.thin.thin(samples[:n]))
		samples = samples[n:]
		l.advance()
	}
	return l.notes
}

// hear takes thinned samples in.
func (l *Listener) hear(samples []float64) {
	l.sound.add(samples)
	l.lower = dsp.AppendThinned(l.lower[:0], l.sound.slice(l.low.end*l.by, l.sound.end), l.by)
	l.low.add(l.lower)
}

// rest takes in so many samples of silence.
func (l *Listener) rest(samples int) {
	l.sound.add(make([]float64, samples))
	l.low.add(make([]float64, l.sound.end/l.by-l.low.end))
}

// Close ends the recording and returns the notes that were still open.
func (l *Listener) Close() []Note {
	// Silence after the end lets the last frames and peaks come through.
	end := l.sound.end
	l.notes = nil
	for rest := int(0.3 * l.rate); rest > 0; rest -= 4 * l.hop {
		l.rest(4 * l.hop)
		l.advance()
	}
	if l.open != nil {
		l.tell(end)
	}
	l.letGo()
	return l.notes
}

// letGo returns the note that was kept back.
func (l *Listener) letGo() {
	if l.last != nil {
		l.notes = append(l.notes, *l.last)
		l.last = nil
	}
}

// maxRing is how long a note is followed at the most, in seconds.
const maxRing = 3.0

// advance makes every spectral frame that the samples allow and follows the
// peaks of its flux.
func (l *Listener) advance() {
	span := len(l.spectrum.window)
	for l.flux.n*l.hop+span <= l.sound.end {
		start := l.flux.n * l.hop
		v := l.flux.next(l.spectrum, l.sound.slice(start, start+span))
		if p, ok := l.picker.next(v); ok {
			l.peaks = append(l.peaks, p)
			l.sayEarly(p)
		}
		if len(l.peaks) > 0 && l.flux.n > l.peaks[0].frame+lastingFrames {
			l.judge(l.peaks[0])
			l.peaks = l.peaks[1:]
		}
		if l.open != nil && start-l.open.at > int(maxRing*l.rate) {
			l.tell(start)
		}
	}
}

// minLasting is how much growth must stay for a peak to be a note.
const minLasting = 4.5

// minSounding is how long a note sounds at the least, in seconds. A click that
// sounds into nothing is shorter.
const minSounding = 0.045

// stopping is how long before the next note a string may fall silent, in seconds, that is
// stopped for it: that is no sound into nothing.
const stopping = 0.015

// minInterval is the shortest time between two onsets, in seconds: faster
// notes than 28 a second are not played on a guitar.
const minInterval = 0.035

// overtaking is how much of an earlier start's lasting a later one must have that
// is too close for both to be notes: what has grown for the earlier, a string
// being stopped perhaps, is partly the later one's doing.
const overtaking = 0.4

// Between a string that is stopped and the next note it is quiet: from so many seconds
// after the one on, of so much of the power of either at the most.
const (
	stoppedAfter = 0.005
	quietBetween = 0.1
)

// overtakes reports whether a start just after the open one is that of the note: where
// the sound before fades into the one after tells, or else how much of each lasts. Where
// it is quiet between them the first was a string that was stopped.
func (l *Listener) overtakes(next *onset) bool {
	body := int(clickBody * l.rate)
	between := l.sound.slice(l.open.at+int(stoppedAfter*l.rate), next.at)
	before, after := l.sound.slice(l.open.at-body, l.open.at), l.sound.slice(next.at, next.at+body)
	if len(between) > 0 && dsp.MeanSquare(between) < quietBetween*min(dsp.MeanSquare(before), dsp.MeanSquare(after)) {
		return true
	}
	if from, ok := l.fadesAfter(l.open.at); ok {
		return 2*from > l.open.at+next.at
	}
	return next.lasting > overtaking*l.open.lasting
}

// fadesAfter returns where the sound before a sample fades into the one after, there or up
// to a click's length later; false where it does not.
func (l *Listener) fadesAfter(at int) (from int, ok bool) {
	v, ok := l.around(at, behindClick)
	if !ok {
		return 0, false
	}
	start, left, _ := v.bestFade(l.fades)
	return at + l.by*(start-v.at), left < fadeUnexplained*dsp.SumSquares(v.x)
}

// judge takes a peak that starts a note, which completes the note before it.
// Of two that are too close to be both notes it keeps the one that lasts.
func (l *Listener) judge(p peak) {
	p.lasting = l.flux.lasting(p.frame)
	starts := l.startsNote(&p)
	var s start
	if starts || p.plain {
		s = l.refine(p)
	}
	if !starts || s.same {
		if p.plain {
			l.noNote(s.at)
		}
		if l.open != nil { // which lasts so long at the most, and they with it
			l.doubts = append(l.doubts, p)
		}
		return
	}
	at, sure := s.at, false
	if !s.plain {
		at, sure = l.fadeIn(at)
	}
	next := &onset{at, max(p.lasting, minLasting), sure, s.plain}
	if l.open != nil {
		if next.at-l.open.at < int(minInterval*l.rate) {
			if l.overtakes(next) {
				l.open = next
			}
			return
		}
		l.tell(next.at)
	}
	l.open = next
}

// startsNote reports whether a peak is where a note starts. It keeps by it what it went
// by.
func (l *Listener) startsNote(p *peak) bool {
	if p.plain && p.lasting >= minLasting {
		return !l.nothingNew(p)
	}
	return l.steps(*p) || p.plain && l.struckAgain(p)
}

// tell measures the open note, which lasts until sample end at the most. What
// has no pitch, or falls silent at once, is no note.
func (l *Listener) tell(end int) {
	start, late := *l.open, l.latePitch(l.open.at, end)
	step := l.hiddenStep(end, late)
	doubts := l.doubts
	l.open, l.doubts, l.sung = nil, nil, 0
	if step > 0 {
		l.measure(start, step, l.latePitch(start.at, step), doubts)
		start = onset{at: step, sure: true}
	}
	l.measure(start, end, late, doubts)
}

// measure tells the note that sounds from its start to a sample, with a pitch towards
// its end. Where it is not sure to start there, it may start later.
func (l *Listener) measure(from onset, end int, late float64, doubts []peak) {
	at := from.at
	if isClick(l.sound.slice(at, end), l.rate) {
		l.noNote(at)
		return
	}
	midi, other := l.pitches(at, end)
	if start := l.foretold(l.behindAClick(at, from.sure, midi), end); start != at {
		at = start
		midi, other = l.pitches(at, end)
	}
	body := l.sound.slice(at, end)
	lasts := sounding(body, l.rate)
	if midi == 0 || undertone(midi, late) { // two strings together have a low pitch, or none
		midi = late
	}
	brief := lasts < int(minSounding*l.rate) && lasts < len(body)
	if midi == 0 || brief && lasts < len(body)-int(stopping*l.rate) {
		l.noNote(at)
		return
	}
	n := Note{
		Onset:   l.seconds(at),
		End:     l.seconds(at + lasts),
		Pitch:   midi,
		LevelDB: level(body, l.rate),
		Bend:    bend(midi, late),
		Again:   l.again(at, end, doubts),
		Brief:   brief,
	}
	still := l.ringsAt(at)
	if l.last != nil && l.ringsOn(at, end, midi, late, from.sharp) {
		l.ticks = append(l.ticks, n.Onset)
		if still {
			l.last.End = n.End
		}
		return
	}
	if still {
		l.beside(&n, at, end, late, other)
	} else {
		n.Or = other
	}
	if l.begun = l.begun || !fallsOff(body, l.rate, roomDB); !l.begun {
		l.keepClick(at)
	}
	l.letGo()
	l.last, l.lastLate = &n, cmp.Or(late, n.Pitch)
}

// noNote takes what started at a sample for a click or a knock.
func (l *Listener) noNote(at int) {
	l.keepClick(at)
	l.ticks = append(l.ticks, l.seconds(at))
}

// soundedUntil is how long before a note the one before may have ended, in
// seconds, and still be what it is set against.
const soundedUntil = 0.02

// Ticks returns the times, in seconds, of sounds too short to be notes: a
// metronome's clicks, and knocks and squeaks among them.
func (l *Listener) Ticks() []float64 { return l.ticks }
