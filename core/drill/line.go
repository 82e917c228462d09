package drill

import (
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
)

// A spot is a touch that has found its place on the neck.
type spot struct {
	Touch
	str, fret  int
	part       int  // index of the drill's part
	station    int  // counts the places visited
	startsCell bool // the first note of its cell
	back       bool // on the way back of the path
	slides     bool // reached by the shift's slide
	grip       int  // counts the places the path has carried the hand to
	finger     int
	own        int // the finger that the instructor has set here
	attack     chart.Attack
}

// A line is all notes of a pass in order.
type line []spot

// A layout is what a drill is laid out for.
type layout struct {
	guitar       guitar.Guitar
	hand         guitar.Hand
	notesPerBeat int
	bpm          float64
	toBeat       bool // a part is filled up to the beat
	repeated     bool // the pass begins anew when it ends
}

// layoutFor is what the drill is laid out for: somebody's guitar and hand at a tempo.
func (d Drill) layoutFor(g guitar.Guitar, h guitar.Hand, bpm float64) layout {
	return layout{g, h, d.Rhythm.NotesPerBeat, bpm, len(d.Then) > 0, d.Rhythm.Passes > 1}
}

// lay places every note of a pass, part after part, and gives it finger and attack. All
// notes must lie on the neck.
func (d Drill) lay(by layout) (line, error) {
	whole, err := d.places(by)
	if err != nil {
		return nil, err
	}
	parts := d.Parts()
	for from := 0; from < len(whole); {
		to := from
		for to < len(whole) && whole[to].part == whole[from].part {
			to++
		}
		p := parts[whole[from].part]
		p.Fingering.assign(whole[from:to], by, p.Attacks.Rule)
		p.Attacks.assign(whole[from:to], d.Rhythm.NotesPerBeat*d.Rhythm.BeatsPerBar)
		from = to
	}
	return whole, nil
}

// places are the places of every note of a pass, part after part. Frets may lie off the
// neck. The drill's settings must have been checked.
func (d Drill) places(by layout) (line, error) {
	var whole line
	for i, p := range d.Parts() {
		l, err := p.lay(by)
		if err != nil {
			return nil, err
		}
		if i == len(d.Then) {
			l = d.Rhythm.close(l)
		}
		stations := 0
		if len(whole) > 0 {
			stations = whole[len(whole)-1].station + 1
		}
		for n := range l {
			l[n].part, l[n].station = i, l[n].station+stations
		}
		whole = append(whole, l...)
		if len(whole) > chart.MaxNotes {
			break // Check refuses it
		}
	}
	return whole, nil
}

// NotesAt is how many notes a pass has at a tempo on g; 0 for a drill with faults.
func (d Drill) NotesAt(g guitar.Guitar, bpm float64) int {
	n, by := 0, d.layoutFor(g, guitar.UsualHand(), bpm)
	for _, p := range d.Parts() {
		l, err := p.lay(by)
		if err != nil || len(l) == 0 {
			return 0
		}
		n += len(l)
	}
	return max(1, n+d.Rhythm.Close)
}

// lay places every note of a part, before fingers and attacks.
func (p Part) lay(by layout) (line, error) {
	cells, err := p.cells()
	if err != nil {
		return nil, err
	}
	repeated := by.repeated && !by.toBeat || p.For != nil
	stations := p.Path.stations(stringsOf(cells), repeated)
	var l line
	for _, visit := range p.tour(cells, stations) {
		l = p.play(l, visit.cell, visit.station, by)
		if len(l) > chart.MaxNotes {
			break // Check refuses it
		}
	}
	if n := len(l); repeated && p.Path.Back == Mirrored && p.Path.Turn != TurnAgain && p.Path.turns() && n > 2 && l[n-1].samePlace(l[0]) {
		l = l[:n-1] // where it begins anew the note comes once
	}
	if p.Reverse {
		slices.Reverse(l)
		startCells(l)
	}
	return p.filled(l, by), nil
}

// filled is a part for as long as it is to last, and up to the beat where another
// follows: its notes again from the first, or as many as are left of them.
func (p Part) filled(once line, by layout) line {
	if len(once) == 0 {
		return once
	}
	n := len(once)
	if p.For != nil {
		n = p.For.notes(len(once), by)
	}
	if over := n % by.notesPerBeat; by.toBeat && over > 0 {
		n += by.notesPerBeat - over
	}
	l := make(line, 0, n)
	last := once[len(once)-1]
	stations, grips := last.station+1, last.grip
	if last.grip > 0 {
		grips++ // the hand goes back to where it began
	}
	for i := range n {
		s := once[i%len(once)]
		s.station += i / len(once) * stations
		s.grip += i / len(once) * grips
		l = append(l, s)
	}
	return l
}

// cells returns the pattern's cells, turned over where asked.
func (p Part) cells() ([]Cell, error) {
	cells, err := p.Pattern.Cells(p.Path)
	if err == nil && p.Mirror {
		cells = mirrored(cells)
	}
	return cells, err
}

// A visit is a cell at a station.
type visit struct {
	cell    Cell
	station station
}

// tour brings cells and stations together: each cell all the way before the
// next, or all cells at one station before the next. Where the path shifts with
// each cell, the cells take turns.
func (p Part) tour(cells []Cell, stations []station) []visit {
	var out []visit
	if p.Path.Together {
		for _, s := range stations {
			for _, c := range inDirection(cells, s.reversed) {
				out = append(out, visit{c, s})
			}
		}
		return out
	}
	for _, c := range cells {
		for _, s := range stations {
			out = append(out, visit{c, s})
		}
	}
	return out
}

func inDirection(cells []Cell, reversed bool) []Cell {
	if !reversed {
		return cells
	}
	back := slices.Clone(cells)
	slices.Reverse(back)
	return back
}

// play adds one visit to the line.
func (p Part) play(l line, cell Cell, s station, by layout) line {
	if s.reversed {
		cell = slices.Clone(cell)
		slices.Reverse(cell)
	}
	cell = p.inStrings(cell, s, by.guitar)
	touches, starts := p.Path.Stay.fill(cell, by)
	number, grip := 0, 0
	if len(l) > 0 {
		number, grip = l[len(l)-1].station+1, l[len(l)-1].grip
	}
	if s.shifted {
		grip++
	}
	for i, t := range touches {
		str := s.str(t)
		next := spot{Touch: t, str: str, fret: p.fret(by.guitar, t, s, str), station: number, back: s.back, grip: grip, startsCell: starts[i]}
		if i == 0 {
			if s.turn && len(l) > 0 && l[len(l)-1].samePlace(next) {
				continue
			}
			next.slides = s.shifted && p.Path.Shift.Slide
		}
		l = append(l, next)
	}
	return l
}

// str is the string of the guitar a touch lies on at a station.
func (s station) str(t Touch) int {
	if t.Extra != 0 {
		return t.Extra
	}
	return s.strings[t.String]
}

// inStrings is the cell with the notes of each string played the way the path says.
func (p Part) inStrings(c Cell, s station, g guitar.Guitar) Cell {
	if p.Path.Within == AsTheyCome {
		return c
	}
	fret := func(t Touch) int { return p.fret(g, t, s, s.str(t)) }
	var out Cell
	for from := 0; from < len(c); {
		to := from
		for to < len(c) && s.str(c[to]) == s.str(c[from]) {
			to++
		}
		up := slices.Clone(c[from:to])
		slices.SortStableFunc(up, func(a, b Touch) int { return fret(a) - fret(b) })
		down := slices.Clone(up)
		slices.Reverse(down)
		switch p.Path.Within {
		case WithinUp:
			out = append(out, up...)
		case WithinDown:
			out = append(out, down...)
		case WithinBoth:
			if p.Path.Turn != TurnAgain {
				down = down[1:]
			}
			out = append(append(out, up...), down...)
		}
		from = to
	}
	return out
}

func (s spot) samePlace(o spot) bool {
	return s.str == o.str && s.fret == o.fret && s.Hand == o.Hand
}

// fret is where a touch lies on its string at a station.
func (p Part) fret(g guitar.Guitar, t Touch, s station, str int) int {
	switch t.At.On {
	case ByHand:
		return p.Path.Position + s.shift + t.At.Steps
	case AtFret:
		return t.At.Steps + s.shift
	case InKey:
		first := p.Key.DegreeFrom(g.Sound(s.strings[0], p.Path.Position))
		if p.Path.FromRoot {
			first = p.Key.RootFrom(first)
		}
		return p.Key.Degree(first+s.shift+t.At.Steps) - g.Sound(str, 0)
	}
	return 0
}

// startCells marks where cells start in a line that has been reversed: where
// their ends were.
func startCells(l line) {
	starts := make([]bool, len(l))
	for i := range l {
		// l[i-1] was the note after l[i].
		starts[i] = i == 0 || l[i-1].startsCell
	}
	for i := range l {
		l[i].startsCell = starts[i]
	}
}
