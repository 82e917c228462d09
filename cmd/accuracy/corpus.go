package main

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
)

// A take is a recording with its chart and what was really played.
type take struct {
	name      string
	condition string
	guitar    int         // its General MIDI program
	chart     chart.Chart // all passes as one
	played    []played
	weak      *simulate.Weak
	rate      float64
	samples   []float64
}

// A played note is what the player did.
type played struct {
	t       float64 // s
	index   int     // of the chart note, −1 for one besides
	midi    int
	levelDB float64
	how     string // it was made: see [player]
}

// The halves of the corpus. What is at hand is heard while the listener is changed; what
// is kept apart, other players on other charts, only to judge it.
const (
	atHand = iota
	keptApart
)

// guitars are the General MIDI programs of six of the font's eight guitars: nylon, steel,
// jazz, clean, overdriven and distorted. The muted one has a condition of its own, and
// harmonics do not sound at the pitch of their key.
var guitars = []int{24, 25, 26, 27, 29, 30}

const mutedGuitar = 28

// A condition is how takes are played and what surrounds them.
type condition struct {
	name   string
	player func(rng *rand.Rand, p *simulate.Player)
	slurs  func(p *player)
	around func(rng *rand.Rand, t *take) error
	cut    bool // the recording begins with its first note
	low    bool // on the thickest strings
	muted  bool // by the palm
}

// conditions are all of them. Each is met in both halves.
var conditions = []condition{
	{name: "clean"},
	{name: "clean, low strings", low: true},
	{name: "muted, low strings", low: true, muted: true},
	{name: "slowly swelling slurs", slurs: func(p *player) { p.slowest = 0.012 }},
	{name: "firm pull-offs", slurs: func(p *player) { p.plucks = 1 }},
	{name: "room", around: func(rng *rand.Rand, t *take) error {
		room(rng, t.samples, 0.3+0.3*rng.Float64(), -10)
		return nil
	}},
	{name: "telephone", around: func(rng *rand.Rand, t *take) error {
		noise(rng, t.samples, -58)
		banded(t.samples, 300, 3400)
		return nil
	}},
	{name: "codec", around: func(rng *rand.Rand, t *take) error { return coded(t.samples, 16+8*rng.IntN(2)) }},
	{name: "voices", around: func(rng *rand.Rand, t *take) error {
		y, err := speech(rng, len(t.samples))
		if err == nil {
			under(t.samples, y, -22)
		}
		return err
	}},
	{name: "music", around: func(rng *rand.Rand, t *take) error {
		y, err := music(rng, len(t.samples))
		if err == nil {
			under(t.samples, y, -24)
		}
		return err
	}},
	{name: "hum", around: func(rng *rand.Rand, t *take) error {
		hum(t.samples, 50, -38)
		noise(rng, t.samples, -55)
		return nil
	}},
	{name: "clipped", around: func(_ *rand.Rand, t *take) error { clipped(t.samples, 0.4); return nil }},
	{name: "overdriven", around: func(_ *rand.Rand, t *take) error { overdriven(t.samples, 12); return nil }},
	{name: "low rate", around: func(rng *rand.Rand, t *take) error {
		to := []float64{11025, 16000}[rng.IntN(2)]
		t.samples, t.rate = resampled(t.samples, rate, to), to
		return nil
	}},
	{name: "high rate", around: func(rng *rand.Rand, t *take) error {
		to := []float64{48000, 96000}[rng.IntN(2)]
		t.samples, t.rate = resampled(t.samples, rate, to), to
		return nil
	}},
	{name: "out of tune", player: func(rng *rand.Rand, p *simulate.Player) { p.TuningCents = []float64{-42, 35, -25, 44}[rng.IntN(4)] }},
	{name: "noise of the strings", around: func(rng *rand.Rand, t *take) error { stringNoise(rng, t, 8, -24); return nil }},
	{name: "beeping click", around: clicked(beeps, -22)},
	{name: "wooden click", around: clicked(woodblocks, -20)},
	{name: "ticking click", around: clicked(ticks, -16)},
	{name: "fumbles", player: func(_ *rand.Rand, p *simulate.Player) { p.Miss, p.Wrong, p.Extra, p.Repeat = 2, 2, 2, 1 }},
	{name: "from the first sample", cut: true},
	{name: "ringing strings", player: func(_ *rand.Rand, p *simulate.Player) { p.RingMs = 120 }},
	{name: "kitchen", around: func(rng *rand.Rand, t *take) error {
		y, err := speech(rng, len(t.samples))
		if err != nil {
			return err
		}
		under(t.samples, y, -26)
		hum(t.samples, 100, -50)
		noise(rng, t.samples, -56)
		room(rng, t.samples, 0.4, -12)
		stringNoise(rng, t, 3, -26)
		return coded(t.samples, 32)
	}},
}

func clicked(kind clickKind, db float64) func(*rand.Rand, *take) error {
	return func(rng *rand.Rand, t *take) error {
		return clicks(rng, t.samples, kind, simulate.CountIn, 60/t.chart.BPM, db)
	}
}

// stringNoise adds what strings do besides being played: hisses of a finger that
// moves along one, knocks on the wood, and the player's quiet tuning up before and
// laying down after, this loud against the notes.
func stringNoise(rng *rand.Rand, t *take, times int, db float64) {
	loud := rms(t.samples)
	for range times {
		i := rng.IntN(len(t.played) - 1)
		from, to := t.played[i].t, t.played[i+1].t
		y := make([]float64, int((0.02+0.04*rng.Float64())*rate))
		last, knock := 0.0, rng.IntN(3) == 0
		for k := range y {
			v, through := rng.NormFloat64(), float64(k)/float64(len(y))
			if y[k] = (v - last) * through * (1 - through); knock {
				y[k] = math.Sin(2*math.Pi*95*float64(k)/rate) * math.Exp(-9*through)
			}
			last = v
		}
		add(t.samples, y, from+(to-from)*(0.3+0.4*rng.Float64()), loud*amplitude(db+12*rng.Float64())/rms(y))
	}
	end := t.played[len(t.played)-1].t
	for i, at := range []float64{0.5, 1.1, end + 0.9, end + 1.2} {
		open := t.chart.Tuning[rng.IntN(len(t.chart.Tuning))]
		y := (simulate.Player{Seed: rng.Uint64()}).Render([]simulate.Stroke{{String: i + 1, MIDI: open, LevelDB: -18, Attack: chart.Pick, Until: 0.3}}, rate, 0.4)
		add(t.samples, y, at, loud*amplitude(db)/rms(y[:rate/10]))
	}
}

// A recipe is a take not yet made: two of the same half share nothing but their
// condition.
type recipe struct {
	condition condition
	half, n   int
}

// recipes are so many takes of each condition, of a half.
func recipes(half, each int) []recipe {
	var out []recipe
	for _, c := range conditions {
		for n := range each {
			out = append(out, recipe{c, half, n})
		}
	}
	return out
}

// longest is how many notes a take has at the most.
const longest = 48

// make plays the take.
func (r recipe) make(banks func(program int) (bank, error)) (*take, error) {
	seed := uint64(0)
	for _, letter := range r.condition.name {
		seed = seed*31 + uint64(letter)
	}
	rng := rand.New(rand.NewPCG(seed, uint64(2*r.n+r.half)))
	c, err := r.chart(rng)
	if err != nil {
		return nil, err
	}
	p := faults(rng, c)
	if r.condition.player != nil {
		r.condition.player(rng, &p)
	}
	strokes := p.Perform(c, simulate.CountIn)
	if r.condition.cut {
		for i, from := len(strokes)-1, strokes[0].T; i >= 0; i-- {
			strokes[i].T, strokes[i].Until = strokes[i].T-from, strokes[i].Until-from
		}
	}
	program := guitars[rng.IntN(len(guitars))]
	if r.condition.muted {
		program = mutedGuitar
	}
	b, err := banks(program)
	if err != nil {
		return nil, err
	}
	hand := &player{bank: b, rng: rng, cents: p.TuningCents, slowest: 0.005, plucks: 0.4, fingerOff: 0.004}
	if r.condition.slurs != nil {
		r.condition.slurs(hand)
	}
	t := &take{name: fmt.Sprintf("%s %d", r.condition.name, r.n+1), guitar: program, condition: r.condition.name, chart: c, rate: rate, weak: p.Weak}
	t.samples = hand.play(strokes, strokes[len(strokes)-1].T+2)
	for i, s := range strokes {
		t.played = append(t.played, played{s.T, s.Index, s.MIDI, s.LevelDB, hand.how[i]})
	}
	noise(rng, t.samples, -72)
	if r.condition.around != nil {
		err = r.condition.around(rng, t)
	}
	t.withinFullScale()
	return t, err
}

// withinFullScale turns a take down that is too loud to be written.
func (t *take) withinFullScale() {
	peak := 0.0
	for _, v := range t.samples {
		peak = max(peak, math.Abs(v))
	}
	if peak > 0.99 {
		for i := range t.samples {
			t.samples[i] *= 0.99 / peak
		}
	}
}

// chart is a drill of any family, or of slurs more often than not, at three to eight
// notes a second.
func (r recipe) chart(rng *rand.Rand) (chart.Chart, error) {
	d := r.drill(rng)
	perSecond := 3 + 5*rng.Float64()
	bpm := math.Round(60 * perSecond / float64(d.Rhythm.NotesPerBeat))
	c, err := d.Chart(guitar.Standard(), bpm)
	if err != nil {
		return c, fmt.Errorf("%s: %w", d.Name, err)
	}
	c.Notes = c.Unroll()
	c.Notes, c.Passes = c.Notes[:min(longest, len(c.Notes))], 1
	return c, nil
}

// inCorpus are the families of the corpus. It names them, so that it stays what it is when the
// bench gets others.
var inCorpus = []string{
	"slurs", "trill", "fingerPerFret", "diagonal", "stringPair", "openStrings", "scaleRun", "mixedRun", "slurInTurn", "oneString",
	"skipArpeggio", "triad", "tapping", "tappedRun", "heldBend", "twoHands", "twoStringShape", "chordShape", "free",
}

// family is a drill of a family that ships.
func family(id string) drill.Drill {
	families := library.Families()
	return families[slices.IndexFunc(families, func(f library.Family) bool { return f.ID == id })].Drill
}

func (r recipe) drill(rng *rand.Rand) drill.Drill {
	if !r.condition.low && rng.IntN(5) < 2 {
		return family(inCorpus[rng.IntN(len(inCorpus))])
	}
	pairs := [][][]int{{{1, 2}}, {{1, 3}}, {{2, 4}}, {{1, 2, 4}}, {{3, 4}}, {{1, 3, 4}}}
	slurs := []drill.Slur{drill.HammerOns, drill.PullOffs}
	d := drill.New("slurs", drill.SlurCombinations{Combinations: pairs[rng.IntN(len(pairs))], Slur: slurs[rng.IntN(2)]})
	d.Path.Position, d.Path.Strings = 1+rng.IntN(9), []int{6, 5, 4, 3, 2, 1, 2, 3, 4, 5, 6}
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 2+rng.IntN(3), 2
	if r.condition.low {
		d.Path.Position, d.Path.Strings, d.Rhythm.Passes = 1+rng.IntN(4), []int{6, 5, 4, 5, 6}, 3
	}
	return d
}

// faults are those of a usual player: a little uneven (a clock and a hand of some 3
// to 6 ms each are within what is published of tapping at these intervals: Repp,
// Psychon. Bull. Rev. 12, 2005, from memory), a weak pair in one take of three, a
// mistake or two in every other.
func faults(rng *rand.Rand, c chart.Chart) simulate.Player {
	p := simulate.Player{
		Seed: rng.Uint64(), ClockMs: 3 + 3*rng.Float64(), MotorMs: 3 + 3*rng.Float64(), LevelSDDB: 1.2, SlurDropDB: 1 + 4*rng.Float64(),
	}
	if rng.IntN(2) == 0 {
		p.Miss, p.Wrong, p.Extra = rng.IntN(2), rng.IntN(2), rng.IntN(2)
	}
	if rng.IntN(3) == 0 {
		i := 1 + rng.IntN(len(c.Notes)-1)
		from, to := c.Notes[i-1], c.Notes[i]
		if from.String == to.String && from.Finger != to.Finger {
			p.Weak = &simulate.Weak{From: from.Finger, To: to.Finger, LateMs: 15 + 20*rng.Float64(), DropDB: 2}
		}
	}
	return p
}
