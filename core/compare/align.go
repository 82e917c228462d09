package compare

import (
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// A pair lays a heard note on a chart note, both by index.
type pair struct{ chart, heard int }

// What a difference between chart and take costs. A wrong note must be cheaper
// than one missed and one too many, and dearer than either.
const (
	costMissed = 1.0
	costExtra  = 1.0
	costWrong  = 1.3
	costOctave = 0.6 // right but for the octave: see [samePitch]
	costHidden = 0.9 // at its time, of a pitch that strings which ring on hide: see [hidden]
	costLate   = 1.2 // at most, for an interval of the wrong length
)

// lateStart makes notes missed at the start a trifle dearer than others: where a
// player stopped early, the last pass may be missing as well as the first.
const lateStart = 1.001

// lateScale is the error of an interval, as a share of one chart step, that
// costs half of costLate.
const lateScale = 0.35

// How far the alignment steps over missed and extra notes at one go: a few of
// both; many of one kind, where the player left a stretch out or went back, if
// it lands on notes that are right.
const (
	reach     = 8
	longReach = 64
)

// beam is how much dearer than the cheapest alignment up to a heard note another
// may be and still be followed. It outlasts one long step.
const beam = longReach + 16

// A cell is the best alignment that ends by laying one heard note on one chart
// note: what it costs, and how far back the pair before lies. Both steps are 0 at
// the start.
type cell struct {
	cost           float32
	charts, heards uint8
}

// An aligner lays heard notes on chart notes in order, at the least cost, by
// dynamic programming over pairs. The cost of a pair is its pitch; of a step from
// pair to pair, what is skipped and how far the interval is off.
type aligner struct {
	notes  []chart.Note
	heard  []listen.Note
	pitch  func(c, heard int) float64 // what the pitch of a pair costs
	spb    float64                    // seconds per beat
	asked  int                        // how many of the notes must be played; those after may be
	rows   []row
	lowest float64 // cost of the cheapest alignment
}

// A row holds the cells of one heard note, for the chart notes from first on.
type row struct {
	first int
	cells []cell
	least float32 // what the cheapest costs
}

func (r row) at(c int) (cell, bool) {
	if c < r.first || c >= r.first+len(r.cells) {
		return cell{}, false
	}
	return r.cells[c-r.first], true
}

// align returns the cheapest pairs.
func (a *aligner) align() []pair {
	a.rows = a.rows[:0]
	from, to := 0, min(len(a.notes), int(beam)+1)
	for h := range a.heard {
		r := row{from, make([]cell, to-from), float32(math.Inf(1))}
		for i := range r.cells {
			r.cells[i] = a.best(from+i, h)
			r.least = min(r.least, r.cells[i].cost)
		}
		a.rows = append(a.rows, r)
		from, to = a.followed(r)
	}
	return a.trace()
}

// followed returns the chart notes worth a cell in the row after r.
func (a *aligner) followed(r row) (from, to int) {
	near := func(c cell) bool { return c.cost <= r.least+beam }
	first := slices.IndexFunc(r.cells, near)
	last := first
	for i := first; i < len(r.cells); i++ {
		if near(r.cells[i]) {
			last = i
		}
	}
	return r.first + first, min(len(a.notes), r.first+last+2+reach)
}

// best returns the cheapest alignment that ends in a pair.
func (a *aligner) best(c, h int) cell {
	best := cell{cost: float32(float64(h)*costExtra + float64(c)*costMissed*lateStart)}
	reach := a.reach(c, h)
	for dh := 1; dh <= min(h, reach); dh++ {
		// No cell of a row costs less than its least: most steps are ruled out by it.
		spare := best.cost - a.rows[h-dh].least - float32(dh-1)*costExtra
		for dc := 1; dc <= min(c, reach) && float32(dc-1)*costMissed < spare; dc++ {
			a.consider(&best, c, h, dc, dh)
		}
	}
	if a.landsRight(c, h) {
		for far := 2; far <= longReach; far++ {
			a.consider(&best, c, h, far, 1)
			a.consider(&best, c, h, 1, far)
		}
	}
	best.cost += float32(a.pitch(c, h))
	return best
}

// right reports whether a heard note has the pitch of a chart note, in any octave.
func (a *aligner) right(c, h int) bool { return a.pitch(c, h) < costWrong }

// reach is how far steps to a pair may go: alignments far behind the cheapest are
// kept for the sake of those that went a long way, and need no more than go on.
func (a *aligner) reach(c, h int) int {
	if h == 0 {
		return reach
	}
	before, ok := a.rows[h-1].at(c - 1)
	if ok && before.cost > a.rows[h-1].least+2*reach {
		return 2
	}
	return reach
}

// landsRight reports whether the notes from a pair on are right, as after a
// stretch left out.
func (a *aligner) landsRight(c, h int) bool {
	for i := range 3 {
		if c+i >= len(a.notes) || h+i >= len(a.heard) || !a.right(c+i, h+i) {
			return false
		}
	}
	return true
}

// consider takes the step from the pair so far back where it is cheaper.
func (a *aligner) consider(best *cell, c, h, dc, dh int) {
	if dh > h || dc > c {
		return
	}
	before, ok := a.rows[h-dh].at(c - dc)
	if !ok {
		return
	}
	cost := before.cost + float32(dh-1)*costExtra + float32(dc-1)*costMissed
	if cost >= best.cost {
		return
	}
	cost += float32(a.intervalCost(pair{c - dc, h - dh}, pair{c, h}))
	if cost < best.cost {
		*best = cell{cost, uint8(dc), uint8(dh)}
	}
}

// intervalCost prices the time between two pairs against the chart's.
func (a *aligner) intervalCost(from, to pair) float64 {
	asked := (a.notes[to.chart].Beat - a.notes[from.chart].Beat) * a.spb
	off := (a.heard[to.heard].Onset - a.heard[from.heard].Onset - asked) / (asked / float64(to.chart-from.chart))
	r := off * off / (lateScale * lateScale)
	return costLate * r / (1 + r)
}

// trace follows the cheapest alignment back from its end.
func (a *aligner) trace() []pair {
	a.lowest = math.Inf(1)
	at := pair{-1, -1}
	for h, r := range a.rows {
		for i, one := range r.cells {
			c := r.first + i
			cost := float64(one.cost) + float64(len(a.heard)-1-h)*costExtra + float64(max(0, a.asked-1-c))*costMissed
			if cost < a.lowest || cost == a.lowest && c < at.chart {
				a.lowest, at = cost, pair{c, h}
			}
		}
	}
	var pairs []pair
	for at.heard >= 0 {
		pairs = append(pairs, at)
		one, _ := a.rows[at.heard].at(at.chart)
		if one.heards == 0 {
			break
		}
		at = pair{at.chart - int(one.charts), at.heard - int(one.heards)}
	}
	slices.Reverse(pairs)
	return pairs
}

// heldTempo returns the seconds per beat at which the pairs of right pitch were
// played: the median of their intervals over the beats between.
func (a *aligner) heldTempo(pairs []pair) (float64, bool) {
	var each []float64
	for i := 1; i < len(pairs); i++ {
		from, to := pairs[i-1], pairs[i]
		beats := a.notes[to.chart].Beat - a.notes[from.chart].Beat
		if beats > 0 && a.right(from.chart, from.heard) && a.right(to.chart, to.heard) {
			each = append(each, (a.heard[to.heard].Onset-a.heard[from.heard].Onset)/beats)
		}
	}
	if len(each) < 3 {
		return 0, false
	}
	slices.Sort(each)
	return each[len(each)/2], true
}
