package simulate_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/practice"
	"manudrill/core/simulate"
)

// followed are the marks on a take while it is played, the last word on each note.
func followed(x []float64, asked chart.Chart, first float64, delay *float64) map[int]practice.Marked {
	l := listen.New(simulate.Rate)
	l.SayEarly()
	f := practice.Follow(asked, first, delay)
	marks := map[int]practice.Marked{}
	keep := func(ms []practice.Mark) {
		for _, m := range ms {
			marks[m.Index] = m.Is
		}
	}
	hear := func(notes []listen.Note) {
		for _, t := range l.Early() {
			keep(f.Began(t))
		}
		for _, n := range notes {
			keep(f.Told(n))
		}
	}
	for at := 0; at < len(x); at += 1024 {
		hear(l.Write(x[at:min(len(x), at+1024)]))
	}
	hear(l.Close())
	return marks
}

func countOf(marks map[int]practice.Marked, is practice.Marked) (n int) {
	for _, m := range marks {
		if m == is {
			n++
		}
	}
	return n
}

// Of steady players hardly anything is marked while they play, whether they are with the
// click, behind it, or their device is late.
func TestSteadyPlayersAreLeftInPeace(t *testing.T) {
	notes, off := 0, 0
	for seed := range uint64(15) {
		c := chartOf(t, 84, drill.HammerOns, 3)
		p := usual(400 + seed)
		p.ClockMs, p.MotorMs = 2, 3
		strokes := p.Perform(c, 2.4)
		x := p.Render(strokes, simulate.Rate, strokes[len(strokes)-1].T+1)
		first := []float64{2.4, 2.25, 2.5, 1.9, 2.31}[seed%5] // on time, 150 ms late, 100 ms early, two notes late …
		marks := followed(x, c, first, nil)
		notes += len(strokes)
		off += countOf(marks, practice.Early) + countOf(marks, practice.Late)
		assert.Zero(t, countOf(marks, practice.Missing)+countOf(marks, practice.WrongAt), "seed %d", seed)
		assert.Greater(t, len(marks), len(strokes)*9/10, "they are followed")
	}
	assert.LessOrEqual(t, off, notes/50, "of %d notes", notes)
}

// What was put in is marked, at its place: a pair that is late, a note left out, one a
// fret off.
func TestFaultsAreMarkedWhileTheyAreMade(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	late, lateMarked, elsewhere, mistakes, marked, others := 0, 0, 0, 0, 0, 0
	for seed := range uint64(8) {
		c := chartOf(t, 84, drill.HammerOns, 3)
		notes := c.Unroll()
		p := usual(500 + seed)
		p.ClockMs, p.MotorMs, p.Weak = 2, 3, &simulate.Weak{From: 2, To: 4, LateMs: 45}
		strokes := p.Perform(c, 2.4)
		marks := followed(p.Render(strokes, simulate.Rate, strokes[len(strokes)-1].T+1), c, 2.4, new(float64))
		for i := 1; i < len(notes); i++ {
			weak := notes[i-1].Finger == 2 && notes[i].Finger == 4 && notes[i-1].String == notes[i].String
			switch {
			case weak:
				late++
				if marks[i] == practice.Late {
					lateMarked++
				}
			case marks[i] == practice.Late || marks[i] == practice.Early:
				elsewhere++
			}
		}

		p.Weak, p.Miss, p.Wrong = nil, 1, 1
		strokes = p.Perform(c, 2.4)
		marks = followed(p.Render(strokes, simulate.Rate, strokes[len(strokes)-1].T+1), c, 2.4, nil)
		truth := map[int]practice.Marked{}
		for i := range notes {
			truth[i] = practice.Missing
		}
		for _, s := range strokes {
			truth[s.Index] = practice.InTime
			if s.MIDI != notes[s.Index].MIDI {
				truth[s.Index] = practice.WrongAt
			}
		}
		for i, is := range truth {
			said := marks[i] == practice.Missing || marks[i] == practice.WrongAt
			switch {
			case is != practice.InTime:
				mistakes++
				if marks[i] == is {
					marked++
				}
			case said:
				others++
			}
		}
	}
	t.Logf("late pairs %d, marked %d, others %d; mistakes %d, marked %d, others %d", late, lateMarked, elsewhere, mistakes, marked, others)
	assert.GreaterOrEqual(t, lateMarked, late*9/10)
	assert.LessOrEqual(t, elsewhere, late/10)
	assert.GreaterOrEqual(t, marked, mistakes*3/4)
	assert.Zero(t, others, "no mistake is shown that was not made")
}

// Of who plays something else nothing is said, but for the few notes by which it is known.
func TestNothingIsSaidOfAnotherDrill(t *testing.T) {
	d := drill.New("other", drill.FingerPerFret{Orders: [][]int{{4, 2, 3, 1}}})
	d.Path.Position, d.Attacks.Rule, d.Rhythm.NotesPerBeat = 2, drill.AllPicked, 4
	other, err := d.Chart(guitar.Standard(), 84)
	require.NoError(t, err)
	p := usual(3)
	strokes := p.Perform(other, 2.4)
	x := p.Render(strokes, simulate.Rate, strokes[len(strokes)-1].T+1)
	marks := followed(x, chartOf(t, 84, drill.HammerOns, 3), 2.4, nil)
	assert.Empty(t, marks)
}
