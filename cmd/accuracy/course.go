package main

import (
	"cmp"
	"fmt"
	"io"
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"strings"

	"golang.org/x/sync/errgroup"
	"gonum.org/v1/gonum/stat"

	"manudrill/core/advice"
	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
)

// A behaviour is something that a learner does in the middle of a take. do makes the player
// do it at places drawn at random.
type behaviour struct {
	name string
	do   func(rng *rand.Rand, c chart.Chart, p *simulate.Player)
}

// behaviours are what learners do, as teachers see it (common practice).
var behaviours = []behaviour{
	{"plays through", func(*rand.Rand, chart.Chart, *simulate.Player) {}},
	{"leaves a note out", func(_ *rand.Rand, _ chart.Chart, p *simulate.Player) { p.Miss = 1 }},
	{"plays a wrong note", func(_ *rand.Rand, _ chart.Chart, p *simulate.Player) { p.Wrong = 1 }},
	{"touches a string", func(_ *rand.Rand, _ chart.Chart, p *simulate.Player) { p.Extra = 1 }},
	{"hesitates a fifth of a second", acts(1, follow.Hesitation, seconds(0.2, 0.2))},
	{"hesitates a third of a second", acts(1, follow.Hesitation, seconds(0.35, 0.35))},
	{"hesitates half a second", acts(1, follow.Hesitation, seconds(0.5, 0.5))},
	{"hesitates twice", acts(2, follow.Hesitation, seconds(0.2, 0.8))},
	{"stops", acts(1, follow.Stop, seconds(1.2, 4))},
	{"strikes a note twice and goes on from it", acts(1, follow.Double, seconds(0.15, 0.4))},
	{"strikes two notes twice and goes on", acts(2, follow.Double, seconds(0.15, 0.4))},
	{"strikes a note twice and is in time", func(_ *rand.Rand, _ chart.Chart, p *simulate.Player) { p.Repeat = 1 }},
	{"corrects a note", acts(1, follow.Correction, seconds(0.15, 0.5))},
	{"begins again", acts(1, follow.Restart, seconds(0.3, 2))},
	{"begins again at once, off the beat", acts(1, follow.Restart, seconds(0.05, 0.3))},
	{"begins again after a few notes", func(rng *rand.Rand, _ chart.Chart, p *simulate.Player) {
		p.Course = []simulate.Act{{Kind: follow.Restart, Before: 3 + rng.IntN(3), Seconds: 0.5 + rng.Float64()}}
	}},
	{"goes back a few notes", back(2, 4, seconds(0.1, 0.6))},
	{"goes back a good way", back(5, 12, seconds(0.1, 1))},
	{"leaves two notes out", ahead(2)},
	{"leaves four notes out", ahead(4)},
	{"leaves off", acts(1, follow.Left, seconds(0, 0))},
	{"swings", func(rng *rand.Rand, c chart.Chart, p *simulate.Player) {
		if c.NotesPerBeat%2 == 0 {
			p.Swing = 0.58 + 0.1*rng.Float64()
		}
	}},
	{"plays a fret too high", moved(1)},
	{"plays a fret too low", moved(-1)},
	{"plays five frets too high", moved(5)},
	{"plays an octave too high", moved(12)},
	{"hesitates and leaves a note out", func(rng *rand.Rand, c chart.Chart, p *simulate.Player) {
		p.Miss = 1
		acts(1, follow.Hesitation, seconds(0.3, 0.6))(rng, c, p)
	}},
	{"corrects a note and begins again", func(rng *rand.Rand, c chart.Chart, p *simulate.Player) {
		p.Course = []simulate.Act{
			{Kind: follow.Correction, Before: 4 + rng.IntN(3), Seconds: 0.3},
			{Kind: follow.Restart, Before: 9 + rng.IntN(3), Seconds: 1},
		}
	}},
}

// seconds draws a time.
func seconds(from, to float64) func(*rand.Rand) float64 {
	return func(rng *rand.Rand) float64 { return from + (to-from)*rng.Float64() }
}

// acts does something so many times, at places apart.
func acts(times int, kind follow.EventKind, long func(*rand.Rand) float64) func(*rand.Rand, chart.Chart, *simulate.Player) {
	return func(rng *rand.Rand, c chart.Chart, p *simulate.Player) {
		part := len(c.Unroll()) / times
		for k := range times {
			p.Course = append(p.Course, simulate.Act{Kind: kind, Before: k*part + 7 + rng.IntN(part-11), Seconds: long(rng)})
		}
	}
}

func back(least, most int, long func(*rand.Rand) float64) func(*rand.Rand, chart.Chart, *simulate.Player) {
	return func(rng *rand.Rand, c chart.Chart, p *simulate.Player) {
		by := least + rng.IntN(most-least+1)
		before := by + 1 + rng.IntN(len(c.Unroll())-by-4)
		p.Course = []simulate.Act{{Kind: follow.Replay, Before: before, To: before - by, Seconds: long(rng)}}
	}
}

func ahead(notes int) func(*rand.Rand, chart.Chart, *simulate.Player) {
	return func(rng *rand.Rand, c chart.Chart, p *simulate.Player) {
		before := 4 + rng.IntN(len(c.Unroll())-notes-8)
		p.Course = []simulate.Act{{Kind: follow.Skip, Before: before, To: before + notes}}
	}
}

func moved(semitones int) func(*rand.Rand, chart.Chart, *simulate.Player) {
	return func(_ *rand.Rand, _ chart.Chart, p *simulate.Player) { p.Transpose = semitones }
}

// inCourses are the families whose drills the behaviours are played in: such that a place in
// them can be told from others. A trill begun again looks like a longer trill, and so does
// tapping at one place.
var inCourses = []string{"slurs", "fingerPerFret", "diagonal", "scaleRun", "mixedRun", "triad", "tappedRun", "twoStringShape"}

// shortest is how many notes a take of a course has at the least.
const shortest = 28

// A playedCourse is a take without a sound, of which all is known.
type playedCourse struct {
	chart   chart.Chart
	player  simulate.Player
	strokes []simulate.Stroke
}

// playCourse is a take of a behaviour, of a half of them: other players at other places.
func playCourse(b behaviour, of string, half, n int) (playedCourse, error) {
	seed := uint64(0)
	for _, letter := range b.name + of {
		seed = seed*31 + uint64(letter)
	}
	rng := rand.New(rand.NewPCG(seed, uint64(2*n+half)))
	d := family(of)
	perSecond := 3 + 5*rng.Float64()
	c, err := d.Chart(guitar.Standard(), math.Round(60*perSecond/float64(d.Rhythm.NotesPerBeat)))
	if err != nil {
		return playedCourse{}, fmt.Errorf("%s: %w", of, err)
	}
	c.Notes = c.Notes[:min(longest, len(c.Notes))]
	c.Passes = (shortest + len(c.Notes) - 1) / len(c.Notes)
	p := simulate.Player{Seed: rng.Uint64(), ClockMs: 3 + 3*rng.Float64(), MotorMs: 3 + 3*rng.Float64(), LevelSDDB: 1.2, SlurDropDB: 2}
	b.do(rng, c, &p)
	return playedCourse{c, p, p.Perform(c, simulate.CountIn)}, p.Validate()
}

// A courseTally counts of how many takes what is told is true, and what was done was
// understood.
type courseTally struct {
	takes, true_, understood int
	wrongs                   []string
}

// judged judges a take by what a perfect ear hears of it, or by its sound.
func (p playedCourse) judged(bySound bool) (evenness.Analysis, error) {
	if !bySound {
		return evenness.Judge(follow.Follow(p.chart, p.player.Notes(p.chart))), nil
	}
	_, samples, err := p.player.Take(p.chart)
	if err != nil {
		return evenness.Analysis{}, err
	}
	l := listen.New(simulate.Rate)
	heard := append(l.Write(samples), l.Close()...)
	return evenness.Judge(follow.Follow(p.chart, heard, l.Ticks()...)), nil
}

// add counts what was told of a take.
func (s *courseTally) add(name string, p playedCourse, a evenness.Analysis) {
	said := advice.Of(a, p.chart)
	s.takes++
	if wrong := p.untrue(a, said); wrong == "" {
		s.true_++
	} else {
		s.wrongs = append(s.wrongs, name+": untrue: "+wrong)
	}
	if want, told := p.events(), eventsOf(a); want == told {
		s.understood++
	} else {
		s.wrongs = append(s.wrongs, fmt.Sprintf("%s: did %s, told %s", name, want, told))
	}
}

// What is told is true within these of what was played.
const (
	trueShare   = 0.25
	trueMs      = 2.0
	truePercent = 1.5
)

// untrue is what is told of a take that is not so; empty for nothing.
func (p playedCourse) untrue(a evenness.Analysis, said advice.Advice) string {
	spread, bpm, counts := p.truth()
	switch {
	case a.Foreign:
		return "foreign"
	case math.Abs(a.Timing.SpreadMs-spread) > max(trueMs, trueShare*spread):
		return fmt.Sprintf("spread %.1f ms, told %.1f", spread, a.Timing.SpreadMs)
	case math.Abs(a.Tempo.BPM/bpm-1) > truePercent/100:
		return fmt.Sprintf("%.1f bpm, told %.1f", bpm, a.Tempo.BPM)
	case a.Counts != counts:
		return fmt.Sprintf("%+v, told %+v", counts, a.Counts)
	}
	for _, f := range said.Findings {
		if slices.Contains(causes, f.About) {
			return f.Text
		}
	}
	return ""
}

// causes are the findings that blame something: no player here has what they name.
var causes = []string{"late", "uneven", "hurried", "crossing", "shift", "drift", "click", "tires", "way", "source", "slurs", "soft", "gaps", "ringing", "bend"}

// truth is the spread of the notes that count about a line, ms, the tempo and the counts.
func (p playedCourse) truth() (spread, bpm float64, counts evenness.Counts) {
	notes := p.chart.Unroll()
	var beats, off []float64
	counts.Expected = len(notes)
	for _, s := range p.strokes {
		switch {
		case s.Index >= 0 && s.MIDI != notes[s.Index].MIDI+p.player.Transpose:
			counts.Wrong++
		case s.Index >= 0:
			counts.Played++
			beats, off = append(beats, notes[s.Index].Beat), append(off, 1000*(s.T-s.Due))
		case !s.Aside:
			counts.Extra++
		}
	}
	counts.Missed = counts.Expected - counts.Played - counts.Wrong
	start, slope := stat.LinearRegression(beats, off, nil, false)
	for i := range off {
		off[i] -= start + slope*beats[i]
	}
	return stat.PopStdDev(off, nil), p.chart.BPM, counts
}

// events writes what the player did, in order.
func (p playedCourse) events() string {
	var all []string
	for _, act := range p.player.Course {
		e := follow.Event{Kind: act.Kind, Before: act.Before}
		switch act.Kind {
		case follow.Hesitation, follow.Stop:
			for !p.sounded(e.Before - 1) {
				e.Before-- // what was due is what came before and was left out
			}
		case follow.Restart:
			e.To = new(int)
			*e.To = act.Before - 1 - (act.Before-1)%len(p.chart.Notes)
		case follow.Replay, follow.Skip:
			if e.To = &act.To; act.To < act.Before && act.To%len(p.chart.Notes) == 0 {
				e.Kind = follow.Restart
			}
		}
		all = append(all, eventText(e))
	}
	for i, s := range p.strokes {
		if p.player.Repeat > 0 && s.Index < 0 && i > 0 && s.MIDI == p.strokes[i-1].MIDI {
			all = append(all, eventText(follow.Event{Kind: follow.Double, Before: p.strokes[i-1].Index + 1}))
		}
	}
	if p.player.Swing > 0 {
		all = append(all, eventText(follow.Event{Kind: follow.Swing}))
	}
	if p.player.Transpose != 0 {
		all = append(all, eventText(follow.Event{Kind: follow.Transposed, Semitones: p.player.Transpose}))
	}
	return strings.Join(all, ", ")
}

// sounded reports whether a chart note was played.
func (p playedCourse) sounded(index int) bool {
	return slices.ContainsFunc(p.strokes, func(s simulate.Stroke) bool { return s.Index == index })
}

func eventsOf(a evenness.Analysis) string {
	var all []string
	for _, e := range a.Course.Events {
		all = append(all, eventText(e))
	}
	return strings.Join(all, ", ")
}

func eventText(e follow.Event) string {
	text := fmt.Sprintf("%s %d", e.Kind, e.Before)
	if e.Kind == follow.Transposed {
		return fmt.Sprintf("%s %+d", e.Kind, e.Semitones)
	}
	if e.To != nil {
		text += fmt.Sprintf(" to %d", *e.To)
	}
	return text
}

// playCourses plays all behaviours in all families, so many takes of each.
func playCourses(half, each int, bySound bool) (map[string]*courseTally, error) {
	var group errgroup.Group
	group.SetLimit(runtime.NumCPU())
	all := map[string]*courseTally{}
	for _, b := range behaviours {
		s := &courseTally{}
		all[b.name] = s
		group.Go(func() error {
			for _, of := range inCourses {
				for n := range each {
					p, err := playCourse(b, of, half, n)
					if err != nil {
						return err
					}
					a, err := p.judged(bySound)
					if err != nil {
						return err
					}
					s.add(fmt.Sprintf("%s, %s %d", b.name, of, n), p, a)
				}
			}
			return nil
		})
	}
	return all, group.Wait()
}

// reportCourses writes a table of behaviours, the worst first.
func reportCourses(out io.Writer, scores map[string]*courseTally, verbose bool) {
	total := &courseTally{}
	names := make([]string, 0, len(scores))
	for name, s := range scores {
		names = append(names, name)
		total.takes, total.true_, total.understood = total.takes+s.takes, total.true_+s.true_, total.understood+s.understood
	}
	slices.SortFunc(names, func(a, b string) int {
		return cmp.Or(cmp.Compare(scores[a].true_+scores[a].understood, scores[b].true_+scores[b].understood), cmp.Compare(a, b))
	})
	fmt.Fprintln(out, "| behaviour | takes | true | understood |")
	fmt.Fprintln(out, "|---|---|---|---|")
	for _, name := range names {
		courseRow(out, name, scores[name])
	}
	courseRow(out, "all", total)
	if verbose {
		for _, name := range names {
			for _, w := range scores[name].wrongs {
				fmt.Fprintln(out, w)
			}
		}
	}
}

func courseRow(out io.Writer, name string, s *courseTally) {
	percent := func(n int) float64 { return 100 * float64(n) / float64(max(1, s.takes)) }
	fmt.Fprintf(out, "| %s | %d | %.0f %% | %.0f %% |\n", name, s.takes, percent(s.true_), percent(s.understood))
}
