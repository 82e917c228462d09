package advice

import (
	"fmt"
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/words"
)

// Advice is what an instructor would say of a take, most important first: its
// mistakes, then what stands out, then what to practise for it, two drills at the most.
type Advice struct {
	Tally    string    `json:"tally"`    // how many notes were right: "43 of 48 notes right, 1 extra"
	Mistakes []Mistake `json:"mistakes"` // all, in order of time
	Findings []Finding `json:"findings"`
	Remedies []Remedy  `json:"remedies"`
}

// A Finding is one sentence and how many notes it rests on.
type Finding struct {
	About string `json:"about"` // which rule found it
	Text  string `json:"text"`
	Count int    `json:"count,omitempty"`
}

// A take is what the rules look at.
type take struct {
	evenness.Analysis
	chart chart.Chart
}

// A rule looks at a take and says what it finds, or nothing.
type rule struct {
	about string
	find  func(take) (text string, count int)
}

// Rules in the order of importance: what was played at all, how it went, and after the
// cause of the unevenness, how it sounded and how long it lasted.
var (
	first = []rule{{"foreign", findForeign}, {"course", findCourse}, {"mistakes", findMistakes}}
	// What joins the notes, and what is left to be said.
	joining = []rule{{"slurs", findSoftSlurs}, {"soft", findSoftPair}, {"gaps", findGaps}, {"ringing", findRinging}, {"bend", findBend}}
	after   = []rule{{"yardstick", findYardstick}, {"part", findLeastEven}, {"tires", findTiring}, {"source", findSource}, {"tuning", findTuning}, {"passes", findPasses}}
)

// littleExplained is the share of the unevenness below which a cause is said after what
// is wrong with how the notes are joined.
const littleExplained = 0.25

// Of says what stands out in a take of a chart: mistakes, where there are any, before a
// word on evenness; then the one cause that explains most of the unevenness, or how the
// notes are joined where no cause explains much. Where nothing can be heard that is said. What
// is heard is marked in a as it is today, though it was judged before.
func Of(a evenness.Analysis, c chart.Chart) Advice {
	a.MarkAudible()
	t := take{a, c}
	advice := Advice{Tally: t.tally(), Mistakes: t.mistakes(), Findings: []Finding{}, Remedies: []Remedy{}}
	if a.Foreign {
		advice.Mistakes = []Mistake{}
		advice.add(t, first[:1])
		return advice // nothing more can be said of it
	}
	advice.add(t, first)
	causes := t.causes()
	little := len(causes) > 0 && causes[0].share < littleExplained
	if little {
		advice.add(t, joining)
	}
	for _, cause := range causes {
		advice.Findings = append(advice.Findings, cause.Finding)
	}
	heard := len(advice.Findings)
	if !little {
		advice.add(t, joining)
	}
	advice.add(t, after)
	if heard == 0 && len(advice.Findings) == 0 && a.Counts.Played > 0 {
		advice.Findings = append(advice.Findings, nothingStandsOut(t))
	}
	advice.Remedies = remedies(t, causes)
	return advice
}

// add appends what rules find.
func (d *Advice) add(t take, rules []rule) {
	for _, r := range rules {
		if slices.Contains(t.Denied, r.about) {
			continue
		}
		if text, count := r.find(t); text != "" {
			d.Findings = append(d.Findings, Finding{r.about, text, count})
		}
	}
}

// nothingStandsOut is said where no rule finds anything.
func nothingStandsOut(a take) Finding {
	if math.Round(a.Timing.SpreadMs) > math.Round(a.Timing.AudibleMs) { // as they are said
		return Finding{"everywhere", fmt.Sprintf("No single spot stands out: all notes stray a little, by %.0f ms, where the ear notices %.0f. Play softly and listen to the click.",
			a.Timing.SpreadMs, a.Timing.AudibleMs), a.Counts.Played}
	}
	return Finding{"even", "All notes right, and nothing stands out: what is left of unevenness is not heard.", a.Counts.Played}
}

// give is a value as it is said: with its interval.
func give(f *evenness.Figure, unit string) string {
	return fmt.Sprintf("%.0f %s (give or take %.0f)", math.Abs(f.Value), unit, math.Ceil(f.PlusMinus))
}

func findForeign(a take) (string, int) {
	if !a.Foreign {
		return "", 0
	}
	return "This is not the drill: hardly a note of it was heard. Was another one played? Nothing is measured of it.", 0
}

// outOfTune is how many cents the strings must be off to be worth a word.
const outOfTune = 12

func findTuning(a take) (string, int) {
	cents := a.Course.TuningCents
	if math.Abs(cents) < outOfTune || a.Counts.Played < evenness.Fewest {
		return "", 0
	}
	way := "sharp"
	if cents < 0 {
		way = "flat"
	}
	return fmt.Sprintf("The guitar is %.0f cents %s. The notes were understood all the same; tune before the next take.", math.Abs(cents), way), a.Counts.Played
}

func findPasses(a take) (string, int) {
	if a.Course.Passes <= a.Course.AskedPasses {
		return "", 0
	}
	return fmt.Sprintf("You played %d passes where %d would do; all of them count.", a.Course.Passes, a.Course.AskedPasses), 0
}

// fingers names them as a teacher does.
var fingers = [...]string{"open string", "index finger", "middle finger", "ring finger", "little finger"}

func finger(n int) string { return "the " + fingers[max(0, min(n, len(fingers)-1))] }

var attackWords = map[chart.Attack]string{
	chart.Pick: "picked", chart.Hammer: "hammered on", chart.Pull: "pulled off", chart.Tap: "tapped",
	chart.Slide: "slid to", chart.Nowhere: "hammered on from nowhere", chart.Bend: "bent to",
}

// wordsOf is a transition as a teacher says it.
func wordsOf(p evenness.FingerPair) string {
	over := ""
	switch {
	case p.Strings == 1:
		over = " on the string beside it"
	case p.Strings > 1:
		over = fmt.Sprintf(" %d strings away", p.Strings)
	}
	return fmt.Sprintf("%s after %s%s, %s", finger(p.To), finger(p.From), over, attackWords[p.Attack])
}

func findLate(a take) (string, int) {
	t := a.late()
	if t == nil {
		return "", 0
	}
	return fmt.Sprintf("%s, comes late: by %.0f ms on average (give or take %.0f), %d times.",
		words.Sentence(wordsOf(t.FingerPair)), t.MeanMs, math.Ceil(t.PlusMinusMs), t.Count), t.Count
}

// late returns the transition that surely comes late by more than is heard, the
// weakest of them.
func (a take) late() *evenness.Transition {
	for _, t := range a.Pairs() {
		if t.Stands && t.MeanMs > 0 {
			return t
		}
	}
	return nil
}

// uneven returns the transition whose interval varies most, where it is heard
// and no other comes late.
func (a take) uneven() *evenness.Transition {
	if a.late() != nil {
		return nil
	}
	var worst *evenness.Transition
	for _, t := range a.Pairs() {
		if t.Varies && (worst == nil || t.SpreadMs > worst.SpreadMs) {
			worst = t
		}
	}
	return worst
}

func findUneven(a take) (string, int) {
	t := a.uneven()
	if t == nil {
		return "", 0
	}
	return fmt.Sprintf("%s, is the least sure: on average %s, but it varies by %.0f ms, over %d times.", words.Sentence(wordsOf(t.FingerPair)), onAverage(t.MeanMs), t.SpreadMs, t.Count), t.Count
}

// onAverage words how late a transition comes, as the table of fingers shows it.
func onAverage(ms float64) string {
	switch rounded := math.Round(ms); {
	case rounded > 0:
		return fmt.Sprintf("%.0f ms late", rounded)
	case rounded < 0:
		return fmt.Sprintf("%.0f ms early", -rounded)
	}
	return "in time"
}

// hurried returns the transition that surely comes earliest by more than is heard.
func (a take) hurried() *evenness.Transition {
	for _, t := range slices.Backward(a.Pairs()) {
		if t.Stands && t.MeanMs < 0 {
			return t
		}
	}
	return nil
}

func findHurried(a take) (string, int) {
	t := a.hurried()
	if t == nil {
		return "", 0
	}
	return fmt.Sprintf("%s, is hurried: %.0f ms early on average, %d times. The easy parts go faster than the hard ones.", words.Sentence(wordsOf(t.FingerPair)), -t.MeanMs, t.Count), t.Count
}

// lateGroup returns the group of a kind that surely comes late, the latest.
func (a take) lateGroup(kind evenness.Kind) *evenness.Group {
	var worst *evenness.Group
	for i, g := range a.Groups {
		if g.Kind == kind && g.Number > 0 && g.Stands && g.MeanMs.Value > 0 && (worst == nil || g.MeanMs.Value > worst.MeanMs.Value) {
			worst = &a.Groups[i]
		}
	}
	return worst
}

func findCrossing(a take) (string, int) {
	g := a.lateGroup(evenness.ByCrossing)
	switch {
	case g == nil:
		return "", 0
	case g.Number > 1:
		return fmt.Sprintf("Notes %d strings away come late, by %s.", g.Number, give(g.MeanMs, "ms")), g.Count
	}
	return fmt.Sprintf("Changing the string costs time: the note after it comes late by %s.", give(g.MeanMs, "ms")), g.Count
}

func findShift(a take) (string, int) {
	g := a.lateGroup(evenness.ByShift)
	if g == nil {
		return "", 0
	}
	return fmt.Sprintf("After a shift of the hand the note comes late, by %s.", give(g.MeanMs, "ms")), g.Count
}

// findWay names the way, there or back, that is less even than the other.
func findWay(a take) (string, int) {
	g, other := a.unevenWay()
	if g == nil {
		return "", 0
	}
	names := [...]string{"way there", "way back"}
	return fmt.Sprintf("The %s is less even than the %s: its intervals vary by %.0f ms, the others by %.0f.",
		names[g.Number], names[other.Number], g.SpreadMs.Value, other.SpreadMs.Value), g.Count
}

// unevenWay returns the way that surely varies more, and the other one.
func (a take) unevenWay() (uneven, other *evenness.Group) {
	for i, g := range a.Groups {
		switch {
		case g.Kind != evenness.ByWay:
		case g.Varies:
			uneven = &a.Groups[i]
		default:
			other = &a.Groups[i]
		}
	}
	return uneven, other
}

func findDrift(a take) (string, int) {
	return eitherWay(a.Pulse.Drifts, a.Pulse.DriftPercent, "%", "The tempo rises over the take", "The tempo falls over the take")
}

// eitherWay words a figure that stands, on either side.
func eitherWay(stands bool, f *evenness.Figure, unit, above, below string) (string, int) {
	switch {
	case !stands:
		return "", 0
	case f.Value > 0:
		return above + " by " + give(f, unit) + ".", f.Count
	}
	return below + " by " + give(f, unit) + ".", f.Count
}

func findClick(a take) (string, int) {
	return eitherWay(a.Pulse.OffClick, a.Pulse.ClickMs, "ms", "You play behind the click,", "You play ahead of the click,")
}

// softSlurs is how much softer than picked ones slurred notes may be without a
// word, in dB: a finger never strikes like a pick.
const softSlurs = 4

func findSoftSlurs(a take) (string, int) {
	l := a.Slurs.LevelDB
	if !l.Below(softSlurs) {
		return "", 0
	}
	return "Slurred notes are softer than picked ones by " + give(l, "dB") + ": let the fingers fall faster, and pluck with those that leave.", l.Count
}

// findSoftPair names a pair that is softer than others that start alike.
func findSoftPair(a take) (string, int) {
	t := a.soft()
	if t == nil {
		return "", 0
	}
	return fmt.Sprintf("%s, is soft: %.0f dB softer than the others, %d times.", words.Sentence(wordsOf(t.FingerPair)), t.SofterDB.Value, t.Count), t.Count
}

func (a take) soft() *evenness.Transition {
	for _, t := range a.Pairs() {
		if t.Soft {
			return t
		}
	}
	return nil
}

// oftenShare is how often something must happen, of the times it could, to be a
// habit.
const oftenShare = 0.2

func often(n, of int) bool {
	return of >= evenness.Fewest && n >= 3 && float64(n) >= oftenShare*float64(of)
}

func findGaps(a take) (string, int) {
	c := a.Connection
	if !often(c.Gaps, c.GapsOf) {
		return "", 0
	}
	return fmt.Sprintf("%d of %d notes end before the next begins: a finger is lifted or put down early, or the pick rests on the string.", c.Gaps, c.GapsOf), c.GapsOf
}

func findRinging(a take) (string, int) {
	c := a.Connection
	if !often(c.Ringing, c.RingingOf) {
		return "", 0
	}
	return fmt.Sprintf("After %d of %d string changes the string left behind rings on: damp thicker strings with the palm, thinner ones with the underside of the first finger.", c.Ringing, c.RingingOf), c.RingingOf
}

func findBend(a take) (string, int) {
	c := a.Connection
	if !often(c.Bent, c.BentOf) {
		return "", 0
	}
	return fmt.Sprintf("Before %d of %d pull-offs the string is dragged sideways and rises in pitch: hold it with the finger that stays.", c.Bent, c.BentOf), c.BentOf
}

func findTiring(a take) (string, int) {
	e := a.Endurance
	if e == nil || !e.Tires {
		return "", 0
	}
	return fmt.Sprintf("The hand tires: the spread grows from %.0f ms in the first third to %.0f ms in the last. Shorter takes, with rests; stop if it hurts.",
		e.First.SpreadMs.Value, e.Last.SpreadMs.Value), e.Last.SpreadMs.Count
}

// clearlyMore is how many times one part of the unevenness must outweigh the
// other to be named.
const clearlyMore = 2.0

func findSource(a take) (string, int) {
	clock, motor := a.Pulse.ClockMs, a.Pulse.MotorMs
	switch {
	case clock == nil || a.Timing.SpreadMs < a.Timing.AudibleMs || a.late() != nil:
		return "", 0
	case clock.Value-clock.PlusMinus > clearlyMore*(motor.Value+motor.PlusMinus):
		return fmt.Sprintf("The beat itself wavers, by %.0f ms a note, more than the fingers: listen to the click.", clock.Value), clock.Count
	case motor.Value-motor.PlusMinus > clearlyMore*(clock.Value+clock.PlusMinus):
		return fmt.Sprintf("The beat is steady; single fingers stray from it, by %.0f ms.", motor.Value), motor.Count
	}
	return "", 0
}

// sentence begins with a capital.
