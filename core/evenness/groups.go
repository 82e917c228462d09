package evenness

import (
	"cmp"
	"maps"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/follow"
)

// A Kind says by what notes are grouped.
type Kind string

// Kinds of groups: the string of the note; how many strings the step into it
// goes over; whether the hand changes its position for it; its place in the
// cell; how it starts; whether the path is on its way back.
const (
	ByString   Kind = "string"
	ByCrossing Kind = "crossing"
	ByShift    Kind = "shift"
	ByPlace    Kind = "place"
	ByAttack   Kind = "attack"
	ByWay      Kind = "way"
)

// A Group holds the figures of notes that have something in common.
type Group struct {
	Kind     Kind         `json:"kind"`
	Number   int          `json:"number"`           // string; strings gone over; 0 or 1 for a shift and for the way back; place from 1
	Attack   chart.Attack `json:"attack,omitempty"` // of ByAttack
	Count    int          `json:"count"`
	MeanMs   *Figure      `json:"meanMs"`           // by how much the interval into the note is longer (+) than its share
	SpreadMs *Figure      `json:"spreadMs"`         // standard deviation of the same
	LevelDB  *Figure      `json:"levelDb"`          // against the mean of the take
	Stands   bool         `json:"stands,omitempty"` // it is heard to come late or early, and not by chance
	Varies   bool         `json:"varies,omitempty"` // of a way: it is heard to vary more than the other, and not by chance
}

type groupKey struct {
	kind   Kind
	number int
	attack chart.Attack
}

// groupsOf sorts the steps by all that may make a note hard. Groups of too few
// notes, and a kind with one group only, compare nothing and are left out.
func groupsOf(t follow.Take, steps []step, meanLevel float64) []Group {
	places := placesIn(t.Chart)
	of := map[groupKey][]step{}
	for _, s := range steps {
		c := s.to.Chart
		for _, key := range []groupKey{
			{ByString, c.String, ""}, {ByCrossing, s.strings(), ""}, {ByShift, one(s.shifts()), ""},
			{ByPlace, places[s.to.Index%len(places)], ""}, {ByAttack, 0, c.Attack}, {ByWay, one(c.Back), ""},
		} {
			of[key] = append(of[key], s)
		}
	}
	maps.DeleteFunc(of, func(_ groupKey, steps []step) bool { return len(steps) < Fewest })
	kinds := map[Kind]int{}
	for key := range of {
		kinds[key.kind]++
	}
	maps.DeleteFunc(of, func(key groupKey, _ []step) bool { return kinds[key.kind] < 2 })
	out := make([]Group, 0, len(of))
	for key, steps := range of {
		levels := values(steps, func(s step) (float64, bool) { return s.to.Heard.LevelDB - meanLevel, true })
		out = append(out, Group{
			Kind: key.kind, Number: key.number, Attack: key.attack, Count: len(steps),
			MeanMs: meanOf(excesses(steps)), SpreadMs: spreadOf(excesses(steps)), LevelDB: meanOf(levels),
		})
	}
	slices.SortFunc(out, func(a, b Group) int {
		return cmp.Or(cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Number, b.Number), cmp.Compare(a.Attack, b.Attack))
	})
	return out
}

// placesIn tells each chart note's place in its cell, from 1.
func placesIn(c chart.Chart) []int {
	places := make([]int, len(c.Notes))
	for i, n := range c.Notes {
		places[i] = 1
		if i > 0 && c.Notes[i-1].Cell == n.Cell {
			places[i] = places[i-1] + 1
		}
	}
	return places
}
