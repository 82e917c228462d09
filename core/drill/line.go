package drill

import (
	"slices"

	"manudrill/core/guitar"
)

// A spot is a touch that has found its place on the neck.
type spot struct {
	Touch
	str, fret  int
	station    int  // counts the places visited
	startsCell bool // the first note of its cell
	slides     bool // reached by the shift's slide
	finger     int
	attack     Attack
}

// A line is all notes of a pass in order.
type line []spot

// lay places every note of a pass. Frets may lie off the neck. The drill's
// settings must have been checked.
func (d Drill) lay(g guitar.Guitar, bpm float64) (line, error) {
	cells, err := d.cells()
	if err != nil {
		return nil, err
	}
	stations := d.Path.stations(stringsOf(cells))
	var l line
	for _, visit := range d.tour(cells, stations) {
		l = d.play(l, g, visit.cell, visit.station, bpm)
		if len(l) > MaxNotes {
			break // Check refuses it
		}
	}
	if d.Reverse {
		slices.Reverse(l)
		startCells(l)
	}
	l = d.Rhythm.close(l)
	d.Fingering.assign(l)
	d.Attacks.assign(l)
	return l, nil
}

// cells returns the pattern's cells, turned over where asked.
func (d Drill) cells() ([]Cell, error) {
	cells, err := d.Pattern.Cells(len(d.Path.Strings))
	if err == nil && d.Mirror {
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
func (d Drill) tour(cells []Cell, stations []station) []visit {
	var out []visit
	if d.Path.Together {
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
func (d Drill) play(l line, g guitar.Guitar, cell Cell, s station, bpm float64) line {
	if s.reversed {
		cell = slices.Clone(cell)
		slices.Reverse(cell)
	}
	touches, starts := d.Path.Stay.fill(cell, d.Rhythm, bpm)
	number := 0
	if len(l) > 0 {
		number = l[len(l)-1].station + 1
	}
	for i, t := range touches {
		str := s.strings[t.String]
		next := spot{Touch: t, str: str, fret: d.fret(g, t, s, str), station: number, startsCell: starts[i]}
		if i == 0 {
			if s.turn && len(l) > 0 && l[len(l)-1].samePlace(next) {
				continue
			}
			next.slides = s.shifted && d.Path.Shift.Slide
		}
		l = append(l, next)
	}
	return l
}

func (s spot) samePlace(o spot) bool {
	return s.str == o.str && s.fret == o.fret && s.Hand == o.Hand
}

// fret is where a touch lies on its string at a station.
func (d Drill) fret(g guitar.Guitar, t Touch, s station, str int) int {
	switch t.At.On {
	case ByHand:
		return d.Path.Position + s.shift + t.At.Steps
	case InKey:
		first := d.Key.DegreeFrom(g.Sound(s.strings[0], d.Path.Position))
		return d.Key.Degree(first+s.shift+t.At.Steps) - g.Sound(str, 0)
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
