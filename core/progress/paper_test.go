package progress_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"manudrill/core/progress"
)

func TestWhatWasWrittenDown(t *testing.T) {
	day := func(d int) time.Time { return time.Date(2025, 3, d, 0, 0, 0, 0, time.UTC) }
	bpm, faster, minutes := 72.0, 80.0, 5.0
	assert.Equal(t, []progress.PaperDrill{
		{Name: "Slurs", Entries: 3, Minutes: 10, Points: []progress.PaperPoint{{day(1), 80}, {day(3), 72}}},
		{Name: "Trills", Entries: 1, Minutes: 5, Points: []progress.PaperPoint{}},
	}, progress.PaperOf([]progress.PaperEntry{
		{Day: day(1), Drill: "Slurs", BPM: &bpm, Minutes: &minutes}, {Day: day(1), Drill: "slurs", BPM: &faster},
		{Day: day(2), Drill: "Trills", Minutes: &minutes}, {Day: day(3), Drill: "SLURS", BPM: &bpm, Minutes: &minutes},
	}))
	assert.Equal(t, []progress.PaperDrill{}, progress.PaperOf(nil))
	var many []progress.PaperEntry
	for i := range 100 {
		many = append(many, progress.PaperEntry{Day: day(1), Drill: fmt.Sprint(i)})
	}
	assert.Len(t, progress.PaperOf(many), 24, "a list has a bound")
}
