// Package ear hears a take while it is played, on the device of who plays it. What it says
// is what the studio says of the same samples: both are the same rules of the core.
package ear

import (
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"manudrill/core/advice"
	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
	"manudrill/core/practice"
	"manudrill/core/setup"
	"manudrill/core/tempo"
)

// A Task is what is to be played, and what the decision on it rests on.
type Task struct {
	Rate     float64        `json:"rate"` // samples a second
	Chart    chart.Chart    `json:"chart"`
	Rung     tempo.Rung     `json:"rung"`
	Climbing tempo.Climbing `json:"climbing"`
	School   setup.School   `json:"school"`
	Aside    tempo.Aside    `json:"aside,omitempty"` // it counts for nothing, for that reason

	// When the first note is due, in s from the first sample, and how late the device's
	// clicks are in its recordings, s, where that is known.
	First *float64 `json:"first,omitempty"`
	Delay *float64 `json:"delay,omitempty"`
	Marks bool     `json:"marks,omitempty"` // what is played is marked while it is
}

// A Verdict is what is said of a take.
type Verdict struct {
	Analysis evenness.Analysis `json:"analysis"`
	Advice   advice.Advice     `json:"advice"`
	Measured Figures           `json:"measured"`
	Parts    *advice.PartsTold `json:"parts,omitempty"` // how far through them, where there are several
	Cues     []string          `json:"cues"`            // how to move, for what was heard
	Clean    bool              `json:"clean"`           // every pass of it was
	Climbing tempo.Climbing    `json:"climbing"`        // what the ladder knows with it
}

// Figures are those of a take's summary, as the contract has them.
type Figures struct {
	Seconds        float64        `json:"seconds"`
	HeldBPM        float64        `json:"heldBpm"`
	NotesPerSecond float64        `json:"notesPerSecond"`
	SpreadMs       float64        `json:"spreadMs"`
	SpreadPercent  float64        `json:"spreadPercent"`
	RightPercent   float64        `json:"rightPercent"`
	Decision       tempo.Decision `json:"decision"`
}

// An Ear listens to one take. Make one with [New].
type Ear struct {
	task     Task
	listener *listen.Listener
	follower *practice.Follower // nil where nothing is marked
	heard    []listen.Note
	struck   []listen.Struck // that an instrument has told; then nothing is listened to
	samples  []float64
	taken    int // samples
}

// ErrNothing is told of a take in which no note was heard.
var ErrNothing = errors.New("no notes were heard")

// ErrTooLong is told of a take longer than any may be.
var ErrTooLong = fmt.Errorf("a take lasts %d minutes at the most", bounds.TakeSeconds/60)

// New makes an ear for a task, which is JSON.
func New(task []byte) (*Ear, error) {
	e := &Ear{}
	if err := json.Unmarshal(task, &e.task); err != nil {
		return nil, fmt.Errorf("what is to be played cannot be read: %w", err)
	}
	if e.task.Rate < listen.LowestRate || e.task.Rate > listen.HighestRate {
		return nil, fmt.Errorf("%g samples a second cannot be heard; %d to %d can", e.task.Rate, listen.LowestRate, listen.HighestRate)
	}
	if len(e.task.Chart.Notes) == 0 {
		return nil, errors.New("there is nothing to be played: the drill has no notes")
	}
	if err := e.task.Chart.Validate(); err != nil {
		return nil, err
	}
	if e.task.Marks && e.task.First == nil {
		return nil, errors.New("notes are marked only where it is known when the first is due")
	}
	e.listener = listen.New(e.task.Rate)
	if e.task.First != nil && e.task.Delay != nil {
		at := *e.task.First + *e.task.Delay
		e.task.Chart.ClickAt = &at
	}
	if e.task.Marks {
		e.listener.SayEarly()
		e.follower = practice.Follow(e.task.Chart, *e.task.First, e.task.Delay)
	}
	return e, nil
}

// fullScale is what a sample of 24 bits is a share of, as recordings are handed in.
const fullScale = 1 << 23

// Hear takes samples of 24 bits in, and returns what is marked with them.
func (e *Ear) Hear(block []int32) ([]practice.Mark, error) {
	if e.taken += len(block); e.seconds() > bounds.TakeSeconds {
		return nil, ErrTooLong
	}
	e.samples = e.samples[:0]
	for _, v := range block {
		e.samples = append(e.samples, float64(v)*(1.0/fullScale))
	}
	notes := e.listener.Write(e.samples)
	e.heard = append(e.heard, notes...)
	return e.follow(notes), nil
}

// Strike takes a note that an instrument has told, once it begins, and returns what is marked
// with it. What counts in the end is what [Ear.Struck] is given.
func (e *Ear) Strike(s listen.Struck) []practice.Mark {
	if e.follower == nil || e.task.Aside == tempo.Tapped {
		return nil
	}
	return e.follower.Told(listen.FromStruck([]listen.Struck{s})[0])
}

// Struck takes all notes of a take that an instrument has told: then nothing was listened to.
func (e *Ear) Struck(all []listen.Struck) error {
	if len(all) > bounds.TakeNotes || slices.ContainsFunc(all, func(s listen.Struck) bool {
		return !(s.On >= 0 && s.On <= bounds.TakeSeconds && s.Off <= bounds.TakeSeconds)
	}) {
		return ErrTooLong
	}
	e.struck = slices.SortedStableFunc(slices.Values(all), func(a, b listen.Struck) int { return cmp.Compare(a.On, b.On) })
	return nil
}

// told are all notes of the take, in order.
func (e *Ear) told() []listen.Note {
	if len(e.struck) == 0 {
		return append(e.heard, e.listener.Close()...)
	}
	notes := listen.FromStruck(e.struck)
	for i := range notes {
		notes[i].Unpitched = e.task.Aside == tempo.Tapped
	}
	return notes
}

// follow marks the notes that have begun, and those that are complete.
func (e *Ear) follow(complete []listen.Note) (marks []practice.Mark) {
	if e.follower == nil {
		return nil
	}
	for _, t := range e.listener.Early() {
		marks = append(marks, e.follower.Began(t)...)
	}
	for _, n := range complete {
		marks = append(marks, e.follower.Told(n)...)
	}
	return marks
}

// seconds is how much was heard.
func (e *Ear) seconds() float64 { return float64(e.taken) / e.task.Rate }

// End judges the take, and lets the ladder decide on it.
func (e *Ear) End() (Verdict, error) {
	e.heard = e.told()
	if len(e.heard) == 0 {
		return Verdict{}, ErrNothing
	}
	seconds := e.seconds()
	if len(e.struck) > 0 {
		seconds = e.heard[len(e.heard)-1].End
	}
	a := evenness.Judge(follow.Follow(e.task.Chart, e.heard, e.listener.Ticks()...))
	result := a.Result()
	decision := e.decide(result)
	said := advice.Of(a, e.task.Chart)
	return Verdict{
		Analysis: a, Advice: said, Parts: advice.PartsOf(a, decision.Gate), Cues: advice.Cues(e.task.Chart, e.task.School, said.Findings), Clean: decision.Clean(result), Climbing: e.task.Climbing.After(decision, result),
		Measured: Figures{
			Seconds: seconds, HeldBPM: result.HeldBPM, NotesPerSecond: a.Tempo.NotesPerSecond,
			SpreadMs: a.Timing.SpreadMs, SpreadPercent: a.Timing.SpreadPercent, RightPercent: 100 * a.Counts.RightShare(),
			Decision: decision,
		},
	}, nil
}

// decide answers the take by its ladder, where it is to be climbed.
func (e *Ear) decide(take tempo.Result) tempo.Decision {
	if e.task.Aside != tempo.NoAside {
		return e.task.Aside.Decision(e.task.Rung, e.task.Climbing.Ladder.Gate)
	}
	return e.task.Climbing.Decide(e.task.Rung, take)
}
