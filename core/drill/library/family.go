package library

import (
	"slices"

	"manudrill/core/drill"
	"manudrill/core/guitar"
)

// A Family is a kind of drill instructors know by a name, with a drill to start
// from.
type Family struct {
	ID    string      `json:"id"`
	Group string      `json:"group"` // families that belong together on the bench
	Name  string      `json:"name"`
	About string      `json:"about"`
	Drill drill.Drill `json:"drill"`
}

// family returns a family with a drill made from plain settings.
func family(id, group, name, about string, p drill.Pattern, set func(*drill.Drill)) Family {
	d := drill.New(name, p)
	if set != nil {
		set(&d)
	}
	return Family{id, group, name, about, d}
}

func key(root int, scale string) *guitar.Key { return &guitar.Key{Root: root, Scale: scale} }

// Families returns all families with fresh drills.
func Families() []Family {
	return slices.Concat(fingerFamilies(), scaleFamilies(), tapFamilies(), shapeFamilies())
}

func fingerFamilies() []Family {
	const group = "Fingers"
	return []Family{
		family("slurs", group, "Finger slurs", "Each combination of fingers by hammer-on, pull-off or both, across the strings.",
			drill.SlurCombinations{Combinations: [][]int{{1, 2}}, Slur: drill.HammerOns}, func(d *drill.Drill) {
				d.Path.Position, d.Path.Back = 7, drill.Returns
			}),
		family("trill", group, "Trill", "Two fingers, or a finger and the open string, for some beats or seconds.",
			drill.Trill{Fingers: []int{1, 3}}, func(d *drill.Drill) {
				d.Path.Position, d.Path.Strings, d.Path.Stay = 7, []int{3}, drill.Stay{Count: 4, Unit: drill.Beats}
				d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.Legato, 4
			}),
		family("fingerPerFret", group, "One finger per fret", "The fingers in order on each string, every note picked.",
			drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}}, func(d *drill.Drill) {
				d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.AllPicked, 4
			}),
		family("diagonal", group, "Diagonal", "One note a string, the hand moving on with each cell and home again as a mirror.",
			drill.Diagonal{Orders: [][]int{{1, 2, 3, 4}}}, func(d *drill.Drill) {
				d.Path.Strings, d.Path.Back = []int{5, 4, 3, 2}, drill.Mirrored
				d.Path.Shift = drill.Shift{By: 1, Each: drill.EachCell, Count: 4, Home: true}
				d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.AllPicked, 4
			}),
		family("stringPair", group, "Widening strings", "A cell over two strings that move apart from neighbours to the outermost.",
			drill.StringPair{Orders: [][]int{{1, 3, 2, 4}, {3, 1, 4, 2}}}, func(d *drill.Drill) {
				d.Path.Spread, d.Path.Together = drill.Widening, true
				d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.AllPicked, 4
			}),
		family("openStrings", group, "Open string sync", "Fretted notes among open ones, for both hands to meet.",
			drill.OpenStrings{Fingers: []int{1, 0, 0, 2, 0, 0, 3, 0, 0, 4, 0, 0}}, func(d *drill.Drill) {
				d.Path.Strings, d.Attacks.Rule, d.Rhythm.NotesPerBeat = []int{1}, drill.AllPicked, 3
			}),
	}
}

func scaleFamilies() []Family {
	const group = "Scales and chords"
	return []Family{
		family("scaleRun", group, "Scale run", "A scale with so many notes a string, slurred or picked, whole or in groups.",
			drill.ScaleRun{PerString: []int{3}, Order: drill.Both}, func(d *drill.Drill) {
				d.Key, d.Path.FromRoot = key(9, "major"), true
				d.Rhythm.NotesPerBeat = 3
			}),
		family("mixedRun", group, "Mixed run", "So many slurred notes on one string, so many picked on the next.",
			drill.MixedRun{Slurred: 3, Picked: 3, Order: drill.Both}, func(d *drill.Drill) {
				d.Key, d.Path.FromRoot, d.Rhythm.NotesPerBeat = key(9, "naturalMinor"), true, 4
			}),
		family("slurInTurn", group, "One slur, three strokes", "One slur and three picked notes in turn, in triplets, there and back.",
			drill.ScaleRun{PerString: []int{2}, Order: drill.Both}, func(d *drill.Drill) {
				d.Key, d.Path.FromRoot, d.Rhythm.NotesPerBeat = key(9, "minorPentatonic"), true, 3
				d.Attacks = drill.Attacks{Rule: drill.InTurn, Cycle: []bool{false, true, false, false}}
			}),
		family("oneString", group, "Along one string", "The open string and notes of the key, carried through its degrees on one string.",
			drill.OneString{Steps: []int{-1, 0, 1}}, func(d *drill.Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(4, "naturalMinor"), 3
				d.Path.Position, d.Path.Strings = 2, []int{1}
				d.Path.Shift = drill.Shift{By: 1, Each: drill.EachCell, Count: 6, Home: true}
				d.Path.Back = drill.Returns
			}),
		family("skipArpeggio", group, "String-skipping arpeggio", "Three notes on a string, skip one, three more, and the note that closes the cycle.",
			drill.SkipArpeggio{PerString: 3, Extra: 1, Order: drill.Both}, func(d *drill.Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(9, "minor7"), 6
				d.Path.Position, d.Path.Strings = 12, []int{3, 1}
			}),
		family("triad", group, "Small triads", "A triad over three strings, carried through the degrees of the key.",
			drill.Triad{Voices: []int{0, 1, 2}, Order: drill.Up}, func(d *drill.Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(7, "major"), 3
				d.Path.Strings, d.Attacks.Rule = []int{3, 2, 1}, drill.AllPicked
				d.Path.Shift = drill.Shift{By: 1, Each: drill.EachCell, Count: 7}
			}),
	}
}

func tapFamilies() []Family {
	const group = "Both hands"
	return []Family{
		family("tapping", group, "Tapping", "Tap, low, middle, or tap, middle, low, on one string.",
			drill.Tapping{Low: 1, Middle: 4, TapAt: 7, Order: drill.TapLowMiddle}, func(d *drill.Drill) {
				d.Path.Strings, d.Path.Stay, d.Rhythm.NotesPerBeat = []int{2}, drill.Stay{Count: 4, Unit: drill.Times}, 3
			}),
		family("tappedRun", group, "Tapped scale run", "A scale with no string picked: each begins with a hammer-on from nowhere, its top note is tapped.",
			drill.ScaleRun{PerString: []int{4}, Order: drill.Up, TopTapped: true}, func(d *drill.Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(9, "naturalMinor"), 4
				d.Path.Strings, d.Attacks.Rule = []int{6, 5, 4, 3}, drill.NoPluck
			}),
		family("heldBend", group, "Taps over a held bend", "Taps while the string is held bent: what sounds lies above the frets shown.",
			drill.Tapping{Low: 1, Middle: 3, TapAt: 7, Order: drill.TapMiddleLow}, func(d *drill.Drill) {
				d.Path.Position, d.Path.Strings, d.Path.Stay = 7, []int{2}, drill.Stay{Count: 4, Unit: drill.Times}
				d.Rhythm.NotesPerBeat, d.Fingering.BendHeld = 3, 2
			}),
		family("bentTaps", group, "Taps over one bent note", "A note is bent and held while one fret after another is tapped above it.",
			drill.BentTaps{Finger: 3, Taps: []int{12, 14, 15}, Between: true, Measured: drill.Measured{AtFrets: true}}, func(d *drill.Drill) {
				d.Path.Position, d.Path.Strings, d.Path.Stay = 5, []int{2}, drill.Stay{Count: 4, Unit: drill.Times}
				d.Rhythm.NotesPerBeat, d.Fingering.BendHeld = 3, 2
			}),
		family("twoHands", group, "Two-hand arpeggio", "On each string one fretted and one tapped note; one hand moves against the other.",
			drill.TwoHands{Fretted: []int{0, 0}, Tapped: []int{7, 8}, Moves: []drill.TwoMove{{Fretting: 0, Tapping: 0}, {Fretting: 0, Tapping: 2}}}, func(d *drill.Drill) {
				d.Path.Spread, d.Path.Groups = drill.OwnGroups, [][]int{{4, 3}, {3, 2}, {2, 1}, {3, 2}}
				d.Attacks.Rule, d.Rhythm.NotesPerBeat, d.Rhythm.BeatsPerBar = drill.NoPluck, 2, 4
				d.Path.Together = false
			}),
	}
}

func shapeFamilies() []Family {
	const group = "Shapes"
	return []Family{
		family("twoStringShape", group, "Two-string shape", "A shape on two strings played up, down, both ways, or as a cascade.",
			drill.TwoStringShape{Lower: []int{0, 2, 4}, Higher: []int{0, 2, 4}, Order: drill.Both}, func(d *drill.Drill) {
				d.Path.Position, d.Path.Strings = 7, []int{2, 1}
				d.Path.Stay, d.Rhythm.NotesPerBeat = drill.Stay{Count: 15, Unit: drill.Seconds}, 4
			}),
		family("oneByOne", group, "Finger by finger", "One note after another, the lowest first, goes down a string; then they come back up.",
			drill.TwoStringShape{Lower: []int{0, 1, 2, 3}, Higher: []int{0, 1, 2, 3}, Order: drill.OneByOne}, func(d *drill.Drill) {
				d.Path.Strings, d.Attacks.Rule, d.Rhythm.NotesPerBeat = []int{2, 1}, drill.AllPicked, 4
			}),
		family("chordShape", group, "Leaping finger", "One note a string of a chord shape while one finger leaps.",
			drill.ChordShape{Shape: []drill.Held{{Finger: 3, Fret: 2}, {Finger: 2, Fret: 1}, {Finger: 1, Fret: 0}}, Leaper: 3, Leaps: []drill.Leapt{{String: 1, Fret: 3}, {String: 2, Fret: 3}}}, func(d *drill.Drill) {
				d.Path.Strings, d.Attacks.Rule, d.Rhythm.NotesPerBeat = []int{4, 3, 2}, drill.AllPicked, 3
			}),
		family("free", group, "Your own notes", "Click notes on the neck or type tab; the cell is carried about like any other.",
			drill.Free{Notes: []drill.FreeNote{{String: 3, Fret: 5}, {String: 3, Fret: 7}, {String: 2, Fret: 5}, {String: 2, Fret: 8}}}, func(d *drill.Drill) {
				d.Path.Strings, d.Rhythm.NotesPerBeat = []int{3, 2}, 4
			}),
	}
}
