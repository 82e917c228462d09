package follow

import (
	"cmp"
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// A move is how the player came from the note laid before to one.
type move uint8

const (
	opening move = iota // it is the first
	onward              // over notes that are missed, or none
	again               // the same note is struck again
	back                // to an earlier one
	ahead               // on to a later one
)

// A cell is the cheapest course that ends by laying one heard note on one chart note.
type cell struct {
	cost       float32
	note       int32
	row, index int32 // where the cell before it lies
	move       move
}

// A decoder finds the cheapest course of what was heard through the notes of a chart, by
// dynamic programming over pairs of both (Viterbi). What a jump costs hardly depends on
// how far it goes, and it lands only where the notes after it are right, so that there
// are few of them and the whole is linear in what was heard.
type decoder struct {
	notes  []chart.Note // over all passes
	size   int          // of a pass
	asked  int          // how many of the notes must be played; those after may be
	heard  []listen.Note
	pitch  func(c, h int) float64 // what the pitch of a pair costs
	at     shift                  // of the pitches
	places [12][]int              // of the pitch classes in the chart
	jumps  bool                   // whether pitches tell where the player is
	spb    float64                // seconds per beat

	rows   [][]cell
	least  []int     // the cheapest cell of each row
	best   []cell    // of the row being made, by chart note
	cost   []float32 // of the pitch, by chart note, the same
	bound  float32   // what a cell of it may cost
	stamp  []int     // the row that best was made for
	fresh  []int32   // chart notes in the row being made
	lowest float64   // what the cheapest course costs
}

// A laid pair is a heard note on a chart note, by index.
type laid struct {
	chart, heard int
	move         move
}

// decode returns the cheapest course, in order of time.
func (d *decoder) decode() []laid {
	d.rows, d.least = make([][]cell, 0, len(d.heard)), d.least[:0]
	d.best, d.cost, d.stamp = make([]cell, len(d.notes)), make([]float32, len(d.notes)), make([]int, len(d.notes))
	for h := range d.heard {
		d.fresh, d.bound = d.fresh[:0], float32(math.Inf(1))
		d.goOn(h)
		d.open(h)
		if d.jumps {
			d.jump(h)
		}
		d.close()
	}
	return d.trace()
}

// open lets the take begin with a heard note.
func (d *decoder) open(h int) {
	for c := range min(len(d.notes), reach+1) {
		d.take(h, cell{cost: float32(float64(h)*costExtra + float64(c)*costMissed*lateStart), note: int32(c), row: -1})
	}
}

// goOn goes on from the notes laid of late, by a step or to the same note again.
func (d *decoder) goOn(h int) {
	for dh := 1; dh <= min(h, reach); dh++ {
		row := h - dh
		for i, from := range d.rows[row] {
			if dh == 1 && d.right(int(from.note), h) {
				d.again(h, i, from)
			}
			cost := from.cost + float32(dh-1)*costExtra
			for dc := 1; dc <= reach && cost <= d.bound && int(from.note)+dc < len(d.notes); dc++ {
				d.step(h, row, i, from, dc, cost)
				cost += costMissed
			}
		}
	}
}

// again stays on the chart note of the note before.
func (d *decoder) again(h, i int, from cell) {
	cost := float32(costAgain)
	switch {
	case !d.right(int(from.note), h-1):
		cost = costMended
	case from.move == opening:
		cost = costAtFirst
	}
	d.take(h, cell{from.cost + cost, from.note, int32(h - 1), int32(i), again})
}

// step goes on by so many notes of the chart.
func (d *decoder) step(h, row, i int, from cell, dc int, cost float32) {
	c := int(from.note) + dc
	asked := (d.notes[c].Beat - d.notes[from.note].Beat) * d.spb
	off := (d.heard[h].Onset - d.heard[row].Onset - asked) / (asked / float64(dc))
	r := off * off / (lateScale * lateScale)
	d.take(h, cell{cost + float32(costLate*r/(1+r)), int32(c), int32(row), int32(i), onward})
}

// jump goes to wherever the notes from a heard one on are right: in the pass that is being
// played, in the next one, and a little before.
func (d *decoder) jump(h int) {
	if h == 0 {
		return
	}
	at := int(d.rows[h-1][d.least[h-1]].note)
	begin := at - at%d.size
	from, to := max(begin-reach, at-sight), min(begin+2*d.size, at+sight)
	var landings []int
	if begin < from && d.lands(begin, h) {
		landings = append(landings, begin)
	}
	for _, class := range d.classes(h) {
		places := d.places[class]
		first, _ := slices.BinarySearch(places, from)
		for _, c := range places[first:] {
			if c >= to {
				break
			}
			if d.lands(c, h) {
				landings = append(landings, c)
			}
		}
	}
	if len(landings) > mostPlaces {
		return
	}
	for _, c := range landings {
		d.jumpTo(h, c)
	}
}

// mostPlaces is how many places the next notes may fit to tell where the player is: in what
// repeats itself more often they tell nothing.
const mostPlaces = 24

// classes are the pitch classes that a heard note may have.
func (d *decoder) classes(h int) []int {
	of := func(pitch float64) int {
		return ((int(math.Round(pitch-d.at.sharp))-d.at.transposed)%12 + 12) % 12
	}
	n := d.heard[h]
	if n.Or == 0 || of(n.Or) == of(n.Pitch) {
		return []int{of(n.Pitch)}
	}
	return []int{of(n.Pitch), of(n.Or)}
}

// jumpTo goes to a chart note from the notes laid of late, or from where the player most
// likely was a while ago.
func (d *decoder) jumpTo(h, c int) {
	for dh := 1; dh <= min(h, longReach); dh++ {
		row := h - dh
		cost := float32(dh-1) * costExtra
		least := d.rows[row][d.least[row]].cost
		switch {
		case least+cost+costBegin > d.bound:
		case dh > nearReach:
			d.leap(h, row, d.least[row], c, cost)
		default:
			for i := range d.rows[row] {
				d.leap(h, row, i, c, cost)
			}
		}
	}
}

// nearReach is how many heard notes back all places are looked at from which a jump may start.
const nearReach = 3

// leap jumps from a cell to a chart note.
func (d *decoder) leap(h, row, i, c int, cost float32) {
	from := d.rows[row][i]
	how := back
	switch far := c - int(from.note); {
	case far == 0, far == 1 && h-row <= reach:
		return // no jump
	case far == 1:
		how = onward // after all that came between
	case far > 1:
		how = ahead
	}
	d.take(h, cell{from.cost + cost + d.jumpCost(int(from.note), c), int32(c), int32(row), int32(i), how})
}

// jumpCost is what a jump from a chart note to another costs.
func (d *decoder) jumpCost(from, to int) float32 {
	switch {
	case to == from+1:
		return costLate
	case to > from:
		return costOn + costOver*float32(to-from-1)
	case to%d.size == 0:
		return costBegin + costAfar*float32(from-to)
	}
	return costBack + costAfar*float32(from-to)
}

// lands reports whether the notes from a pair on are right.
func (d *decoder) lands(c, h int) bool {
	for i := range 3 {
		if c+i >= len(d.notes) || h+i >= len(d.heard) || !d.right(c+i, h+i) {
			return false
		}
	}
	return true
}

// right reports whether a heard note has the pitch of a chart note, in any octave.
func (d *decoder) right(c, h int) bool { return d.pitch(c, h) < costWrong }

// take keeps a cell where it is the cheapest on its chart note, and worth following.
func (d *decoder) take(h int, one cell) {
	c := one.note
	if d.stamp[c] != h+1 {
		if one.cost > d.bound {
			return
		}
		d.stamp[c] = h + 1
		d.fresh = append(d.fresh, c)
		d.cost[c] = float32(d.pitch(int(c), h))
		d.best[c] = cell{cost: float32(math.Inf(1))}
	}
	if one.cost += d.cost[c]; one.cost < d.best[c].cost {
		d.best[c] = one
		d.bound = min(d.bound, one.cost+beam)
	}
}

// close makes a row of the cells that are worth following.
func (d *decoder) close() {
	slices.Sort(d.fresh)
	row := make([]cell, 0, len(d.fresh))
	cheapest := 0
	for _, c := range d.fresh {
		if d.best[c].cost > d.bound {
			continue
		}
		if row = append(row, d.best[c]); d.best[c].cost < row[cheapest].cost {
			cheapest = len(row) - 1
		}
	}
	if len(row) > mostCells {
		row, cheapest = cheapestOf(row), 0
	}
	d.rows, d.least = append(d.rows, row), append(d.least, cheapest)
}

// mostCells is how many courses up to a heard note are followed at the most, however alike
// they are.
const mostCells = 48

// cheapestOf are the cheapest cells of a row, in order of their costs.
func cheapestOf(row []cell) []cell {
	slices.SortFunc(row, func(a, b cell) int { return cmp.Or(cmp.Compare(a.cost, b.cost), cmp.Compare(a.note, b.note)) })
	return row[:mostCells:mostCells]
}

// trace follows the cheapest course back from its end.
func (d *decoder) trace() []laid {
	d.lowest = math.Inf(1)
	row, at := -1, -1
	var end int32
	for h, cells := range d.rows {
		for i, one := range cells {
			left := float64(max(0, d.asked-1-int(one.note))) * costMissed
			cost := float64(one.cost) + float64(len(d.heard)-1-h)*costExtra + min(left, costLeft)
			if cost < d.lowest || cost == d.lowest && one.note < end {
				d.lowest, row, at, end = cost, h, i, one.note
			}
		}
	}
	var course []laid
	for row >= 0 {
		one := d.rows[row][at]
		course = append(course, laid{int(one.note), row, one.move})
		row, at = int(one.row), int(one.index)
	}
	slices.Reverse(course)
	return course
}

// heldTempo returns the seconds per beat at which a course was played: the median of its
// intervals over the beats between.
func (d *decoder) heldTempo(course []laid) (float64, bool) {
	var each []float64
	for i := 1; i < len(course); i++ {
		from, to := course[i-1], course[i]
		if beats := d.notes[to.chart].Beat - d.notes[from.chart].Beat; to.move == onward && beats > 0 && d.right(from.chart, from.heard) && d.right(to.chart, to.heard) {
			each = append(each, (d.heard[to.heard].Onset-d.heard[from.heard].Onset)/beats)
		}
	}
	if len(each) < 3 {
		return 0, false
	}
	slices.Sort(each)
	return each[len(each)/2], true
}
