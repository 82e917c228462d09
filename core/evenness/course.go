package evenness

import (
	"encoding/json"
	"math"
	"slices"

	"manudrill/core/follow"
	"manudrill/core/tempo"
)

// A Course is how the take went as a whole.
type Course struct {
	AskedPasses  int            `json:"askedPasses"`
	Passes       int            `json:"passes"`                 // begun or asked for
	StoppedAfter *int           `json:"stoppedAfter,omitempty"` // index of the last note, where the drill was left unfinished
	Events       []follow.Event `json:"events"`                 // in order of time
	TuningCents  float64        `json:"tuningCents"`            // how far the strings are out of tune
}

func courseOf(t follow.Take, l line) Course {
	c := Course{AskedPasses: max(1, t.Chart.Passes), Passes: t.Passes, TuningCents: t.TuningCents}
	c.Events = append(againstAsked(t, l), t.Events...)
	for _, e := range t.Events {
		if e.Kind == follow.Left {
			last := e.Before - 1
			c.StoppedAfter = &last
		}
	}
	return c
}

// besideClick is from how much of a beat on a player came in beside the click.
const besideClick = 0.75

// againstAsked tells what the whole of a take was beside what was asked for, by the line of its
// notes: another tempo, or another beat than the one that was clicked. A whole bar later is on
// the beat.
func againstAsked(t follow.Take, l line) []follow.Event {
	events := []follow.Event{}
	if t.Count(follow.Played) < Fewest {
		return events
	}
	if t.Chart.Free {
		return events // as fast as it stays even
	}
	if held := 60 / l.secondsPerBeat; tempo.Off(held, t.Chart.BPM) {
		return append(events, follow.Event{Kind: follow.OtherTempo, T: t.Start(), Share: held / t.Chart.BPM})
	}
	if t.Chart.ClickAt == nil || len(t.Aside) > 0 {
		return events
	}
	late := l.at(0) - *t.Chart.ClickAt
	beats := late * t.Chart.BPM / 60
	if math.Abs(math.Remainder(beats, float64(t.Chart.BarBeats()))) > besideClick {
		events = append(events, follow.Event{Kind: follow.OffBeat, T: t.Start(), Seconds: late})
	}
	return events
}

// Asked is the analysis of a take of which it turns out later what tempo was asked for, in bpm:
// of a recording that was made elsewhere it is the one that is heard.
func (a Analysis) Asked(bpm float64) Analysis {
	a.Tempo.AskedBPM = bpm
	if !tempo.Off(a.Tempo.BPM, bpm) {
		a.Course.Events = slices.DeleteFunc(slices.Clone(a.Course.Events), func(e follow.Event) bool { return e.Kind == follow.OtherTempo })
	}
	return a
}

// transposed is by how many semitones all was played higher (+) or lower.
func (c Course) transposed() int {
	for _, e := range c.Events {
		if e.Kind == follow.Transposed {
			return e.Semitones
		}
	}
	return 0
}

// UnmarshalJSON reads courses that were judged before events had a kind, too.
func (c *Course) UnmarshalJSON(data []byte) error {
	type plain Course
	var was struct {
		plain
		FalseStart int `json:"falseStart"`
		Stops      []struct {
			Before  int     `json:"before"`
			Seconds float64 `json:"seconds"`
		} `json:"stops"`
	}
	if err := json.Unmarshal(data, &was); err != nil {
		return err
	}
	*c = Course(was.plain)
	if c.Events != nil {
		return nil
	}
	c.Events = []follow.Event{}
	if was.FalseStart > 0 {
		c.Events = append(c.Events, follow.Event{Kind: follow.Restart, Before: was.FalseStart, To: new(int), Notes: was.FalseStart})
	}
	for _, s := range was.Stops {
		c.Events = append(c.Events, follow.Event{Kind: follow.Stop, Before: s.Before, Seconds: s.Seconds})
	}
	if c.StoppedAfter != nil {
		c.Events = append(c.Events, follow.Event{Kind: follow.Left, Before: *c.StoppedAfter + 1})
	}
	return nil
}
