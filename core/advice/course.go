package advice

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"manudrill/core/drill/chart"
	"manudrill/core/follow"
)

// mostTold is how many events are told one by one.
const mostTold = 2

// findCourse says what the player did besides playing on, as a teacher would: without
// reproach, and that it spoils no other figure.
func findCourse(a take) (string, int) {
	events := a.Course.Events
	if len(events) == 0 {
		return "", 0
	}
	return "You " + a.course() + "." + a.apart(), len(events)
}

// course words all events of a take.
func (t take) course() string {
	events := t.Course.Events
	more := len(events) - mostTold
	if more > 0 && alike(events) {
		return fmt.Sprintf("%s %d times, first %s", didOften[events[0].Kind], len(events), t.where(events[0]))
	}
	told := make([]string, 0, mostTold)
	for _, e := range events[:min(mostTold, len(events))] {
		told = append(told, t.event(e))
	}
	text := strings.Join(told, ", then ")
	if more > 0 {
		text += fmt.Sprintf("; and %d more", more)
	}
	return text
}

// alike reports whether all events are of one kind.
func alike(events []follow.Event) bool {
	return !slices.ContainsFunc(events, func(e follow.Event) bool { return e.Kind != events[0].Kind })
}

// didOften words kinds of events that may come several times.
var didOften = map[follow.EventKind]string{
	follow.Hesitation: "hesitated", follow.Stop: "stopped", follow.Restart: "began again", follow.Replay: "went back",
	follow.Skip: "left notes out", follow.Double: "struck a note twice", follow.Correction: "corrected a note",
}

// where says where an event was.
func (t take) where(e follow.Event) string {
	if e.Kind == follow.Correction {
		return "at " + t.number(e.Before)
	}
	return "before " + t.number(e.Before)
}

// event words what the player did: "hesitated before note 14, by a third of a second".
func (t take) event(e follow.Event) string {
	switch e.Kind {
	case follow.Hesitation:
		return fmt.Sprintf("hesitated before %s, by %s", t.number(e.Before), aWhile(e.Seconds))
	case follow.Stop:
		return fmt.Sprintf("stopped for %.1f s before %s and went on", e.Seconds, t.number(e.Before))
	case follow.Restart:
		return fmt.Sprintf("began again after %s", t.number(e.Before-1))
	case follow.Replay:
		return fmt.Sprintf("went back from %s to %s", t.number(e.Before-1), t.after(e.Before-1, *e.To))
	case follow.Skip:
		return fmt.Sprintf("went on from %s to %s and left out what is between", t.number(e.Before-1), t.after(e.Before-1, *e.To))
	case follow.Double:
		return fmt.Sprintf("struck %s twice", t.number(e.Before-1))
	case follow.Correction:
		return "corrected " + t.number(e.Before)
	case follow.Left:
		return "left off after " + t.number(e.Before-1)
	case follow.Swing:
		return swing(e.Share, t.chart)
	case follow.Transposed:
		return "played " + frets(e.Semitones)
	case follow.OffBeat:
		return "came in " + beats(e.Seconds*t.chart.BPM/60)
	case follow.OtherTempo:
		return fmt.Sprintf("held %.0f bpm instead of %.0f", e.Share*t.Tempo.AskedBPM, t.Tempo.AskedBPM)
	}
	return string(e.Kind)
}

// after names a note where another has been named: its pass only where that is another.
func (t take) after(named, index int) string {
	if size := len(t.chart.Notes); named/size == index/size {
		return fmt.Sprintf("note %d", index%size+1)
	}
	return t.number(index)
}

// aWhile words a short time as it is said.
func aWhile(seconds float64) string {
	switch {
	case seconds < 0.15:
		return "a tenth of a second"
	case seconds < 0.23:
		return "a fifth of a second"
	case seconds < 0.29:
		return "a quarter of a second"
	case seconds < 0.42:
		return "a third of a second"
	case seconds < 0.6:
		return "half a second"
	}
	return fmt.Sprintf("%.1f s", seconds)
}

// straightFrom is up to which share of the first of two notes they are called straight.
const straightFrom = 0.53

// swing words how the notes were shared, where the chart asks otherwise.
func swing(share float64, c chart.Chart) string {
	switch {
	case !c.Swings():
		return fmt.Sprintf("swung it, the first of each two notes taking %.0f %% of their time", 100*share)
	case share < straightFrom:
		return "played it straight, where it is to be swung"
	}
	return fmt.Sprintf("swung it by %.0f %% where %.0f %% is asked for", 100*share, 100*c.Swing)
}

// beats words by how many beats, to the half, a player came in late (+) or early.
func beats(n float64) string {
	way := "late"
	if n < 0 {
		way = "early"
	}
	if n = math.Round(2*math.Abs(n)) / 2; n == 1 {
		return "a beat " + way
	}
	return fmt.Sprintf("%g beats %s", n, way)
}

// highestCapo is the highest fret that a capo is put on (common practice).
const highestCapo = 7

// frets words how far off all was played.
func frets(semitones int) string {
	way, capo := "too high", ""
	if semitones < 0 {
		way, semitones = "too low", -semitones
	} else if semitones <= highestCapo {
		capo = fmt.Sprintf(", or with a capo on fret %d", semitones)
	}
	switch semitones {
	case 1:
		return "one fret " + way + capo
	case 12:
		return "an octave " + way
	}
	return fmt.Sprintf("%d frets %s%s", semitones, way, capo)
}

// apart says how even the rest was, where it was right and nothing is said of its timing.
func (t take) apart() string {
	tires := t.Endurance != nil && t.Endurance.Tires
	if t.Counts.Wrong+t.Counts.Missed > 0 || t.Timing.SpreadMs > t.Timing.AudibleMs || tires || len(t.causes()) > 0 {
		return ""
	}
	return fmt.Sprintf(" Apart from that it was even: %.0f ms.", t.Timing.SpreadMs)
}

// toldApart reports whether an event tells of an extra note, by its time, s: it is not told
// again among the mistakes. Events lie in order of time, and the first that is not over then
// is the one that may.
func (t take) toldApart(at float64) bool {
	events := t.Course.Events
	i, _ := slices.BinarySearchFunc(events, at-follow.SameTime, func(e follow.Event, at float64) int { return cmp.Compare(e.T, at) })
	return i < len(events) && events[i].Tells(at)
}

// skipped are the indices of notes among those left out at one go: they are not told again
// among the mistakes.
func (t take) skipped() map[int]bool {
	out := map[int]bool{}
	for _, e := range t.Course.Events {
		for i := e.Before; e.Kind == follow.Skip && i < *e.To; i++ {
			out[i] = true
		}
	}
	return out
}
