// Package setup holds what somebody brings to every drill: the instrument, the hand, what
// their teacher holds for right and for hard.
package setup
