package progress

import (
	"time"

	"manudrill/core/tempo"
)

// A State is how a student stands with a drill: all that a look over many students
// tells of it.
type State struct {
	Finding  Finding     `json:"finding"`
	Forecast Forecast    `json:"forecast"`         // of the ladder's target, on the day played last
	OfGate   *float64    `json:"ofGate,omitempty"` // timing spread of the last takes that count, % of what the gate allows
	Clean    int         `json:"clean"`            // of these
	Of       int         `json:"of"`
	Weakest  *PairCourse `json:"weakest,omitempty"`
	Backtest Backtest    `json:"backtest"` // of the forecasts so far
	Days     []time.Time `json:"days"`     // played on in the last weeks
}

// stateDays is how many of the last days with takes that count OfGate and Clean look at.
const stateDays = 4

// pairWeeks is how many weeks back a pair's course begins.
const pairWeeks = 26

// StateOf tells how a record stands, by a gate, with what its weeks add up to.
func (r Record) StateOf(gate tempo.Gate, sums []Dated) State {
	s := State{Finding: r.Finding(), Days: []time.Time{}}
	if len(r.Days) == 0 {
		return s
	}
	if len(r.Rungs) > 0 {
		s.Forecast = r.Forecast(r.Rungs[len(r.Rungs)-1], r.last())
	}
	spread, days := 0.0, 0
	for i := len(r.Days) - 1; i >= 0 && days < stateDays; i-- {
		if d := r.Days[i]; d.Counting > 0 {
			spread += d.SpreadPercent * float64(d.Counting)
			s.Clean += d.Clean
			s.Of += d.Counting
			days++
		}
	}
	if s.Of > 0 && gate.SpreadPercent > 0 {
		of := 100 * spread / float64(s.Of) / gate.SpreadPercent
		s.OfGate = &of
	}
	s.Backtest = r.Backtest()
	if weakest, found := Weakest(sums[max(0, len(sums)-pairWeeks):]); found {
		s.Weakest = &weakest
	}
	for _, d := range r.Days {
		if r.last().Sub(d.Date) < 8*week {
			s.Days = append(s.Days, d.Date)
		}
	}
	return s
}
