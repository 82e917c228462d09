package drill

import (
	"slices"

	"manudrill/core/guitar"
)

// A Family is a kind of drill instructors know by a name, with a drill to start
// from.
type Family struct {
	ID    string `json:"id"`
	Group string `json:"group"` // families that belong together on the bench
	Name  string `json:"name"`
	About string `json:"about"`
	Drill Drill  `json:"drill"`
}

// family returns a family with a drill made from plain settings.
func family(id, group, name, about string, p Pattern, set func(*Drill)) Family {
	d := New(name, p)
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
			SlurCombinations{[][]int{{1, 2}}, HammerOns}, func(d *Drill) {
				d.Path.Position, d.Path.Back = 7, Returns
			}),
		family("trill", group, "Trill", "Two fingers, or a finger and the open string, for some beats or seconds.",
			Trill{[]int{1, 3}}, func(d *Drill) {
				d.Path.Position, d.Path.Strings, d.Path.Stay = 7, []int{3}, Stay{4, Beats}
				d.Attacks.Rule, d.Rhythm.NotesPerBeat = Legato, 4
			}),
		family("fingerPerFret", group, "One finger per fret", "The fingers in order on each string, every note picked.",
			FingerPerFret{[][]int{{1, 2, 3, 4}}}, func(d *Drill) {
				d.Attacks.Rule, d.Rhythm.NotesPerBeat = AllPicked, 4
			}),
		family("diagonal", group, "Diagonal", "One note a string, the hand moving on with each cell and home again as a mirror.",
			Diagonal{[][]int{{1, 2, 3, 4}}}, func(d *Drill) {
				d.Path.Strings, d.Path.Back = []int{5, 4, 3, 2}, Mirrored
				d.Path.Shift = Shift{By: 1, Each: EachCell, Count: 4, Home: true}
				d.Attacks.Rule, d.Rhythm.NotesPerBeat = AllPicked, 4
			}),
		family("stringPair", group, "Widening strings", "A cell over two strings that move apart from neighbours to the outermost.",
			StringPair{[][]int{{1, 3, 2, 4}, {3, 1, 4, 2}}}, func(d *Drill) {
				d.Path.Spread, d.Path.Together = Widening, true
				d.Attacks.Rule, d.Rhythm.NotesPerBeat = AllPicked, 4
			}),
		family("openStrings", group, "Open string sync", "Fretted notes among open ones, for both hands to meet.",
			OpenStrings{[]int{1, 0, 0, 2, 0, 0, 3, 0, 0, 4, 0, 0}}, func(d *Drill) {
				d.Path.Strings, d.Attacks.Rule, d.Rhythm.NotesPerBeat = []int{1}, AllPicked, 3
			}),
	}
}

func scaleFamilies() []Family {
	const group = "Scales and chords"
	return []Family{
		family("scaleRun", group, "Scale run", "A scale with so many notes a string, slurred or picked, whole or in groups.",
			ScaleRun{PerString: []int{3}, Order: Both}, func(d *Drill) {
				d.Key = key(9, "major")
				d.Rhythm.NotesPerBeat = 3
			}),
		family("mixedRun", group, "Mixed run", "So many slurred notes on one string, so many picked on the next.",
			MixedRun{Slurred: 3, Picked: 3, Order: Both}, func(d *Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(9, "naturalMinor"), 4
			}),
		family("slurInTurn", group, "One slur, three strokes", "One slur and three picked notes in turn, in triplets, there and back.",
			ScaleRun{PerString: []int{2}, Order: Both}, func(d *Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(9, "minorPentatonic"), 3
				d.Attacks = Attacks{InTurn, []bool{false, true, false, false}}
			}),
		family("oneString", group, "Along one string", "The open string and notes of the key, carried through its degrees on one string.",
			OneString{[]int{-1, 0, 1}}, func(d *Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(4, "naturalMinor"), 3
				d.Path.Position, d.Path.Strings = 2, []int{1}
				d.Path.Shift = Shift{By: 1, Each: EachCell, Count: 6, Home: true}
				d.Path.Back = Returns
			}),
		family("skipArpeggio", group, "String-skipping arpeggio", "Three notes on a string, skip one, three more, and the note that closes the cycle.",
			SkipArpeggio{3, 1, Both}, func(d *Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(9, "minor7"), 6
				d.Path.Position, d.Path.Strings = 12, []int{3, 1}
			}),
		family("triad", group, "Small triads", "A triad over three strings, carried through the degrees of the key.",
			Triad{[]int{0, 1, 2}, Up}, func(d *Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(7, "major"), 3
				d.Path.Strings, d.Attacks.Rule = []int{3, 2, 1}, AllPicked
				d.Path.Shift = Shift{By: 1, Each: EachCell, Count: 7}
			}),
	}
}

func tapFamilies() []Family {
	const group = "Both hands"
	return []Family{
		family("tapping", group, "Tapping", "Tap, low, middle, or tap, middle, low, on one string.",
			Tapping{1, 4, 7, TapLowMiddle}, func(d *Drill) {
				d.Path.Strings, d.Path.Stay, d.Rhythm.NotesPerBeat = []int{2}, Stay{4, Times}, 3
			}),
		family("tappedRun", group, "Tapped scale run", "A scale with no string picked: each begins with a hammer-on from nowhere, its top note is tapped.",
			ScaleRun{PerString: []int{4}, Order: Up, TopTapped: true}, func(d *Drill) {
				d.Key, d.Rhythm.NotesPerBeat = key(9, "naturalMinor"), 4
				d.Path.Strings, d.Attacks.Rule = []int{6, 5, 4, 3}, NoPluck
			}),
		family("heldBend", group, "Taps over a held bend", "Taps while the string is held bent: what sounds lies above the frets shown.",
			Tapping{1, 3, 7, TapMiddleLow}, func(d *Drill) {
				d.Path.Position, d.Path.Strings, d.Path.Stay = 7, []int{2}, Stay{4, Times}
				d.Rhythm.NotesPerBeat, d.Fingering.BendHeld = 3, 2
			}),
		family("twoHands", group, "Two-hand arpeggio", "On each string one fretted and one tapped note; one hand moves against the other.",
			TwoHands{[]int{0, 0}, []int{7, 8}, []TwoMove{{0, 0}, {0, 2}}}, func(d *Drill) {
				d.Path.Spread, d.Path.Groups = OwnGroups, [][]int{{4, 3}, {3, 2}, {2, 1}, {3, 2}}
				d.Attacks.Rule, d.Rhythm.NotesPerBeat, d.Rhythm.BeatsPerBar = NoPluck, 2, 4
				d.Path.Together = false
			}),
	}
}

func shapeFamilies() []Family {
	const group = "Shapes"
	return []Family{
		family("twoStringShape", group, "Two-string shape", "A shape on two strings played up, down, both ways, or as a cascade.",
			TwoStringShape{[]int{0, 2, 4}, []int{0, 2, 4}, Both}, func(d *Drill) {
				d.Path.Position, d.Path.Strings = 7, []int{2, 1}
				d.Path.Stay, d.Rhythm.NotesPerBeat = Stay{15, Seconds}, 4
			}),
		family("chordShape", group, "Leaping finger", "One note a string of a chord shape while one finger leaps.",
			ChordShape{[]Held{{3, 2}, {2, 1}, {1, 0}}, 3, []Leapt{{1, 3}, {2, 3}}}, func(d *Drill) {
				d.Path.Strings, d.Attacks.Rule, d.Rhythm.NotesPerBeat = []int{4, 3, 2}, AllPicked, 3
			}),
		family("free", group, "Your own notes", "Click notes on the neck or type tab; the cell is carried about like any other.",
			Free{[]FreeNote{{String: 3, Fret: 5}, {String: 3, Fret: 7}, {String: 2, Fret: 5}, {String: 2, Fret: 8}}}, func(d *Drill) {
				d.Path.Strings, d.Rhythm.NotesPerBeat = []int{3, 2}, 4
			}),
	}
}
