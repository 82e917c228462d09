package progress

import (
	"cmp"
	"slices"
	"strings"
	"time"
)

// A PaperEntry is a line of a log that was kept on paper. Nothing of it was measured: it is
// told by itself, and moves no finding and no forecast.
type PaperEntry struct {
	Day          time.Time
	Drill        string
	BPM          *float64
	NotesPerBeat *int
	Minutes      *float64
	Note         string
}

// A PaperDrill is what was written down of a drill.
type PaperDrill struct {
	Name    string       `json:"name"`
	Entries int          `json:"entries"`
	Minutes float64      `json:"minutes"` // of those entries that say them
	Points  []PaperPoint `json:"points"`  // in order
}

// A PaperPoint is a tempo as it was written down.
type PaperPoint struct {
	Day time.Time `json:"day"`
	BPM float64   `json:"bpm"`
}

// maxPaperDrills is how many drills of a log are told, those most often written down.
const maxPaperDrills = 24

// PaperOf gathers entries, in order, by their drills, whatever their case; those written
// down most often come first. Of several tempi of a day the fastest is told.
func PaperOf(entries []PaperEntry) []PaperDrill {
	drills := []PaperDrill{}
	at := map[string]int{}
	for _, e := range entries {
		key := strings.ToLower(e.Drill)
		i, known := at[key]
		if !known {
			i = len(drills)
			at[key] = i
			drills = append(drills, PaperDrill{Name: e.Drill, Points: []PaperPoint{}})
		}
		drills[i].add(e)
	}
	slices.SortStableFunc(drills, func(a, b PaperDrill) int { return cmp.Compare(b.Entries, a.Entries) })
	return drills[:min(len(drills), maxPaperDrills)]
}

func (d *PaperDrill) add(e PaperEntry) {
	d.Entries++
	if e.Minutes != nil {
		d.Minutes += *e.Minutes
	}
	if e.BPM == nil {
		return
	}
	if n := len(d.Points); n > 0 && d.Points[n-1].Day.Equal(e.Day) {
		d.Points[n-1].BPM = max(d.Points[n-1].BPM, *e.BPM)
		return
	}
	d.Points = append(d.Points, PaperPoint{e.Day, *e.BPM})
}
