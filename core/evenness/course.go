package evenness

import (
	"encoding/json"

	"manudrill/core/follow"
)

// A Course is how the take went as a whole.
type Course struct {
	AskedPasses  int            `json:"askedPasses"`
	Passes       int            `json:"passes"`                 // begun or asked for
	StoppedAfter *int           `json:"stoppedAfter,omitempty"` // index of the last note, where the drill was left unfinished
	Events       []follow.Event `json:"events"`                 // in order of time
	TuningCents  float64        `json:"tuningCents"`            // how far the strings are out of tune
}

func courseOf(t follow.Take) Course {
	c := Course{AskedPasses: max(1, t.Chart.Passes), Passes: t.Passes, Events: t.Events, TuningCents: t.TuningCents}
	if c.Events == nil {
		c.Events = []follow.Event{}
	}
	for _, e := range t.Events {
		if e.Kind == follow.Left {
			last := e.Before - 1
			c.StoppedAfter = &last
		}
	}
	return c
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
