package progress

import (
	"fmt"
	"math"
	"time"

	"manudrill/core/evenness"
)

// Since says in three sentences what has changed with a student since a day: how much was
// played, what was won, and what the fingers do now.
func Since(drills []PlayedDrill, day, today time.Time) []string {
	return []string{playedSince(drills, day, today), wonSince(drills, day), fingersSince(drills, day)}
}

func playedSince(drills []PlayedDrill, day, today time.Time) string {
	days := map[time.Time]bool{}
	takes, seconds := 0, 0.0
	eachDay(drills, func(_ PlayedDrill, d Day) {
		if d.Date.Before(day) {
			return
		}
		days[d.Date] = true
		takes += d.Takes
		seconds += d.Seconds
	})
	if takes == 0 {
		return fmt.Sprintf("Nothing was played in %s.", span(today.Sub(day)))
	}
	return fmt.Sprintf("Played on %s of %s: %s, %.0f min of sound.", several(len(days), "day"), span(today.Sub(day)), several(takes, "take"), math.Ceil(seconds/60))
}

func eachDay(drills []PlayedDrill, do func(PlayedDrill, Day)) {
	for _, d := range drills {
		for _, w := range d.Weeks {
			for _, day := range w.Days {
				do(d, day)
			}
		}
	}
}

// wonSince tells of the drill on which most was won, or lost, since a day.
func wonSince(drills []PlayedDrill, day time.Time) string {
	text, most := "No rung was won, and none lost.", 0.0
	for _, d := range drills {
		r := d.record()
		before, after := r.standsBefore(day)
		if before == nil || after == nil {
			continue
		}
		if change := after.Stands.NotesPerSecond()/before.Stands.NotesPerSecond() - 1; math.Abs(change) > math.Abs(most) {
			most = change
			text = fmt.Sprintf("%s: from %s to %s.", d.Name, shortly(r.speed(before.Stands)), r.say(r.speed(after.Stands)))
		}
	}
	return text
}

// standsBefore are the last day with takes that count before a day, and the last since.
func (r Record) standsBefore(day time.Time) (before, after *Day) {
	for i, d := range r.Days {
		switch {
		case d.Counting == 0:
		case d.Date.Before(day):
			before = &r.Days[i]
		default:
			after = &r.Days[i]
		}
	}
	return before, after
}

// fingersSince tells of the pair that comes latest in the weeks since a day, against the
// four weeks before.
func fingersSince(drills []PlayedDrill, day time.Time) string {
	var before, after [][]evenness.Sum
	for _, d := range drills {
		for _, w := range d.Weeks {
			switch {
			case !w.Begins.Before(Monday(day)):
				after = append(after, w.Sums)
			case day.Sub(w.Begins) < (thenWeeks+1)*week:
				before = append(before, w.Sums)
			}
		}
	}
	now := evenness.AddUp(after...)
	var latest PairCourse
	for _, s := range now {
		late := s.Late()
		if s.Kind == evenness.ByPair && s.Count >= pairNotes && late.Exceeds(lateHeard) && late.Value > latest.LateMs {
			latest = PairCourse{SumOf: s.SumOf, LateMs: late.Value, PlusMinusMs: late.PlusMinus, Count: s.Count}
			latest.compare(s, evenness.AddUp(before...), "in the weeks before")
		}
	}
	if latest.Count == 0 {
		return "No pair of fingers comes late, surely and so that it is heard."
	}
	return latest.Text
}

// record is what was played of the drill.
func (d PlayedDrill) record() Record {
	r := Record{Rungs: d.Rungs}
	for _, w := range d.Weeks {
		r.Days = append(r.Days, w.Days...)
	}
	return r
}
