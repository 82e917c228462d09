package plan

import (
	"time"

	"manudrill/core/tempo"
)

// A Plan is weeks of practice.
type Plan struct {
	Weeks []Week   `json:"weeks"`
	Lower []Lower  `json:"lower"`          // ladders that restart lower
	Said  []string `json:"said"`           // what there is to say to it
	Goals []Said   `json:"goals"`          // whether each can be met
	Hurt  bool     `json:"hurt,omitempty"` // pain was reported when it was made
}

// A Week is one of a plan.
type Week struct {
	Begins    time.Time `json:"begins"`    // its Monday
	Positions []int     `json:"positions"` // of the hand, this week
	Theme     string    `json:"theme"`     // what it is about
	Days      []Day     `json:"days"`      // Monday to Sunday
}

// A Day is one of a week: what is practised on it, or why nothing is.
type Day struct {
	Date   time.Time `json:"date"` // midnight, UTC
	Lines  []Line    `json:"lines"`
	Clean  bool      `json:"clean,omitempty"`  // all is played with a clean tone
	Reason string    `json:"reason,omitempty"` // why nothing is practised on it
	ByHand bool      `json:"byHand,omitempty"` // somebody has changed it: the rules leave it as it is
}

// A LineKind says what a line is.
type LineKind string

// Kinds of lines.
const (
	Warming LineKind = "warmUp"
	Playing LineKind = "drill"
	Resting LineKind = "rest"
)

// A Line is one thing of a day.
type Line struct {
	Kind     LineKind `json:"kind"`
	Drill    string   `json:"drill,omitempty"` // its id
	Name     string   `json:"name,omitempty"`  // of the drill
	Position int      `json:"position,omitempty"`
	Seconds  int      `json:"seconds"`
	Rule     RuleID   `json:"rule,omitempty"` // that made it; none for one by hand
	Reason   string   `json:"reason,omitempty"`
}

// A Lower is a ladder that restarts lower.
type Lower struct {
	Drill  string `json:"drill"`
	Name   string `json:"name"`
	Rungs  int    `json:"rungs"`
	Reason string `json:"reason"`
}

// Said is whether a goal can be met.
type Said struct {
	Drill  string     `json:"drill"`
	Name   string     `json:"name"`
	Rung   tempo.Rung `json:"rung"`
	By     time.Time  `json:"by"`
	Likely Likely     `json:"likely"`
	Text   string     `json:"text"`
}

// Likely says how likely a goal is met in time.
type Likely string

// How likely.
const (
	IsMet    Likely = "met"     // already
	InTime   Likely = "inTime"  // also with bad luck
	May      Likely = "may"     // or may not
	TooLate  Likely = "tooLate" // even with good luck
	NotKnown Likely = "notKnown"
)

// Facts are what is known of the student.
type Facts struct {
	Today       time.Time // at midnight, UTC
	Exercises   []Exercise
	Hurt        bool        // pain is reported that no instructor has cleared
	LastPlayed  *time.Time  // day; nil for never
	SlurSeconds float64     // of the fullest of the last four weeks
	Played      []time.Time // days since the plan began on which something was played
	Forecast    func(Goal) Forecast
}

// Forecast is what the record says of a goal.
type Forecast struct {
	Known            bool
	Met              bool
	Earliest, Latest time.Time
	Why              string  // it is not known
	MinutesAWeek     float64 // of the drill, lately
}
