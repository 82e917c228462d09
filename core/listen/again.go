package listen

// struckAgain reports whether the string is struck again at a peak, at the pitch it
// has: its partials go on, but not as they were foretold.
func (l *Listener) struckAgain(p peak) bool {
	before, after := l.aboutPeak(p)
	if before == nil || meanSquare(after) < 0.5*meanSquare(before) {
		return false
	}
	zero := int(stepBeforeTo*l.slow.rate) - len(before)
	from := int(stepAfter * l.slow.rate)
	left := 0.0
	if len(before) > int(longestPursuit*l.slow.rate) {
		cut := len(before) - int(longestPursuit*l.slow.rate)
		before, zero = before[cut:], zero+cut
	}
	for i, v := range sing(l.pursuit.partials(before, -zero), from, from+len(after)) {
		left += (after[i] - v) * (after[i] - v)
	}
	return left > 0.8*sumSquares(after)
}
