package drill

import (
	"math"
	"slices"

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
	turn     bool // the path has just turned: a note doubled here is left out
	shifted  bool // the hand has moved since the station before
}

func (p Path) check(g guitar.Guitar, faults *Faults) {
	if p.Position < 1 || p.Position > guitar.MaxFrets {
		faults.Add("path.position", "The position is %d; the first finger can play fret 1 at the lowest.", p.Position)
	}
	if len(p.Strings) == 0 {
		faults.Add("path.strings", "Choose at least one string.")
	}
	used := slices.Clone(p.Strings)
	if p.Spread == OwnGroups {
		used = append(used, slices.Concat(p.Groups...)...)
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

// stations returns every place in the order visited.
func (p Path) stations(width int) []station {
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
	for i := 1; i < len(out); i++ {
		out[i].shifted = out[i].shift != out[i-1].shift
	}
	return out
}

// visit returns the stations of the i-th position.
func (p Path) visit(groups [][]int, i int) []station {
	shift := i * p.Shift.By
	if p.Shift.comes(EachCell) {
		return []station{{strings: zigzag(groups, i, p.Back != OneWay), shift: shift}}
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
				leg[s].reversed = p.Back == Mirrored
			}
		}
		return leg
	}
	return append(leg, p.wayBack(leg)...)
}

// wayBack retraces stations. As a mirror every cell is reversed, the turning
// one too; else the turning one is not played again.
func (p Path) wayBack(there []station) []station {
	back := slices.Clone(there)
	slices.Reverse(back)
	if p.Back != Mirrored {
		return back[1:]
	}
	for i := range back {
		back[i].reversed = !back[i].reversed
		back[i].turn = i == 0
	}
	return back
}

// zigzag walks a list again and again, from end to end and back where asked.
func zigzag(groups [][]int, i int, back bool) []int {
	n := len(groups)
	if !back || n == 1 {
		return groups[i%n]
	}
	i %= 2 * (n - 1)
	if i >= n {
		i = 2*(n-1) - i
	}
	return groups[i]
}

// notes is how many notes a stay has of a run of so many: beats and seconds are filled
// to the note, seconds rounded to whole beats, one at least.
func (s Stay) notes(run int, by length) int {
	n := s.Count * run
	switch s.Unit {
	case Beats:
		n = s.Count * by.notesPerBeat
	case Seconds:
		n = max(1, int(math.Round(float64(s.Count)*by.bpm/60))) * by.notesPerBeat
	}
	return min(n, MaxNotes+1) // so much is refused anyway
}

// fill repeats a cell for the length of the stay.
func (s Stay) fill(c Cell, by length) (notes Cell, cellStarts []bool) {
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
	d.Path.Position = position
	d.Then = slices.Clone(d.Then)
	for i := range d.Then {
		d.Then[i].Path.Position += by
	}
	return d
}
