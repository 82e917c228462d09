package setup

import "fmt"

// A School is what a teacher holds for right where teachers differ. What is left empty
// is the usual choice.
type School struct {
	PullOff   string `json:"pullOff,omitempty"`
	Hammer    string `json:"hammer,omitempty"`
	Ascending string `json:"ascending,omitempty"`
	Tap       string `json:"tap,omitempty"`
}

// What can be chosen.
const (
	PullIntoNext = "intoNext" // a firm pluck that comes to rest on the next string
	PullClear    = "clear"    // clear of it, so that it can ring
	PullLift     = "lift"     // a light lift

	HammerClose   = "close"   // from close to the string
	HammerKnuckle = "knuckle" // with the large knuckle's full motion

	AscendStay = "stay" // fingers stay down
	AscendLift = "lift" // each lifts as the next lands

	TapIndex  = "index"
	TapMiddle = "middle"
)

// A SchoolChoice is one that teachers make differently.
type SchoolChoice struct {
	ID      string         `json:"id"`
	Name    string         `json:"name"`
	Options []SchoolOption `json:"options"` // the usual one first
}

// A SchoolOption is one way, with its reason.
type SchoolOption struct {
	Value  string `json:"value"`
	Name   string `json:"name"`
	Reason string `json:"reason"`
}

// SchoolChoices are all there are. The ways and their reasons are common practice.
var SchoolChoices = []SchoolChoice{
	{"pullOff", "Pull-off", []SchoolOption{
		{PullIntoNext, "A firm pluck into the next string", "It is loud enough, and the string it comes to rest on stays still."},
		{PullClear, "Clear of the next string", "So that the string beside it can ring on."},
		{PullLift, "A light lift", "On an amplified guitar that is enough, and it is quieter work for the hand."},
	}},
	{"hammer", "Hammer-on", []SchoolOption{
		{HammerClose, "From close to the string", "The shorter way is the quicker and the more even one."},
		{HammerKnuckle, "From the large knuckle, with its full motion", "It makes the note loud without pressing."},
	}},
	{"ascending", "Fingers while ascending", []SchoolOption{
		{AscendStay, "Stay down", "The finger below is there already when it goes down again."},
		{AscendLift, "Lift", "No finger presses that is not needed, and the hand stays looser."},
	}},
	{"tap", "Tap with", []SchoolOption{
		{TapIndex, "The index finger", "It is the surest one; the pick goes between thumb and middle finger."},
		{TapMiddle, "The middle finger", "The pick stays where it is."},
	}},
}

// chosen is what a school says to a choice.
func (s School) chosen(id string) string {
	return map[string]string{"pullOff": s.PullOff, "hammer": s.Hammer, "ascending": s.Ascending, "tap": s.Tap}[id]
}

// Says is what the school says to a choice: the usual where it says nothing.
func (s School) Says(id string) string {
	if v := s.chosen(id); v != "" {
		return v
	}
	for _, c := range SchoolChoices {
		if c.ID == id {
			return c.Options[0].Value
		}
	}
	return ""
}

// validate says what nobody can choose, or nil.
func (s School) validate() error {
	for _, c := range SchoolChoices {
		v := s.chosen(c.ID)
		known := v == ""
		for _, o := range c.Options {
			known = known || o.Value == v
		}
		if !known {
			return fmt.Errorf("there is no way %q to choose for %s", v, c.Name)
		}
	}
	return nil
}
