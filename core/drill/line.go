package drill

import (
	"slices"

	"manudrill/core/guitar"
)

// A spot is a touch that has found its place on the neck.
type spot struct {
	Touch
	str, fret  int
	part       int  // index of the drill's part
	station    int  // counts the places visited
	startsCell bool // the first note of its cell
	slides     bool // reached by the shift's slide
	finger     int
	attack     Attack
}

// A line is all notes of a pass in order.
type line []spot

// A length turns stays into notes.
type length struct {
	notesPerBeat int
	bpm          float64
	toBeat       bool // a part is filled up to the beat
}

// lengthAt is how stays and parts are filled at a tempo.
func (d Drill) lengthAt(bpm float64) length {
	return length{d.Rhythm.NotesPerBeat, bpm, len(d.Then) > 0}
}

// lay places every note of a pass, part after part. Frets may lie off the neck. The
// drill's settings must have been checked.
func (d Drill) lay(g guitar.Guitar, bpm float64) (line, error) {
	var whole line
	for i, p := range d.Parts() {
		l, err := p.lay(g, d.lengthAt(bpm))
		if err != nil {
			return nil, err
		}
		if i == len(d.Then) {
			l = d.Rhythm.close(l)
		}
		p.Fingering.assign(l)
		p.Attacks.assign(l)
		stations := 0
		if len(whole) > 0 {
			stations = whole[len(whole)-1].station + 1
		}
		for n := range l {
			l[n].part, l[n].station = i, l[n].station+stations
		}
		whole = append(whole, l...)
		if len(whole) > MaxNotes {
			break // Check refuses it
		}
	}
	return whole, nil
}

// NotesAt is how many notes a pass has at a tempo on g; 0 for a drill with faults.
func (d Drill) NotesAt(g guitar.Guitar, bpm float64) int {
	n := 0
	for _, p := range d.Parts() {
		l, err := p.lay(g, d.lengthAt(bpm))
		if err != nil || len(l) == 0 {
			return 0
		}
		n += len(l)
	}
	return max(1, n+d.Rhythm.Close)
}

// lay places every note of a part, before fingers and attacks.
func (p Part) lay(g guitar.Guitar, by length) (line, error) {
	cells, err := p.cells()
	if err != nil {
		return nil, err
	}
	stations := p.Path.stations(stringsOf(cells))
	var l line
	for _, visit := range p.tour(cells, stations) {
		l = p.play(l, g, visit.cell, visit.station, by)
		if len(l) > MaxNotes {
			break // Check refuses it
		}
	}
	if p.Reverse {
		slices.Reverse(l)
		startCells(l)
	}
	return p.filled(l, by), nil
}

// filled is a part for as long as it is to last, and up to the beat where another
// follows: its notes again from the first, or as many as are left of them.
func (p Part) filled(once line, by length) line {
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
	stations := once[len(once)-1].station + 1
	for i := range n {
		s := once[i%len(once)]
		s.station += i / len(once) * stations
		l = append(l, s)
	}
	return l
}

// cells returns the pattern's cells, turned over where asked.
func (p Part) cells() ([]Cell, error) {
	cells, err := p.Pattern.Cells(len(p.Path.Strings))
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
func (p Part) play(l line, g guitar.Guitar, cell Cell, s station, by length) line {
	if s.reversed {
		cell = slices.Clone(cell)
		slices.Reverse(cell)
	}
	touches, starts := p.Path.Stay.fill(cell, by)
	number := 0
	if len(l) > 0 {
		number = l[len(l)-1].station + 1
	}
	for i, t := range touches {
		str := s.strings[t.String]
		next := spot{Touch: t, str: str, fret: p.fret(g, t, s, str), station: number, startsCell: starts[i]}
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

func (s spot) samePlace(o spot) bool {
	return s.str == o.str && s.fret == o.fret && s.Hand == o.Hand
}

// fret is where a touch lies on its string at a station.
func (p Part) fret(g guitar.Guitar, t Touch, s station, str int) int {
	switch t.At.On {
	case ByHand:
		return p.Path.Position + s.shift + t.At.Steps
	case InKey:
		first := p.Key.DegreeFrom(g.Sound(s.strings[0], p.Path.Position))
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
