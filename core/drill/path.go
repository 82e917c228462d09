package drill

import (
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
)

// Bounds on what a path may ask for.
const (
	MaxStay   = 240 // times, beats or seconds at one place
	MaxGroups = 64
)

// A Path carries cells over the strings and along the neck.
type Path struct {
	Position int     `json:"position"` // the fret under the first finger
	Strings  []int   `json:"strings"`  // in the order they are visited
	Spread   Spread  `json:"spread"`
	Groups   [][]int `json:"groups,omitempty"` // of OwnGroups
	Back     Back    `json:"back"`
	Turn     Turn    `json:"turn,omitempty"`     // what becomes of the turning note
	Within   Within  `json:"within,omitempty"`   // which way each string is played
	FromRoot bool    `json:"fromRoot,omitempty"` // what lies in a key begins on its root
	Stay     Stay    `json:"stay"`
	Shift    Shift   `json:"shift"`
	Together bool    `json:"together"` // all cells at one place before the next; else each cell all the way first
}

// Spread says which strings a cell over several strings meets next.
type Spread string

// Spreads: the next neighbours; one string stays and the other moves away; both
// move apart from the middle; or groups of one's own.
const (
	Neighbours Spread = "neighbours"
	Widening   Spread = "widening"
	Opening    Spread = "opening"
	OwnGroups  Spread = "own"
)

// Back says how the path returns.
type Back string

// Not at all; over the same places, each cell as it is and the turning one
// once; or as a mirror, note for note.
const (
	OneWay   Back = "none"
	Returns  Back = "return"
	Mirrored Back = "mirror"
)

// Turn says what becomes of the note, or the place, at which a drill turns round, there and
// where it begins anew.
type Turn string

// Played once, or again.
const (
	TurnOnce  Turn = ""
	TurnAgain Turn = "again"
)

// Within says which way the notes of a cell on one string are played, whichever way the
// cell goes from string to string.
type Within string

// As the pattern has them; up, down; or up and down again.
const (
	AsTheyCome Within = ""
	WithinUp   Within = "up"
	WithinDown Within = "down"
	WithinBoth Within = "both"
)

// A Stay is how long a cell is played at one place.
type Stay struct {
	Count int    `json:"count"`
	Unit  string `json:"unit"` // "times", "beats" or "seconds"
}

// Units of a stay.
const (
	Times   = "times"
	Beats   = "beats"
	Seconds = "seconds"
)

// A Shift moves the hand along the neck: by frets, or by degrees of the key.
type Shift struct {
	By    int    `json:"by"`    // 0 is none; negative goes down the neck
	Each  string `json:"each"`  // "cell", "leg" (at each far string) or "round" (at the first string again)
	Count int    `json:"count"` // how many shifts before turning round or ending
	Home  bool   `json:"home"`  // and back to the first position
	Slide bool   `json:"slide"` // the first note after a shift is reached by a slide
}

// When a shift happens.
const (
	EachCell  = "cell"
	EachLeg   = "leg"
	EachRound = "round"
)

// A station is one place a cell is played at.
type station struct {
	strings  []int
	shift    int
	reversed bool
	back     bool // on the way back
	turn     bool // the path has just turned: a note doubled here is left out
	shifted  bool // the hand has moved since the station before
}

func (p Path) check(g guitar.Guitar, faults *Faults) {
	if p.Position < 1 || p.Position > guitar.MaxFrets {
		faults.Add("path.position", "The position is %d; the first finger can play fret 1 at the lowest.", p.Position)
	}
	used := p.Strings
	if p.Spread != OwnGroups && len(used) == 0 {
		faults.Add("path.strings", "Choose at least one string.")
	}
	if p.Spread == OwnGroups {
		used = slices.Concat(p.Groups...)
		if len(p.Groups) == 0 || len(p.Groups) > MaxGroups {
			faults.Add("path.groups", "Give 1 to %d groups of strings, such as 4 3, 3 2.", MaxGroups)
		}
	}
	for _, s := range used {
		if !g.HasString(s) {
			faults.Add("path.strings", "There is no string %d on this guitar; it has strings 1 to %d.", s, len(g.Tuning))
			break
		}
	}
	if !slices.Contains([]Spread{Neighbours, Widening, Opening, OwnGroups}, p.Spread) {
		faults.Add("path.strings", "The spread is %q; choose neighbours, widening, opening or own.", p.Spread)
	}
	if !slices.Contains([]Back{OneWay, Returns, Mirrored}, p.Back) {
		faults.Add("path.back", "The way back is %q; choose none, return or mirror.", p.Back)
	}
	if !slices.Contains([]Turn{TurnOnce, TurnAgain}, p.Turn) {
		faults.Add("path.turn", "The turning note is played once, or %q, not %q.", TurnAgain, p.Turn)
	}
	if !slices.Contains([]Within{AsTheyCome, WithinUp, WithinDown, WithinBoth}, p.Within) {
		faults.Add("path.within", "Within a string it goes up, down or both ways, not %q.", p.Within)
	}
	p.Stay.checkAs("path.stay", "each cell", faults)
	p.Shift.check(faults)
}

// checkAs looks at how long something is played, which is set in a field.
func (s Stay) checkAs(field, what string, faults *Faults) {
	if s.Count < 1 || s.Count > MaxStay {
		faults.Add(field, "Play %s 1 to %d times, beats or seconds, not %d.", what, MaxStay, s.Count)
	}
	if !slices.Contains([]string{Times, Beats, Seconds}, s.Unit) {
		faults.Add(field, "Play %s so many times, beats or seconds, not %q.", what, s.Unit)
	}
}

func (s Shift) check(faults *Faults) {
	if !slices.Contains([]string{EachCell, EachLeg, EachRound}, s.Each) {
		faults.Add("path.shift", "A shift comes each cell, leg or round, not each %q.", s.Each)
	}
	if s.Count < 0 || s.Count > guitar.MaxFrets || s.By < -guitar.MaxFrets || s.By > guitar.MaxFrets {
		faults.Add("path.shift", "Shift by at most %d, at most %d times.", guitar.MaxFrets, guitar.MaxFrets)
	}
}

// times is how often the hand really moves.
func (s Shift) times() int {
	if s.By == 0 {
		return 0
	}
	return s.Count
}

// comes reports whether the hand moves at such moments.
func (s Shift) comes(each string) bool { return s.times() > 0 && s.Each == each }

// first are the strings that a cell over all of them lies on: those of the path, or the
// first group where it has groups of its own.
func (p Path) first() []int {
	if p.Spread == OwnGroups && len(p.Groups) > 0 {
		return p.Groups[0]
	}
	return p.Strings
}

// groups returns the sets of strings a cell of so many strings is played on.
func (p Path) groups(width int) [][]int {
	if p.Spread == OwnGroups {
		return p.Groups
	}
	n := len(p.Strings)
	var out [][]int
	switch {
	case width > n:
	case width == 2 && p.Spread == Widening:
		for far := 1; far < n; far++ {
			out = append(out, []int{p.Strings[0], p.Strings[far]})
		}
	case width == 2 && p.Spread == Opening:
		for low := n/2 - 1; low >= 0; low-- {
			out = append(out, []int{p.Strings[low], p.Strings[n-1-low]})
		}
	default:
		for at := 0; at+width <= n; at++ {
			out = append(out, p.Strings[at:at+width])
		}
	}
	return out
}

// stations returns every place in the order visited. Where it begins anew at its end, the
// first is not its last too, unless the turning ones are played again.
func (p Path) stations(width int, repeated bool) []station {
	groups := p.groups(width)
	if len(groups) == 0 {
		return nil
	}
	var out []station
	for i := range p.Shift.times() + 1 {
		out = append(out, p.visit(groups, i)...)
	}
	if p.Shift.Home && p.Shift.times() > 0 {
		out = append(out, p.wayBack(out)...)
	}
	if n := len(out); n > 2 && repeated && p.Turn != TurnAgain && p.Back != Mirrored && out[n-1].at(out[0]) && p.turns() {
		out = out[:n-1]
	}
	for i := 1; i < len(out); i++ {
		out[i].shifted = out[i].shift != out[i-1].shift
	}
	return out
}

// turns reports whether the path comes back to where it began.
func (p Path) turns() bool {
	return p.Back != OneWay && !p.Shift.comes(EachCell) || p.Shift.Home && p.Shift.times() > 0
}

// at reports whether two stations are one place.
func (s station) at(o station) bool { return s.shift == o.shift && slices.Equal(s.strings, o.strings) }

// visit returns the stations of the i-th position.
func (p Path) visit(groups [][]int, i int) []station {
	shift := i * p.Shift.By
	if p.Shift.comes(EachCell) {
		strings, back := zigzag(groups, i, p.Back != OneWay)
		return []station{{strings: strings, back: back, shift: shift}}
	}
	leg := make([]station, len(groups))
	for g, strings := range groups {
		leg[g] = station{strings: strings, shift: shift}
	}
	if p.Back == OneWay {
		return leg
	}
	if p.Shift.comes(EachLeg) {
		if i%2 == 1 {
			slices.Reverse(leg)
			for s := range leg {
				leg[s].reversed, leg[s].back = p.Back == Mirrored, true
			}
		}
		return leg
	}
	return append(leg, p.wayBack(leg)...)
}

// wayBack retraces stations. As a mirror every cell is reversed, the turning one too; else
// the turning one is played once more only where that is asked for.
func (p Path) wayBack(there []station) []station {
	back := slices.Clone(there)
	slices.Reverse(back)
	for i := range back {
		back[i].back = !back[i].back
	}
	if p.Back != Mirrored {
		if p.Turn == TurnAgain {
			return back
		}
		return back[1:]
	}
	for i := range back {
		back[i].reversed = !back[i].reversed
		back[i].turn = i == 0 && p.Turn != TurnAgain
	}
	return back
}

// zigzag walks a list again and again, from end to end and back where asked, and tells whether
// it is on the way back.
func zigzag(groups [][]int, i int, returns bool) (at []int, back bool) {
	n := len(groups)
	if !returns || n == 1 {
		return groups[i%n], false
	}
	i %= 2 * (n - 1)
	if i >= n {
		return groups[2*(n-1)-i], true
	}
	return groups[i], false
}

// notes is how many notes a stay has of a run of so many: beats and seconds are filled
// to the note, seconds rounded to whole beats, one at least.
func (s Stay) notes(run int, by layout) int {
	n := s.Count * run
	switch s.Unit {
	case Beats:
		n = s.Count * by.notesPerBeat
	case Seconds:
		n = max(1, int(math.Round(float64(s.Count)*by.bpm/60))) * by.notesPerBeat
	}
	return min(n, chart.MaxNotes+1) // so much is refused anyway
}

// fill repeats a cell for the length of the stay.
func (s Stay) fill(c Cell, by layout) (notes Cell, cellStarts []bool) {
	for i := range s.notes(len(c), by) {
		notes = append(notes, c[i%len(c)])
		cellStarts = append(cellStarts, i%len(c) == 0)
	}
	return notes, cellStarts
}

// InPosition returns the drill moved along the neck, so that its first part begins in a
// position and the others as far from it as they were.
func (d Drill) InPosition(position int) Drill {
	by := position - d.Path.Position
	return d.each(func(p Part) Part {
		p.Path.Position += by
		return p.carried(by)
	})
}

// carried moves what a part holds by frets: places of its pattern and fingers set by hand.
func (p Part) carried(frets int) Part {
	p.Pattern = movedPattern(p.Pattern, frets)
	p.Fingering.Own = slices.Clone(p.Fingering.Own)
	for i := range p.Fingering.Own {
		p.Fingering.Own[i].Fret += frets
	}
	return p
}
