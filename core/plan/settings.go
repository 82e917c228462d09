package plan

import (
	"slices"
	"time"

	"manudrill/core/drill"
	"manudrill/core/tempo"
)

// Settings are what a plan is made from, besides what is known of the student.
type Settings struct {
	Begins      time.Time          `json:"begins"` // its first day, at midnight, UTC
	Weeks       int                `json:"weeks"`
	MinutesADay int                `json:"minutesADay"`
	Days        []int              `json:"days"`   // of the week on which is practised: 1 is Monday
	Drills      []string           `json:"drills"` // ids of what is practised
	Goals       []Goal             `json:"goals"`
	Rules       map[RuleID]Setting `json:"rules,omitempty"` // those that are set otherwise than usual
}

// A Goal is a drill at a rung by a day.
type Goal struct {
	Drill string     `json:"drill"`
	Rung  tempo.Rung `json:"rung"`
	By    time.Time  `json:"by"` // at midnight, UTC
}

// Bounds of a plan.
const (
	MaxWeeks  = 26
	MaxDrills = 40
	MaxGoals  = 10

	minMinutes, maxMinutes = 5, 240
)

// Usual are the settings that a new plan begins with: a quarter of an hour on five days,
// for four weeks from a day on.
func Usual(from time.Time) Settings {
	return Settings{Begins: from, Weeks: 4, MinutesADay: 15, Days: []int{1, 2, 4, 5, 6}, Drills: []string{}, Goals: []Goal{}}
}

// Check returns what is wrong with the settings, empty when nothing is.
func (s Settings) Check() drill.Faults {
	var faults drill.Faults
	if s.Weeks < 1 || s.Weeks > MaxWeeks {
		faults.Add("weeks", "A plan has 1 to %d weeks, not %d.", MaxWeeks, s.Weeks)
	}
	if s.MinutesADay < minMinutes || s.MinutesADay > maxMinutes {
		faults.Add("minutesADay", "A day has %d to %d minutes of practice, not %d; for less, choose fewer days.", minMinutes, maxMinutes, s.MinutesADay)
	}
	if s.Begins.Before(earliest) || s.Begins.After(latest) {
		faults.Add("begins", "Choose the day on which the plan begins.")
	}
	s.checkDays(&faults)
	if len(s.Drills) > MaxDrills {
		faults.Add("drills", "A plan has at most %d drills; take some out.", MaxDrills)
	}
	for i, d := range s.Drills {
		if slices.Contains(s.Drills[:i], d) {
			faults.Add("drills", "A drill is in the plan twice.")
		}
	}
	s.checkGoals(&faults)
	s.checkRules(&faults)
	return faults
}

// No plan lies outside of these: a date beyond them is a slip.
var (
	earliest = time.Date(2000, 1, 1, 0, 0, 0, 0, time.UTC)
	latest   = time.Date(2200, 1, 1, 0, 0, 0, 0, time.UTC)
)

func (s Settings) checkDays(faults *drill.Faults) {
	if len(s.Days) == 0 {
		faults.Add("days", "Choose a day of the week at the least.")
	}
	for i, d := range s.Days {
		if d < 1 || d > 7 || slices.Contains(s.Days[:i], d) {
			faults.Add("days", "The days of the week are 1 to 7, Monday first, each once.")
			return
		}
	}
}

func (s Settings) checkGoals(faults *drill.Faults) {
	if len(s.Goals) > MaxGoals {
		faults.Add("goals", "A plan has at most %d goals.", MaxGoals)
	}
	for i, g := range s.Goals {
		switch {
		case g.Drill == "":
			faults.Add("goals", "Choose the drill of goal %d.", i+1)
		case !(g.Rung.BPM >= tempo.MinBPM && g.Rung.BPM <= tempo.MaxBPM) || g.Rung.NotesPerBeat < 1 || g.Rung.NotesPerBeat > 8:
			faults.Add("goals", "The tempo of goal %d is %g bpm; set it from %d to %d.", i+1, g.Rung.BPM, tempo.MinBPM, tempo.MaxBPM)
		case !g.By.After(s.Begins):
			faults.Add("goals", "Goal %d is to be reached before the plan begins; choose a later day.", i+1)
		case g.By.After(latest):
			faults.Add("goals", "The day of goal %d cannot be.", i+1)
		}
	}
}

// practises reports whether a day of the week, 1 for Monday, is one of practice.
func (s Settings) practises(day int) bool {
	if !slices.Contains(s.Days, day) {
		return false
	}
	rest, on := s.rule(RestDays)
	if !on {
		return true
	}
	// Of more days than are allowed the last ones of the week are for rest.
	days := slices.Sorted(slices.Values(s.Days))
	return slices.Index(days, day) < 7-int(rest)
}

// dayOfWeek is 1 for Monday.
func dayOfWeek(date time.Time) int { return (int(date.Weekday())+6)%7 + 1 }
