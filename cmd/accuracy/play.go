package main

import (
	"math"
	"math/rand/v2"

	"manudrill/core/drill/chart"
	"manudrill/core/simulate"
)

// A player plays strokes on a bank's notes. Slurs are made in three ways, of which
// none is an attack that could be heard as one:
//
//   - carried: the new pitch is heard from the middle of its own recording, so that
//     its attack is left out, and swells over a few milliseconds;
//   - stepped: the string that sounds goes on, its pitch stepping to the new one;
//   - plucked: a recording of the new pitch struck softly, as a firm pull-off is.
type player struct {
	bank      bank
	rng       *rand.Rand
	cents     float64 // by which all strings are sharp
	slowest   float64 // the longest rise of a slur, s
	plucks    float64 // share of pull-offs that are plucked
	on        map[int]voice
	out       []float64
	how       []string // each stroke was made
	fingerOff float64  // how long a stopped string takes to fall silent, s
}

// A voice is a string that sounds: what is read of which recording, and how fast.
type voice struct {
	source       []float64
	sourceKey    float64 // pitch of the recording, as a MIDI note
	at, speed    float64 // next sample read, and samples read a sample
	gain         float64
	until        float64 // when it is stopped, s
	midi, chains int     // pitch, and how often the string has been stepped already
}

// Bounds of a stepped slur: so often on one recording, which dies away, and no
// further than its partials stay those of a guitar.
const (
	mostSteps   = 3
	widestStep  = 5
	stepSeconds = 0.002 // a finger stops the string within this
)

// diesAway is how far below its beginning, in dB, the middle of a recording is that
// cannot be a note.
const diesAway = -14

// The part of a note that its level is taken over, in seconds after its onset.
const levelFrom, levelTo = 0.005, 0.105

// play adds all strokes to a recording that lasts so many seconds, and returns it.
func (p *player) play(strokes []simulate.Stroke, seconds float64) []float64 {
	p.out, p.on, p.how = make([]float64, int(seconds*rate)), map[int]voice{}, nil
	for _, s := range strokes {
		p.stroke(s)
	}
	return p.out
}

func (p *player) stroke(s simulate.Stroke) {
	before, sounded := p.on[s.String]
	fresh := !sounded || before.until < s.T-1e-9 || before.midi == s.MIDI
	var v voice
	rise, how := 0.0, "picked"
	switch {
	case !s.Attack.Slurred() && s.Attack != chart.Tap:
		v = p.recorded(s, velocities[p.rng.IntN(len(velocities))], 0)
	case fresh || s.Attack == chart.Tap || s.Attack == chart.Pull && p.rng.Float64() < p.plucks:
		v, how = p.recorded(s, velocities[0], 0), "plucked"
	case before.chains < mostSteps && abs(before.midi-s.MIDI) <= widestStep && p.rng.IntN(2) == 0:
		before.chains++
		p.step(s, before)
		p.how = append(p.how, "stepped")
		return
	default:
		how = "carried"
		v, rise = p.recorded(s, velocities[p.rng.IntN(len(velocities))], 0.06+0.1*p.rng.Float64()), 0.002+p.rng.Float64()*(p.slowest-0.002)
		if whole := p.recorded(s, velocities[0], 0); rms(p.ahead(v, levelFrom, levelTo)) < amplitude(diesAway)*rms(p.ahead(whole, levelFrom, levelTo)) {
			v, rise, how = whole, 0, "plucked" // a muted string has no middle to be carried from
		}
	}
	p.sound(s, v, rise)
	p.how = append(p.how, how)
}

// recorded is a note of the bank at a stroke's pitch, read from so far in.
func (p *player) recorded(s simulate.Stroke, velocity int, from float64) voice {
	source := p.bank[struck{s.MIDI, velocity}]
	return voice{source: source, sourceKey: float64(s.MIDI), at: from * rate, speed: math.Exp2(p.cents / 1200)}
}

// sound adds a voice that begins with a stroke and rises to its level.
func (p *player) sound(s simulate.Stroke, v voice, rise float64) {
	v.gain = amplitude(s.LevelDB) / rms(p.ahead(v, levelFrom, levelTo))
	v.midi, v.until = s.MIDI, s.Until
	p.mix(s, &v, func(since float64) float64 { return risen(since, rise) * v.gain })
	p.on[s.String] = v
}

// step lets a string that sounds go on at another pitch: its waveform is read on
// from where it was at another speed.
func (p *player) step(s simulate.Stroke, v voice) {
	was := v.gain
	v.speed = math.Exp2((float64(s.MIDI)-v.sourceKey)/12 + p.cents/1200)
	v.gain = amplitude(s.LevelDB) / rms(p.ahead(v, levelFrom, levelTo))
	v.midi, v.until = s.MIDI, s.Until
	over := stepSeconds + p.rng.Float64()*(p.slowest-stepSeconds)
	p.mix(s, &v, func(since float64) float64 { return was + (v.gain-was)*risen(since, over) })
	p.on[s.String] = v
}

// mix adds a voice from a stroke's onset until its string is stopped, and leaves it
// where the next stroke on the string may read on.
func (p *player) mix(s simulate.Stroke, v *voice, gain func(since float64) float64) {
	first := int(math.Ceil(s.T * rate))
	last := int(math.Ceil((s.Until + p.fingerOff) * rate))
	stopped := int(math.Ceil(s.Until * rate))
	at := v.at + (float64(first)-s.T*rate)*v.speed
	for i := first; i < min(last, len(p.out)); i++ {
		if i == stopped {
			v.at = at
		}
		since := float64(i)/rate - s.T
		p.out[i] += gain(since) * (1 - risen(float64(i)/rate-s.Until, p.fingerOff)) * read(v.source, at)
		at += v.speed
	}
	if last <= stopped {
		v.at = at
	}
}

// ahead is what a voice sounds like between two times from now, at full gain.
func (p *player) ahead(v voice, from, to float64) []float64 {
	var x []float64
	for t := from; t < to; t += 1.0 / rate {
		x = append(x, read(v.source, v.at+t*rate*v.speed))
	}
	return x
}

// read is a recording between its samples, by a cubic through four of them.
func read(x []float64, at float64) float64 {
	i := int(at)
	if i < 1 || i+2 >= len(x) {
		return 0
	}
	t := at - float64(i)
	a, b, c, d := x[i-1], x[i], x[i+1], x[i+2]
	return b + t/2*(c-a+t*(2*a-5*b+4*c-d+t*(3*(b-c)+d-a)))
}

// risen is a raised cosine from 0 to 1 over a time.
func risen(since, over float64) float64 {
	if since >= over {
		return 1
	}
	return 0.5 - 0.5*math.Cos(math.Pi*max(0, since)/over)
}

func rms(x []float64) float64 {
	sum := 1e-18
	for _, v := range x {
		sum += v * v
	}
	return math.Sqrt(sum / float64(max(1, len(x))))
}

func abs(n int) int { return max(n, -n) }
