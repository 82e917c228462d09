package plan

import (
	"slices"
	"time"

	"manudrill/core/drill/chart"
	"manudrill/core/progress"
)

// A Technique is what an exercise is for.
type Technique string

// Techniques.
const (
	Hammering Technique = "hammer-ons" // alone
	Pulling   Technique = "pull-offs"  // alone
	Slurring  Technique = "slurs"      // both
	Tapping   Technique = "taps"
	Picking   Technique = "picked"
)

// An Exercise is a drill as far as a plan looks at it.
type Exercise struct {
	Drill     string // id
	Name      string
	Technique Technique
	Pairs     []string        // of fingers that follow one another on a string, "12" … "34"
	Rank      int             // in graded order, from 0
	Position  int             // its own
	Lowest    int             // to which it can be moved, for this hand
	Highest   int             // up to which it can be moved, on this neck
	SlurShare float64         // of its notes
	State     *progress.State // nil where it was never played
	Given     bool            // the student has it, or it is chosen for the plan
	Mastered  *time.Time      // day on which its target was passed; nil for not yet
}

// grades are the finger pairs in graded order (common practice).
var grades = []string{"12", "23", "34", "13", "14", "24"}

// ExerciseOf looks at a chart of a drill: which pairs it works, how, and where in the
// graded order it stands. Three fingers come after all pairs, and four after three.
func ExerciseOf(id, name string, c chart.Chart) Exercise {
	e := Exercise{Drill: id, Name: name, Technique: techniqueOf(c)}
	fingers := map[int]bool{}
	slurred := 0
	for i, n := range c.Notes {
		if n.Attack.Slurred() {
			slurred++
		}
		if n.Finger < 1 || n.Hand != chart.FrettingHand {
			continue
		}
		fingers[n.Finger] = true
		if i == 0 {
			continue
		}
		before := c.Notes[i-1]
		if before.String == n.String && before.Finger > 0 && before.Finger != n.Finger && before.Hand == chart.FrettingHand {
			if pair := pairOf(before.Finger, n.Finger); !slices.Contains(e.Pairs, pair) {
				e.Pairs = append(e.Pairs, pair)
			}
		}
	}
	slices.Sort(e.Pairs)
	e.SlurShare = float64(slurred) / float64(max(1, len(c.Notes)))
	e.Rank = rankOf(e.Pairs, len(fingers))
	return e
}

func pairOf(a, b int) string {
	return string([]byte{'0' + byte(min(a, b)), '0' + byte(max(a, b))})
}

// rankOf is the place in the graded order: that of the hardest pair, where the pairs are
// taken by themselves; after all of them where three or four fingers run on.
func rankOf(pairs []string, fingers int) int {
	if joined(pairs) {
		return len(grades) + fingers - 3
	}
	rank := 0
	for _, p := range pairs {
		rank = max(rank, slices.Index(grades, p))
	}
	return rank
}

// joined reports whether pairs have fingers in common, so that more than two fingers
// follow on one another.
func joined(pairs []string) bool {
	seen := map[byte]bool{}
	for _, p := range pairs {
		if seen[p[0]] || seen[p[1]] {
			return true
		}
		seen[p[0]], seen[p[1]] = true, true
	}
	return false
}

func techniqueOf(c chart.Chart) Technique {
	has := map[chart.Attack]bool{}
	for _, n := range c.Notes {
		has[n.Attack] = true
	}
	hammers, pulls := has[chart.Hammer] || has[chart.Nowhere], has[chart.Pull]
	switch {
	case has[chart.Tap]:
		return Tapping
	case hammers && pulls:
		return Slurring
	case hammers:
		return Hammering
	case pulls:
		return Pulling
	}
	return Picking
}

// at is the position nearest to one that the exercise can be moved to.
func (e Exercise) at(position int) int {
	if e.Lowest == 0 && e.Highest == 0 {
		return e.Position
	}
	return min(max(position, e.Lowest), e.Highest)
}

// stuckFor is for how many weeks the exercise has gained nothing; 0 where it does.
func (e Exercise) stuckFor(today time.Time) float64 {
	if e.State == nil || e.State.Finding.Kind != progress.Stuck || e.State.Finding.Since == nil {
		return 0
	}
	return today.Sub(*e.State.Finding.Since).Hours() / (7 * 24)
}

// relative is another exercise that works a pair of the same and is not among those
// taken: one that begins in the same way, and is easier rather than harder.
func relative(e Exercise, all []Exercise, taken func(Exercise) bool) (Exercise, bool) {
	var found Exercise
	best := -1
	for _, r := range all {
		if r.Drill == e.Drill || taken(r) || r.stuck() || !shares(e.hardest(), r.Pairs) {
			continue
		}
		score := 0
		if r.Technique == e.Technique {
			score += 2
		}
		if r.Rank <= e.Rank {
			score++
		}
		if score > best {
			found, best = r, score
		}
	}
	return found, best >= 0
}

func (e Exercise) stuck() bool { return e.State != nil && e.State.Finding.Kind == progress.Stuck }

// hardest is the pair that holds the exercise up: the one measured as the weakest, or
// else all it has.
func (e Exercise) hardest() []string {
	if e.State != nil && e.State.Weakest != nil {
		return []string{pairOf(e.State.Weakest.From, e.State.Weakest.To)}
	}
	return e.Pairs
}

func shares(pairs, of []string) bool {
	return slices.ContainsFunc(pairs, func(p string) bool { return slices.Contains(of, p) })
}
