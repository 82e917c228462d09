package practice

import (
	"slices"
	"strings"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
)

// A HandReport is what somebody says of their hand. It is no diagnosis, and nothing is
// concluded from it but that reported pain stops every ladder from climbing.
type HandReport struct {
	Kind   ReportKind `json:"kind"`
	Effort int        `json:"effort,omitempty"` // of [AfterPlaying]: 1 to 10
	Aches  []Place    `json:"aches,omitempty"`
	Text   string     `json:"text,omitempty"`
}

// A ReportKind is what is reported.
type ReportKind string

// What is reported of a hand.
const (
	IsTired      ReportKind = "tired"
	IsHurt       ReportKind = "hurts"
	AfterPlaying ReportKind = "after" // how much effort it was, and where it aches
)

// A Place is where it aches.
type Place string

// Places are where it can ache, from the fingers up.
var Places = []Place{"fingertips", "fingers", "thumb", "palm", "wrist", "forearm", "elbow", "shoulder", "back"}

// Check returns what is wrong with the report, empty when nothing is.
func (r HandReport) Check() drill.Faults {
	var faults drill.Faults
	switch r.Kind {
	case IsTired, IsHurt:
		if r.Effort != 0 {
			faults.Add("effort", "Effort is told after playing.")
		}
	case AfterPlaying:
		if r.Effort < 1 || r.Effort > 10 {
			faults.Add("effort", "Effort is 1 to 10, not %d.", r.Effort)
		}
	default:
		faults.Add("kind", "A report is tired, hurts or after, not %q.", r.Kind)
	}
	for i, p := range r.Aches {
		if !slices.Contains(Places, p) {
			faults.Add("aches", "There is no place %q.", p)
		} else if slices.Contains(r.Aches[:i], p) {
			faults.Add("aches", "The %s is named twice.", p)
		}
	}
	if len([]rune(r.Text)) > MaxText || strings.ContainsRune(r.Text, 0) {
		faults.Add("text", "A text has at most %d characters.", MaxText)
	}
	return faults
}

// SlurShare is the share of a chart's notes that the fretting hand makes sound by
// itself, 0 to 1: what load is counted by.
func SlurShare(c chart.Chart) float64 {
	if len(c.Notes) == 0 {
		return 0
	}
	slurred := 0
	for _, n := range c.Notes {
		if n.Attack.Slurred() {
			slurred++
		}
	}
	return float64(slurred) / float64(len(c.Notes))
}
