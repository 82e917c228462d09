package library

import (
	"fmt"

	"manudrill/core/drill"
)

// A ReadySet is a few drills that belong together and ship with Manudrill.
type ReadySet struct {
	ID     string        `json:"id"`
	Name   string        `json:"name"`
	About  string        `json:"about"`
	Drills []drill.Drill `json:"drills"`
}

// ReadySets are all that ship. Each is a way into a technique, easiest first
// and, where the hand has to stretch, from high on the neck downwards.
func ReadySets() []ReadySet {
	return []ReadySet{firstSlurs(), evenPairs(), allOrders(), threeAString(), firstTaps(), bothHandsMeet()}
}

func readyDrill(name string, p drill.Pattern, set func(*drill.Drill)) drill.Drill {
	d := drill.New(name, p)
	if set != nil {
		set(&d)
	}
	return d
}

func firstSlurs() ReadySet {
	set := ReadySet{ID: "firstSlurs", Name: "First slurs", About: "Each pair of fingers by hammer-on, easiest pair first, up where the frets are close."}
	for _, pair := range [][]int{{1, 2}, {2, 3}, {3, 4}, {1, 3}, {1, 4}, {2, 4}} {
		set.Drills = append(set.Drills, readyDrill("Hammer-ons "+drill.Dashed(pair), drill.SlurCombinations{Combinations: [][]int{pair}, Slur: drill.HammerOns}, func(d *drill.Drill) {
			d.Path.Position, d.Path.Strings, d.Path.Back = 9, []int{3, 2, 1}, drill.Returns
		}))
	}
	return set
}

func evenPairs() ReadySet {
	set := ReadySet{ID: "evenPairs", Name: "Even trills", About: "Four beats of each pair, both ways of beginning, to hear which finger lags."}
	for _, pair := range [][]int{{1, 2}, {2, 1}, {2, 3}, {3, 2}, {3, 4}, {4, 3}, {1, 3}, {2, 4}} {
		set.Drills = append(set.Drills, readyDrill("Trill "+drill.Dashed(pair), drill.Trill{Fingers: pair}, func(d *drill.Drill) {
			d.Path.Position, d.Path.Strings, d.Path.Stay = 7, []int{3}, drill.Stay{Count: 4, Unit: drill.Beats}
			d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.Legato, 4
		}))
	}
	return set
}

func allOrders() ReadySet {
	set := ReadySet{ID: "allOrders", Name: "Twenty-four orders", About: "One finger per fret in every order there is, picked, on six strings."}
	for _, order := range drill.FingerOrders() {
		set.Drills = append(set.Drills, readyDrill("Fingers "+drill.Dashed(order), drill.FingerPerFret{Orders: [][]int{order}}, func(d *drill.Drill) {
			d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.AllPicked, 4
		}))
	}
	return set
}

func threeAString() ReadySet {
	set := ReadySet{ID: "threeAString", Name: "Three notes a string", About: "The A major scale from fret 5, three notes a string, picked first as the yardstick, then slurred."}
	for _, a := range []struct {
		name string
		rule drill.AttackRule
	}{{"picked", drill.AllPicked}, {"hammer-ons only", drill.Hammers}, {"pull-offs only", drill.Pulls}, {"legato", drill.Legato}} {
		set.Drills = append(set.Drills, readyDrill("A major, "+a.name, drill.ScaleRun{PerString: []int{3}, Order: drill.Both}, func(d *drill.Drill) {
			d.Key, d.Rhythm.NotesPerBeat, d.Attacks.Rule = key(9, "major"), 3, a.rule
		}))
	}
	return set
}

func firstTaps() ReadySet {
	set := ReadySet{ID: "firstTaps", Name: "First taps", About: "A tapped note over two fretted ones, in both orders and in turn."}
	for _, o := range []struct {
		name  string
		order drill.TapOrder
	}{{"tap, low, middle", drill.TapLowMiddle}, {"tap, middle, low", drill.TapMiddleLow}, {"in turn", drill.TapInTurn}} {
		set.Drills = append(set.Drills, readyDrill("Taps, "+o.name, drill.Tapping{Low: 1, Middle: 3, TapAt: 7, Order: o.order}, func(d *drill.Drill) {
			d.Path.Strings, d.Path.Stay, d.Rhythm.NotesPerBeat = []int{2}, drill.Stay{Count: 4, Unit: drill.Times}, 3
		}))
	}
	return set
}

func bothHandsMeet() ReadySet {
	set := ReadySet{ID: "bothHandsMeet", Name: "Both hands meet", About: "One fretted note among open ones, so that the pick and each finger arrive together."}
	for finger := 1; finger <= 4; finger++ {
		set.Drills = append(set.Drills, readyDrill(fmt.Sprintf("Finger %d and the open string", finger), drill.OpenStrings{Fingers: []int{finger, 0, 0}}, func(d *drill.Drill) {
			d.Path.Strings, d.Path.Stay = []int{1}, drill.Stay{Count: 4, Unit: drill.Times}
			d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.AllPicked, 3
		}))
	}
	return set
}
