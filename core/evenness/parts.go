package evenness

import (
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/follow"
	"manudrill/core/stats"
	"manudrill/core/tempo"
)

// A Part holds the figures of one part of a drill that has several, over all passes,
// about a line of its own: it is measured as if it had been recorded alone.
type Part struct {
	Part     int     `json:"part"` // from 0
	Title    string  `json:"title"`
	Counts   Counts  `json:"counts"`
	SpreadMs float64 `json:"spreadMs"`
	BPM      float64 `json:"bpm"` // really played; 0 where it was not
	tempo.PassFigures
	Played  bool       `json:"played"`            // something of it was, before the drill was left
	Against *Yardstick `json:"against,omitempty"` // the same notes, picked before
}

// A Yardstick sets a part against the same notes in an earlier one, all of them picked:
// the student's own measure of evenness.
type Yardstick struct {
	Part        int          `json:"part"` // from 0
	Differences []Difference `json:"differences"`
}

// partsOf is nil for a drill of one part.
func partsOf(t follow.Take) []Part {
	if len(t.Chart.Parts) == 0 {
		return nil
	}
	if slices.ContainsFunc(t.Events, func(e follow.Event) bool { return e.Kind == follow.Left }) {
		t.Matches = t.Matches[:t.Last()+1] // what the player did not get to is no miss
	}
	charts := make([]chart.Chart, len(t.Chart.Parts))
	judged := make([]judged, len(t.Chart.Parts))
	parts := make([]Part, 0, len(t.Chart.Parts))
	for i, title := range t.Chart.Parts {
		charts[i] = t.Chart.Alone(i)
		judged[i] = judgePart(partOf(t, i))
		p := judged[i].part(i, title)
		p.Played = p.Counts.Played > 0
		p.Against = against(judged[:i+1], charts[:i+1])
		parts = append(parts, p)
	}
	return parts
}

// partOf is what was played of one part: its matches of all passes, and the extra notes
// from the first of each to its last.
func partOf(t follow.Take, part int) follow.Take {
	own := follow.Take{Chart: t.Chart, Passes: t.Passes, TuningCents: t.TuningCents}
	all := lineOf(t)
	broken := false // before the next match of this part
	for i, m := range t.Matches {
		broken = broken || t.BreaksAt(i)
		if m.Chart.Part != part {
			continue
		}
		if broken {
			own.Breaks, broken = append(own.Breaks, len(own.Matches)), false
		}
		own.Matches = append(own.Matches, m)
	}
	if len(own.Matches) == 0 {
		return own
	}
	notes := t.Chart.Alone(part)
	first := own.Matches[0].Chart.Beat
	half := 0.5 / float64(t.Chart.NotesPerBeat)
	for _, e := range t.Extras {
		_, within := t.Chart.Place(all.beatAt(e.Onset)+half, t.Passes)
		if at := within - first; at >= 0 && at < notes.Beats() {
			own.Extras = append(own.Extras, e)
		}
	}
	return own
}

// judged is a part with the figures of it that are compared.
type judged struct {
	take   follow.Take
	timing Timing
	level  float64
	counts Counts
	bpm    float64
	joins  Connection
}

func judgePart(t follow.Take) judged {
	l := lineOf(t)
	steps := stepsOf(t, l)
	return judged{t, timingOf(t, l, steps), stats.PopStdDev(levelsOf(t.Matches)), countsOf(t), 60 / l.secondsPerBeat, connectionOf(steps)}
}

func (j judged) part(i int, title string) Part {
	p := Part{
		Part: i, Title: title, Counts: j.counts, SpreadMs: j.timing.SpreadMs,
		PassFigures: tempo.PassFigures{
			RightPercent: 100 * j.counts.RightShare(), SpreadPercent: j.timing.SpreadPercent, LevelSpreadDB: j.level,
		},
	}
	j.joins.into(&p.PassFigures)
	if j.counts.Played > 1 {
		p.BPM = j.bpm
	}
	return p
}

// against sets the last of some parts against the nearest before it that has the same
// notes and is picked throughout; nil where there is none, or the last is itself picked.
func against(parts []judged, charts []chart.Chart) *Yardstick {
	n := len(parts) - 1
	if allPicked(charts[n]) {
		return nil
	}
	for i := n - 1; i >= 0; i-- {
		if !allPicked(charts[i]) || !sameNotes(charts[i], charts[n]) {
			continue
		}
		before, after := parts[i], parts[n]
		return &Yardstick{i, []Difference{
			spreads("spreadMs", before.timing.SpreadMs, after.timing.SpreadMs, before.counts.Played, after.counts.Played),
			spreads("levelSpreadDb", before.level, after.level, before.counts.Played, after.counts.Played),
			shares("rightPercent", before.counts, after.counts),
		}}
	}
	return nil
}

func allPicked(c chart.Chart) bool {
	for _, n := range c.Notes {
		if n.Attack != chart.Pick {
			return false
		}
	}
	return true
}

// Others are all parts but one, as if they were one: their spreads are pooled by how many
// notes were played of each. Parts with a yardstick are not among them.
func Others(parts []Part, but int) Part {
	var pooled Part
	sum := 0.0
	for i, p := range parts {
		if i != but && p.Against == nil {
			sum += p.SpreadMs * p.SpreadMs * float64(p.Counts.Played)
			pooled.Counts.Played += p.Counts.Played
		}
	}
	if pooled.Counts.Played > 0 {
		pooled.SpreadMs = math.Sqrt(sum / float64(pooled.Counts.Played))
	}
	return pooled
}

// SurelyLessEven reports whether a part, picked as the worst of so many, is less even
// than the others by more than chance: the F distribution of the ratio of the variances,
// at 5 % shared among all that were asked (Bonferroni).
func SurelyLessEven(p, others Part, of int) bool {
	if p.Counts.Played < Fewest || others.Counts.Played < Fewest || others.SpreadMs <= 0 || p.SpreadMs <= others.SpreadMs {
		return false
	}
	ratio := p.SpreadMs / others.SpreadMs
	return stats.FSurvival(ratio*ratio, float64(p.Counts.Played-1), float64(others.Counts.Played-1)) < 0.05/float64(of)
}
