// Package calendar writes plans as iCalendar (RFC 5545), which calendars of all makers
// read and subscribe to.
package calendar

import (
	"fmt"
	"io"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"manudrill/core/plan"
)

// A Calendar is a student's plan as others see it.
type Calendar struct {
	ID        string // of the student: events keep theirs from one reading to the next
	Name      string
	ChangedAt time.Time
	Revision  int
	Plan      plan.Plan
}

// refresh is how often a calendar that subscribes is to ask again (RFC 7986, 5.7).
const refresh = "PT6H"

// Write writes a calendar: a whole-day event for each day of practice, which lies on its
// day in any time zone.
func (c Calendar) Write(w io.Writer) error {
	cal := ics.NewCalendarFor("Manudrill")
	cal.SetProductId("-//Manudrill//Plan//EN")
	cal.SetName(c.Name)
	cal.SetXWRCalName(c.Name)
	cal.SetRefreshInterval(refresh)
	for _, week := range c.Plan.Weeks {
		for _, d := range week.Days {
			if len(d.Lines) > 0 {
				c.add(cal, d)
			}
		}
	}
	return cal.SerializeTo(w, ics.WithNewLineWindows)
}

func (c Calendar) add(cal *ics.Calendar, d plan.Day) {
	e := cal.AddEvent(fmt.Sprintf("%s-%s@manudrill", c.ID, d.Date.Format(time.DateOnly)))
	e.SetDtStampTime(c.ChangedAt.UTC())
	e.SetSequence(c.Revision)
	e.SetAllDayStartAt(d.Date)
	e.SetAllDayEndAt(d.Date.AddDate(0, 0, 1))
	e.SetTimeTransparency(ics.TransparencyTransparent)
	seconds := 0
	var lines []string
	if d.Clean {
		lines = append(lines, "Clean tone.")
	}
	for _, l := range d.Lines {
		seconds += l.Seconds
		if l.Kind == plan.Resting {
			continue
		}
		text := fmt.Sprintf("%s: %s", minutes(l.Seconds), l.Name)
		if l.Kind == plan.Warming {
			text = fmt.Sprintf("%s: warm-up, %s", minutes(l.Seconds), l.Name)
		}
		if l.Position > 0 {
			text += fmt.Sprintf(", position %d", l.Position)
		}
		lines = append(lines, text)
	}
	e.SetSummary("Practice: " + minutes(seconds))
	e.SetDescription(strings.Join(lines, "\n"))
}

// minutes tells seconds as minutes, to the half.
func minutes(seconds int) string {
	halves := (seconds + 15) / 30
	if halves%2 == 0 {
		return fmt.Sprintf("%d min", halves/2)
	}
	return fmt.Sprintf("%d.5 min", halves/2)
}
