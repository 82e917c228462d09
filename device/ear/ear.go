// Package ear hears a take while it is played, on the device of who plays it. What it says
// is what the studio says of the same samples: both are the same rules of the core.
package ear

import (
	"encoding/json"
	"errors"
	"fmt"

	"manudrill/core/advice"
	"manudrill/core/bounds"
	"manudrill/core/compare"
	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/listen"
	"manudrill/core/tempo"
)

// A Task is what is to be played, and what the decision on it rests on.
type Task struct {
	Rate     float64        `json:"rate"` // samples a second
	Chart    drill.Chart    `json:"chart"`
	Rung     tempo.Rung     `json:"rung"`
	Climbing tempo.Climbing `json:"climbing"`
}

// A Verdict is what is said of a take.
type Verdict struct {
	Analysis evenness.Analysis `json:"analysis"`
	Advice   advice.Advice     `json:"advice"`
	Measured Figures           `json:"measured"`
	Clean    bool              `json:"clean"`    // every pass of it was
	Climbing tempo.Climbing    `json:"climbing"` // what the ladder knows with it
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
	heard    []listen.Note
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
	e.listener = listen.New(e.task.Rate)
	return e, nil
}

// fullScale is what a sample of 24 bits is a share of, as recordings are handed in.
const fullScale = 1 << 23

// Hear takes samples of 24 bits in, and returns the notes that are complete with them.
func (e *Ear) Hear(block []int32) ([]listen.Note, error) {
	if e.taken += len(block); e.seconds() > bounds.TakeSeconds {
		return nil, ErrTooLong
	}
	e.samples = e.samples[:0]
	for _, v := range block {
		e.samples = append(e.samples, float64(v)*(1.0/fullScale))
	}
	notes := e.listener.Write(e.samples)
	e.heard = append(e.heard, notes...)
	return notes, nil
}

// seconds is how much was heard.
func (e *Ear) seconds() float64 { return float64(e.taken) / e.task.Rate }

// End judges the take, and lets the ladder decide on it.
func (e *Ear) End() (Verdict, error) {
	e.heard = append(e.heard, e.listener.Close()...)
	if len(e.heard) == 0 {
		return Verdict{}, ErrNothing
	}
	a := evenness.Judge(compare.Compare(e.task.Chart, e.heard, e.listener.Ticks()...))
	result := a.Result()
	decision := e.task.Climbing.Decide(e.task.Rung, result)
	return Verdict{
		Analysis: a, Advice: advice.Of(a, e.task.Chart), Clean: decision.Clean(result), Climbing: e.task.Climbing.After(decision, result),
		Measured: Figures{
			Seconds: e.seconds(), HeldBPM: result.HeldBPM, NotesPerSecond: a.Tempo.NotesPerSecond,
			SpreadMs: a.Timing.SpreadMs, SpreadPercent: a.Timing.SpreadPercent, RightPercent: 100 * a.Counts.RightShare(),
			Decision: decision,
		},
	}, nil
}
