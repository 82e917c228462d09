package advice

import (
	"fmt"
	"math"
	"slices"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/tempo"
	"manudrill/core/words"
)

// A Remedy is a ready drill for what is weak in a take, with its reason.
type Remedy struct {
	Reason string       `json:"reason"`
	Drill  drill.Drill  `json:"drill"`
	Ladder tempo.Ladder `json:"ladder"` // from a slow tempo to the one of the take
}

// quickestClick is the fastest click that is pleasant to follow, in bpm; faster
// notes are put closer within the beat.
const quickestClick = 140

// mostRemedies is how many are given at once: more are not practised.
const mostRemedies = 2

// slower is the share of the tempo a weak spot is practised at.
const slower = 0.7

// repeats is how often a weak spot is played at one place before moving on.
const repeats = 4

// remedies makes drills for the weakest spots, by rule: first for the cause that
// explains most of the unevenness.
func remedies(t take, causes []cause) []Remedy {
	out := []Remedy{}
	add := func(r Remedy, ok bool) {
		if ok && len(out) < mostRemedies {
			out = append(out, r)
		}
	}
	for _, c := range causes {
		switch c.About {
		case "late", "uneven":
			add(pairAlone(t.chart, c.pair))
		case "crossing":
			add(spotAlone(t.chart, "the string change", func(from, to chart.Note) bool { return abs(from.String-to.String) == c.strings }))
		case "shift":
			add(spotAlone(t.chart, "the shift", evenness.Shifts))
		}
	}
	if soft := t.soft(); soft != nil && !slices.Contains(t.Denied, "soft") {
		add(pairAlone(t.chart, soft.FingerPair))
	}
	for _, c := range causes {
		if c.About == "late" || c.About == "uneven" {
			add(higherUp(t.chart, c.pair))
			add(withoutPick(t.chart, c.pair))
			add(pullsApart(t.chart, c.pair))
		}
	}
	return out
}

func abs(n int) int { return max(n, -n) }

// is reports whether one chart note after another is the finger pair.
func is(p evenness.FingerPair, a, b chart.Note) bool {
	return abs(a.String-b.String) == p.Strings && a.Finger == p.From && b.Finger == p.To && b.Attack == p.Attack
}

// pair returns the first place in the chart where the finger pair is played.
func pair(c chart.Chart, p evenness.FingerPair) (from, to chart.Note, ok bool) {
	for i := 1; i < len(c.Notes); i++ {
		if a, b := c.Notes[i-1], c.Notes[i]; is(p, a, b) {
			return a, b, true
		}
	}
	return from, to, false
}

// spot makes a drill of a few notes, played over and over at each of its
// strings, two a beat, at a share of the tempo they were played at.
func spot(name string, c chart.Chart, notes []drill.FreeNote, strings []int) (drill.Drill, tempo.Ladder) {
	p := drill.Free{Notes: notes}
	d := drill.New(name, p)
	d.Path.Position, d.Path.Strings = p.Home()
	if len(strings) > 0 {
		d.Path.Strings = strings
	}
	d.Path.Stay = drill.Stay{Count: repeats, Unit: drill.Times}
	d.Rhythm.Passes = 2
	same := c.BPM * float64(c.NotesPerBeat) / float64(d.Rhythm.NotesPerBeat)
	for same > quickestClick && d.Rhythm.NotesPerBeat < 8 {
		d.Rhythm.NotesPerBeat *= 2
		same /= 2
	}
	ladder := tempo.Usual()
	ladder.StartBPM = whole(slower * same)
	ladder.TargetBPM = max(ladder.StartBPM, whole(same))
	return d, ladder
}

// whole is a tempo that a metronome has.
func whole(bpm float64) float64 {
	return min(tempo.MaxBPM, max(tempo.MinBPM, math.Round(bpm)))
}

func free(n chart.Note) drill.FreeNote {
	return drill.FreeNote{String: n.String, Fret: n.Fret, Finger: n.Finger, Hand: n.Hand, Attack: n.Attack}
}

// started is a note that begins a cell: a slur needs a note to come from.
func started(n chart.Note) drill.FreeNote {
	f := free(n)
	if n.Hand != chart.TappingHand {
		f.Attack = chart.Pick
	}
	return f
}

// pairAlone is the weak pair alone, over the strings it is played on.
func pairAlone(c chart.Chart, p evenness.FingerPair) (Remedy, bool) {
	from, to, ok := pair(c, p)
	if !ok {
		return Remedy{}, false
	}
	d, ladder := spot(fmt.Sprintf("%s: %d to %d alone", c.Name, p.From, p.To), c, []drill.FreeNote{started(from), free(to)}, stringsOf(c, p))
	return Remedy{fmt.Sprintf("The weak pair alone, %d to %d, at %.0f %% of the tempo.", p.From, p.To, 100*slower), d, ladder}, true
}

// stringsOf returns the strings a pair is played on, thickest first; none of a pair that goes
// from string to string.
func stringsOf(c chart.Chart, p evenness.FingerPair) []int {
	if p.Strings > 0 {
		return nil
	}
	var strings []int
	for i := 1; i < len(c.Notes); i++ {
		if a, b := c.Notes[i-1], c.Notes[i]; is(p, a, b) && !slices.Contains(strings, b.String) {
			strings = append(strings, b.String)
		}
	}
	slices.Sort(strings)
	slices.Reverse(strings)
	return strings
}

// lowPosition is up to which position frets are so wide that it helps to begin
// higher up; higher is how many frets.
const (
	lowPosition = 5
	higher      = 5
)

// higherUp is the same pair further up the neck, where the frets are narrower.
func higherUp(c chart.Chart, p evenness.FingerPair) (Remedy, bool) {
	from, to, ok := pair(c, p)
	low := min(from.Fret, to.Fret)
	if !ok || abs(from.Fret-to.Fret) < 2 || low == 0 || low > lowPosition || from.Hand == chart.TappingHand || to.Hand == chart.TappingHand {
		return Remedy{}, false
	}
	d, ladder := spot(fmt.Sprintf("%s: %d to %d higher up", c.Name, p.From, p.To), c, []drill.FreeNote{started(from), free(to)}, stringsOf(c, p))
	d = d.Transposed(higher)
	return Remedy{fmt.Sprintf("The same pair %d frets higher, where it is less of a stretch.", higher), d, ladder}, true
}

// tapped is how often a pair is tapped in time before the pick is added.
const tapped = 8

// withoutPick is the pair tapped in time by the fretting hand alone.
func withoutPick(c chart.Chart, p evenness.FingerPair) (Remedy, bool) {
	from, to, ok := pair(c, p)
	if !ok || p.Attack != chart.Hammer || from.Fret == 0 {
		return Remedy{}, false
	}
	first := free(from)
	first.Attack = chart.Nowhere
	d, ladder := spot(fmt.Sprintf("%s: %d to %d without the pick", c.Name, p.From, p.To), c, []drill.FreeNote{first, free(to)}, stringsOf(c, p))
	d.Path.Stay.Count = tapped
	return Remedy{fmt.Sprintf("Tap the pair in time %d times without picking, then add the pick.", tapped), d, ladder}, true
}

// pullsApart is the drill's pull-offs in a block of their own.
func pullsApart(c chart.Chart, p evenness.FingerPair) (Remedy, bool) {
	hammers := slices.ContainsFunc(c.Notes, func(n chart.Note) bool { return n.Attack == chart.Hammer })
	from, to, ok := pair(c, p)
	if !ok || p.Attack != chart.Pull || !hammers {
		return Remedy{}, false
	}
	d, ladder := spot(c.Name+": pull-offs alone", c, []drill.FreeNote{started(from), free(to)}, nil)
	return Remedy{"Pull-offs in a block of their own, before they are mixed with hammer-ons again.", d, ladder}, true
}

// spotAlone is the first place of a kind alone, with two notes on each side.
func spotAlone(c chart.Chart, what string, at func(from, to chart.Note) bool) (Remedy, bool) {
	for i := 2; i+1 < len(c.Notes); i++ {
		if !at(c.Notes[i-1], c.Notes[i]) {
			continue
		}
		notes := []drill.FreeNote{started(c.Notes[i-2])}
		for _, n := range c.Notes[i-1 : i+2] {
			notes = append(notes, free(n))
		}
		d, ladder := spot(fmt.Sprintf("%s: %s alone", c.Name, what), c, notes, nil)
		return Remedy{fmt.Sprintf("%s alone, with two notes on each side, at %.0f %% of the tempo.", words.Sentence(what), 100*slower), d, ladder}, true
	}
	return Remedy{}, false
}
