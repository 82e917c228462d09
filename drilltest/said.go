package drilltest

import "manudrill/core/drill"

// A SaidDrill is one as an instructor says it.
type SaidDrill struct {
	Said   string
	Family string // that it is begun from on the bench
	Drill  drill.Drill
	Notes  string // as they are written by hand; see [Written]
}

// Within sets which way it goes within a string.
func Within(w drill.Within) Setting { return func(d *drill.Drill) { d.Path.Within = w } }

// FromRoot lets it begin on the root of its key.
func FromRoot(d *drill.Drill) { d.Path.FromRoot = true }

// ThenSlurred repeats its part as it is, but hammered and pulled, without a stop.
func ThenSlurred(d *drill.Drill) {
	again := d.Part
	again.Attacks.Rule = drill.Slurred
	d.Then = append(d.Then, again)
}

// Said are thirty drills in a sentence each, with their notes written by hand before they
// were set (common practice).
func Said() []SaidDrill {
	threes := func(o drill.Order) drill.ScaleRun { return drill.ScaleRun{PerString: []int{3}, Order: o} }
	twos := func(o drill.Order) drill.ScaleRun { return drill.ScaleRun{PerString: []int{2}, Order: o} }
	order := func(fingers ...int) drill.FingerPerFret { return drill.FingerPerFret{Orders: [][]int{fingers}} }
	gMajor, aMinor5 := In(7, "major"), In(9, "minorPentatonic")
	frets := drill.Measured{AtFrets: true}
	picked := Rule(drill.AllPicked)
	return []SaidDrill{
		{"Pull-offs to finger 1, from 2, 3, 4, 3 and 2, at the fifth fret.", "slurs",
			Of(Slurs(drill.PullOffs, []int{2, 1}, []int{3, 1}, []int{4, 1}, []int{3, 1}, []int{2, 1}), At(5, 6), Together),
			"6/6p2 6/5p1 6/7p3 6/5p1 6/8p4 6/5p1 6/7p3 6/5p1 6/6p2 6/5p1"},
		{"One, three, one, four, hammered and pulled as it goes.", "slurs",
			Of(Slurs(drill.AsWritten, []int{1, 3, 1, 4}), At(5, 3)),
			"3/5p1 3/7h3 3/5p1 3/8h4"},
		{"Hammer the first, second and third finger onto the open G string.", "slurs",
			Of(Slurs(drill.HammerOns, []int{0, 1}, []int{0, 2}, []int{0, 3}), At(1, 3), Together),
			"3/0p0 3/1h1 3/0p0 3/2h2 3/0p0 3/3h3"},
		{"Pull the little finger off to the open string, on the third string and the second.", "slurs",
			Of(Slurs(drill.PullOffs, []int{4, 0}), At(5, 3, 2)),
			"3/8p4 3/0p0 2/8p4 2/0p0"},
		{"Second and third finger, a trill at the fifth fret of the second string, one beat of four.", "trill",
			Of(drill.Trill{Fingers: []int{2, 3}}, At(4, 2), Rule(drill.Legato), PerBeat(4), Stay(1, drill.Beats)),
			"2/5p2 2/6h3 2/5p2 2/6h3"},
		{"A trill of one and three, first from the one, then from the other.", "trill",
			Of(drill.Trill{Fingers: []int{1, 3}, Either: true}, At(7, 3), Stay(2, drill.Times)),
			"3/7p1 3/9h3 3/7p1 3/9h3 3/9p3 3/7p1 3/9p3 3/7p1"},
		{"One, two, three, four on the sixth and the fifth string at the fifth fret, every note picked.", "fingerPerFret",
			Of(order(1, 2, 3, 4), At(5, 6, 5), picked),
			"6/5p1 6/6p2 6/7p3 6/8p4 5/5p1 5/6p2 5/7p3 5/8p4"},
		{"Up one, two, three, four, and the next string back as a mirror.", "fingerPerFret",
			Of(order(1, 2, 3, 4), At(5, 2), Back(drill.Mirrored), picked),
			"2/5p1 2/6p2 2/7p3 2/8p4 2/7p3 2/6p2 2/5p1"},
		{"One, three, two, four on the third string, up a fret each time, twice.", "fingerPerFret",
			Of(order(1, 3, 2, 4), At(5, 3), picked, Shift(drill.Shift{By: 1, Each: drill.EachCell, Count: 2})),
			"3/5p1 3/7p3 3/6p2 3/8p4 3/6p1 3/8p3 3/7p2 3/9p4 3/7p1 3/9p3 3/8p2 3/10p4"},
		{"A diagonal from the fifth string, a finger a string.", "diagonal",
			Of(drill.Diagonal{Orders: [][]int{{1, 2, 3, 4}}}, At(5, 5, 4, 3, 2), picked),
			"5/5p1 4/6p2 3/7p3 2/8p4"},
		{"Finger one on the low string, three on the next, two low, four high.", "stringPair",
			Of(drill.StringPair{Orders: [][]int{{1, 3, 2, 4}}}, At(5, 6, 5), picked),
			"6/5p1 5/7p3 6/6p2 5/8p4"},
		{"Finger one, then twice the open string, on the first string.", "openStrings",
			Of(drill.OpenStrings{Fingers: []int{1, 0, 0}}, At(5, 1), picked),
			"1/5p1 1/0p0 1/0p0"},
		{"G major, three a string from the third fret, each string picked once and pulled down.", "scaleRun",
			Of(threes(drill.Up), gMajor, At(3, 6, 5), Within(drill.WithinDown)),
			"6/7p4 6/5p2 6/3p1 5/7p4 5/5p2 5/3p1"},
		{"The same hammered up, from the thin strings to the thick.", "scaleRun",
			Of(threes(drill.Down), gMajor, At(3, 6, 5), Within(drill.WithinUp)),
			"5/3p1 5/5h2 5/7h4 6/3p1 6/5h2 6/7h4"},
		{"G major up and down again on each string.", "scaleRun",
			Of(threes(drill.Up), gMajor, At(3, 6, 5), Within(drill.WithinBoth)),
			"6/3p1 6/5h2 6/7h4 6/5p2 6/3p1 5/3p1 5/5h2 5/7h4 5/5p2 5/3p1"},
		{"C major from its own root.", "scaleRun",
			Of(threes(drill.Up), In(0, "major"), At(5, 6), FromRoot),
			"6/8p1 6/10h2 6/12h4"},
		{"C major in groups of four at the eighth fret.", "scaleRun",
			Of(drill.ScaleRun{PerString: []int{3}, Order: drill.Up, Sequence: drill.Sequence{Length: 4, Advance: 1}}, In(0, "major"), At(8, 6, 5), picked),
			"6/8p1 6/10p2 6/12p4 5/8p1 6/10p2 6/12p4 5/8p1 5/10p2 6/12p4 5/8p1 5/10p2 5/12p4"},
		{"A minor pentatonic at the fifth fret, two a string, the second hammered.", "scaleRun",
			Of(twos(drill.Up), aMinor5, At(5, 6, 5, 4)),
			"6/5p1 6/8h4 5/5p1 5/7h3 4/5p1 4/7h3"},
		{"The same coming down in pull-offs.", "scaleRun",
			Of(twos(drill.Down), aMinor5, At(5, 6, 5)),
			"5/7p3 5/5p1 6/8p4 6/5p1"},
		{"Picked once, then a hammer-on from nowhere on each string.", "scaleRun",
			Of(twos(drill.Up), aMinor5, At(5, 6, 5), Rule(drill.PickOnce)),
			"6/5p1 6/8h4 5/5n1 5/7h3"},
		{"A minor on the first string, up a note, up a note and back, then from the next note of the key.", "oneString",
			Of(drill.OneString{Steps: []int{0, 1, 2, 1}}, In(9, "naturalMinor"), At(5, 1), picked, Shift(drill.Shift{By: 1, Each: drill.EachCell, Count: 1})),
			"1/5p1 1/7p3 1/8p4 1/7p3 1/7p1 1/8p2 1/10p4 1/8p2"},
		{"D minor seven skipping strings, and one note on string 5 that makes ten twelve.", "skipArpeggio",
			Of(drill.SkipArpeggio{PerString: 3, ExtraAt: &drill.Fixed{String: 5, Fret: 8}, Order: drill.Both}, In(2, "minor7"), At(5, 3, 1), Rule(drill.PickOnce)),
			"5/8p4 3/5n1 3/7h2 3/10h4 1/5n1 1/8h3 1/10h4 1/8p3 1/5p1 3/10n4 3/7p2 3/5p1"},
		{"Tap 12 over 5 and 8.", "tapping",
			Of(drill.Tapping{Low: 1, Middle: 4, TapAt: 12, Order: drill.TapLowMiddle, Measured: frets}, At(5, 2)),
			"2/12t2 2/5p1 2/8h4"},
		{"A whole step bent at 7 and held, taps at 12, 14 and 15 over it.", "bentTaps",
			Of(drill.BentTaps{Finger: 3, Taps: []int{12, 14, 15}, Measured: frets}, At(5, 2)),
			"2/7p3 2/12t2 2/14t2 2/15t2"},
		{"The same with the bent note between the taps.", "bentTaps",
			Of(drill.BentTaps{Finger: 3, Taps: []int{12, 14}, Between: true, Measured: frets}, At(5, 2)),
			"2/7p3 2/12t2 2/7p3 2/14t2"},
		{"Shape 7-8-10 on two strings.", "twoStringShape",
			Of(drill.TwoStringShape{Lower: []int{7, 8, 10}, Higher: []int{7, 8, 10}, Order: drill.Up, Measured: frets}, At(3, 2, 1)),
			"2/7p1 2/8h2 2/10h4 1/7p1 1/8h2 1/10h4"},
		{"A shape that begins a fret below the position.", "twoStringShape",
			Of(drill.TwoStringShape{Lower: []int{-1, 0, 2}, Higher: []int{0, 2}, Order: drill.Up}, At(7, 2, 1)),
			"2/6p1 2/7h2 2/9h4 1/7p2 1/9h4"},
		{"One note after another, lowest first, goes down a string and comes back up.", "oneByOne",
			Of(drill.TwoStringShape{Lower: []int{0, 2}, Higher: []int{0, 2}, Order: drill.OneByOne}, At(7, 2, 1), picked),
			"1/7p1 1/9p3 2/7p1 1/9p3 2/7p1 2/9p3 2/7p1 1/9p3"},
		{"A chord at 5, 6 and 8, a finger a string, note by note; then with the little finger two strings lower.", "chordShape",
			Of(drill.ChordShape{Shape: []drill.Held{{Finger: 1, Fret: 0}, {Finger: 2, Fret: 1}, {Finger: 4, Fret: 3}}, Leaper: 4, Leaps: []drill.Leapt{{String: 0, Fret: 3}}}, At(5, 4, 3, 2), picked),
			"4/5p1 3/6p2 2/8p4 4/5p1 3/6p2 4/8p4"},
		{"One, two, four in triplets on the third string, picked, then the same slurred, without a stop.", "fingerPerFret",
			Of(order(1, 2, 4), At(5, 3), picked, PerBeat(3), ThenSlurred),
			"3/5p1 3/6p2 3/8p4 3/5p1 3/6h2 3/8h4"},
	}
}
