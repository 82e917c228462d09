// Package stand does on the student's device what the studio does while it is there: it
// writes the next rung out, and takes a routine from one moment to the next.
package stand

import (
	"encoding/binary"
	"encoding/json"
	"fmt"
	"math"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/practice"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
)

// A Rung to be written out for a guitar.
type Rung struct {
	Drill  drill.Drill   `json:"drill"`
	Guitar guitar.Guitar `json:"guitar"`
	Hand   guitar.Hand   `json:"hand"` // whose fingers are proposed; the usual one where missing
	Rung   tempo.Rung    `json:"rung"`
}

// Laid is a drill at a rung.
type Laid struct {
	Chart        chart.Chart `json:"chart"`
	BeatsPerPass float64     `json:"beatsPerPass"`
}

// Lay writes a drill out at a rung; question is a [Rung] in JSON.
func Lay(question []byte) (Laid, error) {
	var r Rung
	if err := json.Unmarshal(question, &r); err != nil {
		return Laid{}, fmt.Errorf("the drill cannot be read: %w", err)
	}
	c, err := written(r.Drill.Divided(r.Rung.NotesPerBeat), r.Guitar, r.Hand, r.Rung.BPM)
	return Laid{c, c.Beats()}, err
}

// written is a drill written out for somebody.
func written(d drill.Drill, g guitar.Guitar, h guitar.Hand, bpm float64) (chart.Chart, error) {
	if h == nil {
		h = guitar.UsualHand()
	}
	return d.ChartFor(g, h, bpm)
}

// A Model is a drill to be heard as it should sound, once through.
type Model struct {
	Rung
	Click bool `json:"click"`
}

// A Sound is mono samples of 16 bits, least byte first.
type Sound struct {
	Rate    int     `json:"rate"`
	Seconds float64 `json:"seconds"`
	Samples []byte  `json:"samples"` // base64 in JSON
}

// longestModel is the longest that is rendered, in s: whoever wants to hear a drill
// hears how it goes by then.
const longestModel = 40

// Hear renders a drill as it should sound; question is a [Model] in JSON.
func Hear(question []byte) (Sound, error) {
	var m Model
	if err := json.Unmarshal(question, &m); err != nil {
		return Sound{}, fmt.Errorf("the drill cannot be read: %w", err)
	}
	c, err := written(m.Drill.Divided(m.Rung.Rung.NotesPerBeat), m.Guitar, m.Hand, m.Rung.Rung.BPM)
	if err != nil {
		return Sound{}, err
	}
	c.Passes = 1
	for i, n := range c.Notes {
		if n.Beat*60/c.BPM > longestModel {
			c.Notes = c.Notes[:i]
			break
		}
	}
	samples, err := simulate.Rendition(c, m.Click)
	if err != nil {
		return Sound{}, err
	}
	out := Sound{Rate: simulate.Rate, Seconds: c.Seconds(), Samples: make([]byte, 0, 2*len(samples))}
	for _, v := range samples {
		out.Samples = binary.LittleEndian.AppendUint16(out.Samples, uint16(int16(math.Round(32767*max(-1, min(1, v))))))
	}
	return out, nil
}

// A Sought is a search for somebody's tempo, and what has come of the last take of it.
type Sought struct {
	Drill        drill.Drill   `json:"drill"`
	Guitar       guitar.Guitar `json:"guitar"`
	Hand         guitar.Hand   `json:"hand"`
	Ladder       tempo.Ladder  `json:"ladder"`
	NotesPerBeat int           `json:"notesPerBeat"`
	From         float64       `json:"from"`             // bpm to begin at
	Search       *tempo.Search `json:"search,omitempty"` // nil to begin
	Take         string        `json:"take"`             // "clean", "unclean" or "unheard"
	Seconds      float64       `json:"seconds"`          // that the last take has lasted, with all that belongs to it
	BarBeats     int           `json:"barBeats"`         // counted in
}

// A Seeking is the search with the next take of it, or what it has come to.
type Seeking struct {
	Search tempo.Search `json:"search"`
	Next   *Laid        `json:"next,omitempty"`
	Rung   tempo.Rung   `json:"rung"`
	Found  *tempo.Found `json:"found,omitempty"`
	Sure   bool         `json:"sure"` // something was found
}

// A short take lasts about so many seconds and has so many notes at the least: fewer do
// not tell an even hand from an uneven one.
const (
	shortSeconds = 6
	shortNotes   = 16
	// around is what a take needs besides its count-in and its notes, s: its end is heard,
	// and what is said is read.
	around = 3
)

// Seek takes a search from one short take to the next; question is a [Sought] in JSON.
func Seek(question []byte) (Seeking, error) {
	var q Sought
	if err := json.Unmarshal(question, &q); err != nil {
		return Seeking{}, fmt.Errorf("the drill cannot be read: %w", err)
	}
	s := tempo.SearchFrom(q.From)
	if q.Search != nil {
		s = *q.Search
		switch q.Take {
		case "clean", "unclean":
			s = s.After(q.Take == "clean", q.Seconds)
		default:
			s = s.Unheard(q.Seconds)
		}
	}
	out := Seeking{Search: s, Rung: tempo.Rung{BPM: s.BPM, NotesPerBeat: q.NotesPerBeat}}
	whole, err := written(q.Drill.Divided(q.NotesPerBeat), q.Guitar, q.Hand, s.BPM)
	if err != nil {
		return Seeking{}, err
	}
	short := whole.Opening(shortSeconds, shortNotes)
	if s.Over(float64(q.BarBeats)*60/s.BPM + short.TakeSeconds() + around) {
		found, sure := s.Found(q.Ladder, q.NotesPerBeat)
		out.Found, out.Sure = &found, sure
		return out, nil
	}
	out.Next = &Laid{short, short.Beats()}
	return out, nil
}

// A Moment is a run of a routine, and what happens to it.
type Moment struct {
	Routine practice.Routine `json:"routine"`
	State   practice.State   `json:"state"`
	Event   practice.Event   `json:"event"`
}

// Step takes a run from one moment to the next; question is a [Moment] in JSON.
func Step(question []byte) (practice.Told, error) {
	var m Moment
	if err := json.Unmarshal(question, &m); err != nil {
		return practice.Told{}, fmt.Errorf("the routine cannot be read: %w", err)
	}
	if faults := m.Routine.Check(); len(faults) > 0 {
		return practice.Told{}, faults
	}
	if m.State.Item < 0 || m.State.Item > len(m.Routine.Items) {
		return practice.Told{}, fmt.Errorf("the routine has no item %d", m.State.Item)
	}
	return m.Routine.Tell(m.Routine.Step(m.State, m.Event), m.Event.At), nil
}
