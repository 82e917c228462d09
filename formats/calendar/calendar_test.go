package calendar_test

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/plan"
	"manudrill/formats/calendar"
)

var monday = time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)

func some() calendar.Calendar {
	long := strings.Repeat("Ümläute, semicolons; and \\ backslashes ", 4)
	days := []plan.Day{
		{Date: monday, Clean: true, Lines: []plan.Line{
			{Kind: plan.Warming, Name: "Slurs", Position: 9, Seconds: 180}, {Kind: plan.Resting, Seconds: 30}, {Kind: plan.Playing, Name: long, Position: 7, Seconds: 150},
		}},
		{Date: monday.AddDate(0, 0, 1), Lines: []plan.Line{}, Reason: "A day of rest."},
		{Date: monday.AddDate(0, 0, 2), Lines: []plan.Line{{Kind: plan.Playing, Name: "Trill", Seconds: 600}}},
	}
	return calendar.Calendar{ID: "7", Name: "Practice of Mira", ChangedAt: monday.Add(9 * time.Hour), Revision: 3, Plan: plan.Plan{Weeks: []plan.Week{{Begins: monday, Days: days}}}}
}

// Read by another's parser, it says what was planned.
func TestAnotherParserReadsIt(t *testing.T) {
	var out bytes.Buffer
	c := some()
	require.NoError(t, c.Write(&out))
	cal, err := ical.NewDecoder(&out).Decode()
	require.NoError(t, err)
	assert.Equal(t, "2.0", cal.Props.Get(ical.PropVersion).Value)
	events := cal.Events()
	require.Len(t, events, 2, "days of rest are no events")
	first := events[0]
	start, err := first.DateTimeStart(time.UTC)
	require.NoError(t, err)
	end, err := first.DateTimeEnd(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, []time.Time{monday, monday.AddDate(0, 0, 1)}, []time.Time{start, end})
	assert.Equal(t, ical.ValueDate, first.Props.Get(ical.PropDateTimeStart).ValueType())
	summary, err := first.Props.Text(ical.PropSummary)
	require.NoError(t, err)
	assert.Equal(t, "Practice: 6 min", summary)
	text, err := first.Props.Text(ical.PropDescription)
	require.NoError(t, err)
	assert.Equal(t, "Clean tone.\n3 min: warm-up, Slurs, position 9\n2.5 min: "+c.Plan.Weeks[0].Days[0].Lines[2].Name+", position 7", text)
	uid, err := first.Props.Text(ical.PropUID)
	require.NoError(t, err)
	assert.Equal(t, "7-2026-03-02@manudrill", uid)
}

// Lines end in CRLF and have 75 octets at the most (RFC 5545, 3.1).
func TestLinesAreFolded(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, some().Write(&out))
	lines := strings.Split(out.String(), "\r\n")
	assert.Empty(t, lines[len(lines)-1])
	for _, line := range lines {
		assert.LessOrEqual(t, len(line), 75)
		assert.NotContains(t, line, "\n")
	}
}

func TestAPlanWithoutADay(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, calendar.Calendar{ID: "7", Name: "x", ChangedAt: monday}.Write(&out))
	assert.NotContains(t, out.String(), "VEVENT")
}
