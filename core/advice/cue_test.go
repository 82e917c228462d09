package advice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/advice"
	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/setup"
)

func TestCues(t *testing.T) {
	written := func(p drill.Pattern, set func(*drill.Drill)) chart.Chart {
		d := drill.New("x", p)
		if set != nil {
			set(&d)
		}
		c, err := d.Chart(guitar.Standard(), 80)
		require.NoError(t, err)
		return c
	}
	pulls := written(drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.PullOffs}, nil)
	hammers := written(drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns}, nil)
	taps := written(drill.Tapping{Low: 1, Middle: 4, TapAt: 7, Order: drill.TapInTurn}, func(d *drill.Drill) { d.Path.Strings = []int{2} })
	found := func(about ...string) (all []advice.Finding) {
		for _, a := range about {
			all = append(all, advice.Finding{About: a})
		}
		return all
	}
	for name, c := range map[string]struct {
		chart  chart.Chart
		school setup.School
		found  []advice.Finding
		first  string
	}{
		"a dragged string":             {pulls, setup.School{}, found("bend"), "Pull down into the next string rather than away from the neck."},
		"the same, amplified":          {pulls, setup.School{PullOff: setup.PullLift}, found("bend"), "Lift lightly; do not drag the string aside."},
		"soft pull-offs that may ring": {pulls, setup.School{PullOff: setup.PullClear}, found("slurs"), "Pull clear of the next string, so that it can ring."},
		"soft hammer-ons":              {hammers, setup.School{}, found("slurs"), "Hammer from close by, fingertip right behind the fret."},
		"the same, from the knuckle":   {hammers, setup.School{Hammer: setup.HammerKnuckle}, found("slurs"), "Hammer from the large knuckle, fingertip right behind the fret."},
		"a ringing string":             {hammers, setup.School{}, found("ringing"), "Palm on the thicker strings, the underside of the first finger on the thinner ones."},
		"a tiring hand":                {hammers, setup.School{}, found("tires"), "Press no harder than the note needs once it sounds."},
		"the most important first":     {pulls, setup.School{}, found("ringing", "bend"), "Palm on the thicker strings, the underside of the first finger on the thinner ones."},
		"hurried":                      {hammers, setup.School{}, found("hurried"), "Slow down until it is even; do not hurry the easy places."},
		"nothing yet":                  {taps, setup.School{Tap: setup.TapMiddle}, nil, "Tap with the tip of the middle finger, and pluck the string as it leaves."},
	} {
		said := advice.Cues(c.chart, c.school, c.found)
		require.NotEmpty(t, said, name)
		assert.Equal(t, c.first, said[0], name)
		assert.LessOrEqual(t, len(said), 2, name)
	}
	// What the drill does not have is not spoken of.
	for _, about := range []string{"slurs", "bend", "late", "uneven", "gaps", "tires"} {
		for _, said := range advice.Cues(hammers, setup.School{}, found(about)) {
			assert.NotContains(t, said, "Pull")
			assert.NotContains(t, said, "Tap")
		}
	}
}

// Every way of a school has another cue than its other ways, where it has one, and no
// choice is without a reason.
func TestSchools(t *testing.T) {
	for _, c := range setup.SchoolChoices {
		assert.Equal(t, c.Options[0].Value, setup.School{}.Says(c.ID))
		for _, o := range c.Options {
			assert.NotEmpty(t, o.Reason)
		}
	}
	mine := setup.Usual()
	mine.School.PullOff = "sideways"
	assert.Error(t, mine.Validate())
	mine.School.PullOff = setup.PullClear
	assert.NoError(t, mine.Validate())
}
