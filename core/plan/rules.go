package plan

import "manudrill/core/drill"

// A RuleID names a rule.
type RuleID string

// The rules.
const (
	WarmUp    RuleID = "warmUp"
	Graded    RuleID = "graded"
	Blocks    RuleID = "blocks"
	Positions RuleID = "positions"
	Highest   RuleID = "highest"
	Minutes   RuleID = "minutes"
	Rests     RuleID = "rests"
	CleanTone RuleID = "cleanTone"
	RestDays  RuleID = "restDays"
	Growth    RuleID = "growth"
	Stale     RuleID = "stale"
	Returns   RuleID = "returns"
	Gap       RuleID = "gap"
	Pain      RuleID = "pain"
	CarryOn   RuleID = "carryOn"
	ByGoal    RuleID = "goal" // not to be left out: what is a goal is practised
)

// A Rule is one by which a plan is made.
type Rule struct {
	ID     RuleID  `json:"id"`
	Name   string  `json:"name"`
	Reason string  `json:"reason"`
	Unit   string  `json:"unit,omitempty"` // of its value; empty for a rule that has none
	Value  float64 `json:"value"`          // the usual one
	Min    float64 `json:"min"`
	Max    float64 `json:"max"`
}

// Rules are all there are, with what is usual. The reasons and the values are common
// practice.
func Rules() []Rule {
	return []Rule{
		{WarmUp, "Warm-up first", "Cold fingers tense up: the first minutes are slow, high on the neck.", "minutes", 3, 1, 15},
		{Graded, "Graded combinations", "1-2 before 2-3, 3-4, 1-3, 1-4 and 2-4, pairs before three and four fingers; so many new ones a week.", "new a week", 1, 1, 5},
		{Blocks, "Hammer-ons and pull-offs in blocks", "Each movement is learned by itself before they mix. Left out, they mix from the start.", "weeks each", 1, 1, 4},
		{Positions, "Positions change weekly", "The same drill is another one where the frets are wider: so many positions a week, moving down.", "positions a week", 2, 1, 4},
		{Highest, "Where the positions begin", "Frets are close there, so nothing is stretched yet.", "position", 9, 1, 15},
		{Minutes, "Time for a drill", "Two or three minutes, then another: what is longer is played without attention.", "minutes", 2.5, 1, 10},
		{Rests, "Rests between", "The hand lets go before the next drill.", "seconds", 30, 5, 120},
		{CleanTone, "A clean-tone day", "Without distortion nothing hides: once a week all is played clean. 1 is Monday.", "day of the week", 3, 1, 7},
		{RestDays, "Rest days", "Tendons recover on days without slurs: so many of seven.", "days", 1, 1, 6},
		{Growth, "Slurring grows gently", "More than so much from one week to the next is how hands get hurt.", "% a week", 10, 0, 50},
		{Stale, "Stale exercises give way", "After so many weeks without a gain a relative that works the same pair does more, for two weeks.", "weeks", 3, 2, 12},
		{Returns, "What was mastered comes back", "What is not played is lost: it returns after so many weeks, then after twice as many each time.", "weeks", 1, 1, 8},
		{Gap, "Lower after a gap", "After three weeks away the ladder restarts so many rungs lower, and is soon back.", "rungs", 2, 1, 6},
		{Pain, "Pain empties the plan", "Until the instructor says otherwise, and a doctor or hand therapist where it stays.", "", 0, 0, 0},
		{CarryOn, "What was skipped is carried on", "The next day takes it up where it was left. Left out, what was skipped is dropped.", "", 0, 0, 0},
	}
}

// A Setting changes a rule.
type Setting struct {
	Off   bool    `json:"off,omitempty"`
	Value float64 `json:"value"`
}

// rule returns a rule as it is set, and whether it holds.
func (s Settings) rule(id RuleID) (value float64, on bool) {
	for _, r := range Rules() {
		if r.ID == id {
			if set, is := s.Rules[id]; is {
				return set.Value, !set.Off
			}
			return r.Value, true
		}
	}
	return 0, false
}

// checkRules says what is wrong with how rules are set.
func (s Settings) checkRules(faults *drill.Faults) {
	known := map[RuleID]Rule{}
	for _, r := range Rules() {
		known[r.ID] = r
	}
	for id, set := range s.Rules {
		r, is := known[id]
		switch {
		case !is:
			faults.Add("rules", "There is no rule %q.", id)
		case !set.Off && !(set.Value >= r.Min && set.Value <= r.Max):
			faults.Add("rules", "“%s” is set to %g; set it from %g to %g.", r.Name, set.Value, r.Min, r.Max)
		}
	}
}
