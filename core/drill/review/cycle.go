package review

// A Cycle tells how a run of notes comes back to the click.
type Cycle struct {
	Notes       int // in the cycle
	ClosesAfter int // notes until it starts on a click again
	Passes      int // the same in passes
	Add         int // notes to add so that each pass ends on a click; 0 if it does
	Drop        int // or to leave out
}

// CycleOf works out the cycle of c notes at d a beat: it comes back to the
// click after lcm(c, d) notes. Both must be positive.
func CycleOf(c, d int) Cycle {
	l := c / gcd(c, d) * d
	return Cycle{Notes: c, ClosesAfter: l, Passes: l / c, Add: (d - c%d) % d, Drop: c % d}
}

func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}
