package advice

import (
	"fmt"
	"math"

	"manudrill/core/evenness"
	"manudrill/core/tempo"
)

// PartsTold says how far somebody got through the parts of a drill.
type PartsTold struct {
	Text  string   `json:"text"`
	Fault []string `json:"fault"` // of each part, why it is not clean; empty where it is
}

// PartsOf looks at the parts of a take through a gate; nil for a drill of one part.
func PartsOf(a evenness.Analysis, g tempo.Gate) *PartsTold {
	if len(a.Parts) == 0 || a.Foreign {
		return nil
	}
	told := &PartsTold{}
	through, clean, played := 0, 0, 0
	for i, p := range a.Parts {
		fault := "it was not played"
		if p.Played {
			played++
			fault = g.Fault(p.PassFigures)
		}
		told.Fault = append(told.Fault, fault)
		if fault == "" {
			clean++
			if through == i {
				through++
			}
		}
	}
	n := len(a.Parts)
	if played == 0 {
		return nil
	}
	switch {
	case clean == n && n == 2:
		told.Text = "Both parts clean."
	case clean == n:
		told.Text = fmt.Sprintf("All %d parts clean.", n)
	case through == played:
		told.Text = fmt.Sprintf("Clean as far as it was played, %d of %d parts.", played, n)
	case through == 0:
		told.Text = fmt.Sprintf("%d of %d parts clean; the first was not: %s.", clean, n, told.Fault[0])
	default:
		told.Text = fmt.Sprintf("Clean through %d of %d parts, up to “%s”. In “%s” %s.",
			through, n, a.Parts[through-1].Title, a.Parts[through].Title, told.Fault[through])
	}
	return told
}

// findYardstick says what the slurs cost, where the same was picked before: of the parts
// that have a yardstick, the one that is further from it.
func findYardstick(a take) (string, int) {
	var worst *evenness.Part
	var by evenness.Difference
	for i, p := range a.Parts {
		if p.Against == nil {
			continue
		}
		if d := p.Against.Differences[0]; worst == nil || d.After-d.Before > by.After-by.Before {
			worst, by = &a.Parts[i], d
		}
	}
	if worst == nil || by.Before <= 0 || by.After <= 0 {
		return "", 0
	}
	picked, title := a.Parts[worst.Against.Part].Title, worst.Title
	switch {
	case by.Sure && !by.Better && by.After-by.Before >= a.Timing.AudibleMs/2:
		return fmt.Sprintf("The slurs cost evenness: “%s” strays by %.0f ms, “%s” by %.0f.", title, by.After, picked, by.Before), worst.Counts.Played
	case by.Sure && by.Better:
		return fmt.Sprintf("“%s” is more even than “%s”: %.0f ms against %.0f.", title, picked, by.After, by.Before), worst.Counts.Played
	case !by.Sure && math.Max(by.Before, by.After) <= a.Timing.AudibleMs:
		return fmt.Sprintf("“%s” strays by %.0f ms, “%s” by %.0f: neither is heard.", title, by.After, picked, by.Before), worst.Counts.Played
	}
	return "", 0
}

// findLeastEven names the part that is surely less even than all others together, where
// that is heard.
func findLeastEven(a take) (string, int) {
	worst := -1
	for i, p := range a.Parts {
		if p.Against == nil && p.Counts.Played >= 2*evenness.Fewest && (worst < 0 || p.SpreadMs > a.Parts[worst].SpreadMs) {
			worst = i
		}
	}
	if worst < 0 {
		return "", 0
	}
	others := evenness.Others(a.Parts, worst)
	p := a.Parts[worst]
	if p.SpreadMs <= a.Timing.AudibleMs || !evenness.SurelyLessEven(p, others, len(a.Parts)) {
		return "", 0
	}
	return fmt.Sprintf("“%s” was the least even: it strays by %.0f ms, the other parts by %.0f.", p.Title, p.SpreadMs, others.SpreadMs), p.Counts.Played
}
