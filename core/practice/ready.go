package practice

import (
	"fmt"

	"manudrill/core/drill"
)

// A Ready routine ships with Manudrill, with the drills it is of. Its items name their
// drills by the name.
type Ready struct {
	ID      string        `json:"id"`
	About   string        `json:"about"`
	Routine Routine       `json:"routine"`
	Drills  []drill.Drill `json:"drills"`
}

// ReadyRoutines are all that ship. Their order is common practice: loose first, easy
// before hard, slow before long, a rest before the hand asks for it.
func ReadyRoutines() []Ready {
	return []Ready{warmUp(), firstSlurs(), evenSlurs(), endurance()}
}

// add puts a drill in as the next item.
func (r *Ready) add(name string, p drill.Pattern, enough Enough, text string, set func(*drill.Drill)) {
	d := drill.New(name, p)
	if set != nil {
		set(&d)
	}
	r.Drills = append(r.Drills, d)
	r.Routine.Items = append(r.Routine.Items, Item{Kind: Play, Drill: name, Enough: &enough, Text: text})
}

func (r *Ready) rest(seconds int, text string) {
	r.Routine.Items = append(r.Routine.Items, Item{Kind: Rest, Seconds: seconds, Text: text})
}

func (r *Ready) note(seconds int, text string) {
	r.Routine.Items = append(r.Routine.Items, Item{Kind: Note, Seconds: seconds, Text: text})
}

func takes(n int) Enough     { return Enough{By: ByTakes, Count: n} }
func minutes(n int) Enough   { return Enough{By: BySeconds, Count: 60 * n} }
func clean(n, of int) Enough { return Enough{By: ByClean, Count: n, Of: of} }

func picked(d *drill.Drill) { d.Attacks.Rule = drill.AllPicked }

func warmUp() Ready {
	r := Ready{ID: "warmUp", About: "Five minutes, slow and high on the neck, before anything else."}
	r.Routine.Name = "Warm-up"
	r.note(10, "Shoulders down, thumb behind the middle finger. Nothing here is to be fast.")
	r.add("Warm-up 1-2-3-4", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}}, takes(2), "", func(d *drill.Drill) {
		picked(d)
		d.Path.Position = 9
	})
	r.add("Warm-up 1-2 and 2-3", drill.SlurCombinations{Combinations: [][]int{{1, 2}, {2, 3}}, Slur: drill.BothSlurs}, takes(2), "Press no harder than the note needs.", func(d *drill.Drill) {
		d.Path.Position, d.Path.Strings = 9, []int{3, 2}
	})
	r.rest(20, "Let both arms hang.")
	r.add("Warm-up 1-3 and 2-4", drill.SlurCombinations{Combinations: [][]int{{1, 3}, {2, 4}}, Slur: drill.BothSlurs}, takes(2), "", func(d *drill.Drill) {
		d.Path.Position, d.Path.Strings = 9, []int{3, 2}
	})
	return r
}

func firstSlurs() Ready {
	r := Ready{ID: "firstSlurs", About: "Hammer-ons, then pull-offs, then both, one pair of fingers at a time: about twelve minutes."}
	r.Routine.Name = "First slurs"
	high := func(d *drill.Drill) { d.Path.Position, d.Path.Strings, d.Path.Back = 9, []int{3, 2, 1}, drill.Returns }
	r.add("First hammer-ons 1-2", drill.SlurCombinations{Combinations: [][]int{{1, 2}}, Slur: drill.HammerOns}, clean(2, 3), "From close by, as loud as the picked note.", high)
	r.add("First hammer-ons 2-3", drill.SlurCombinations{Combinations: [][]int{{2, 3}}, Slur: drill.HammerOns}, clean(2, 3), "", high)
	r.rest(30, "Shake the hand out.")
	r.add("First pull-offs 2-1", drill.SlurCombinations{Combinations: [][]int{{1, 2}}, Slur: drill.PullOffs}, clean(2, 3), "The first finger is down before the second leaves.", high)
	r.add("First pull-offs 3-2", drill.SlurCombinations{Combinations: [][]int{{2, 3}}, Slur: drill.PullOffs}, clean(2, 3), "", high)
	r.rest(30, "")
	r.add("First slurs, there and back", drill.SlurCombinations{Combinations: [][]int{{1, 2}, {2, 3}}, Slur: drill.BothSlurs}, takes(4), "", high)
	return r
}

func evenSlurs() Ready {
	r := Ready{ID: "evenness", About: "The same notes picked as the yardstick, then slurred, then the pairs that usually lag: about fifteen minutes."}
	r.Routine.Name = "Evenness"
	all := drill.SlurCombinations{Combinations: [][]int{{1, 2, 3, 4}}, Slur: drill.HammerOns}
	r.add("Even, picked then slurred", all, takes(4), "How you pick it is how even the slurs shall be.", func(d *drill.Drill) {
		d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 4, 1
		*d = d.PickedFirst()
	})
	r.rest(45, "Open and close the hand slowly.")
	for _, pair := range []struct {
		name    string
		fingers []int
	}{{"Even trill 2-3", []int{2, 3}}, {"Even trill 3-4", []int{3, 4}}} {
		r.add(pair.name, drill.Trill{Fingers: pair.fingers}, clean(3, 5), "", func(d *drill.Drill) {
			d.Path.Position, d.Path.Strings, d.Path.Stay = 7, []int{3}, drill.Stay{Count: 8, Unit: drill.Beats}
			d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.Legato, 2
		})
	}
	return r
}

func endurance() Ready {
	r := Ready{ID: "endurance", About: "Longer stretches with rests between, to find how long it stays even: about twenty minutes."}
	r.Routine.Name = "Endurance"
	r.note(10, "Go on only as long as it stays loose. Tired is a reason to rest; pain is a reason to stop.")
	r.add("Long legato 1-2-4", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.BothSlurs}, minutes(4), "", func(d *drill.Drill) {
		d.Path.Position, d.Path.Back, d.Rhythm.Passes = 7, drill.Returns, 3
	})
	r.rest(60, "Let both arms hang.")
	r.add("Long legato 1-3-4", drill.SlurCombinations{Combinations: [][]int{{1, 3, 4}}, Slur: drill.BothSlurs}, minutes(4), "", func(d *drill.Drill) {
		d.Path.Position, d.Path.Back, d.Rhythm.Passes = 7, drill.Returns, 3
	})
	r.rest(60, "Let both arms hang.")
	r.add("All pairs without a stop", drill.SlurCombinations{}, takes(2), "How far do you get before it is uneven?", func(d *drill.Drill) { *d = allPairs(d.Name) })
	r.rest(60, "Shake the hand out.")
	r.add("Long trill 1-3", drill.Trill{Fingers: []int{1, 3}}, minutes(3), "Stop when it gets uneven, not when it gets tired.", func(d *drill.Drill) {
		d.Path.Position, d.Path.Strings, d.Path.Stay = 7, []int{3}, drill.Stay{Count: 30, Unit: drill.Seconds}
		d.Attacks.Rule, d.Rhythm.NotesPerBeat, d.Rhythm.Passes = drill.Legato, 4, 1
	})
	return r
}

// allPairs goes through the pairs of fingers in graded order, fifteen seconds each,
// without a stop.
func allPairs(name string) drill.Drill {
	var pairs []drill.Drill
	var seconds []int
	for _, pair := range [][]int{{1, 2}, {2, 3}, {3, 4}, {1, 3}, {1, 4}, {2, 4}} {
		d := drill.New(fmt.Sprintf("%d-%d", pair[0], pair[1]), drill.SlurCombinations{Combinations: [][]int{pair}, Slur: drill.BothSlurs})
		d.Path.Position, d.Path.Strings = 7, []int{4, 3, 2}
		pairs, seconds = append(pairs, d), append(seconds, 15)
	}
	return drill.Joined(name, pairs, seconds)
}
