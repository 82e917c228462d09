package advice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/advice"
	"manudrill/core/drill"
	"manudrill/core/guitar"
)

func TestCues(t *testing.T) {
	chart := func(p drill.Pattern, set func(*drill.Drill)) drill.Chart {
		d := drill.New("x", p)
		if set != nil {
			set(&d)
		}
		c, err := d.Chart(guitar.Standard(), 80)
		require.NoError(t, err)
		return c
	}
	pulls := chart(drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.PullOffs}, nil)
	hammers := chart(drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns}, nil)
	taps := chart(drill.Tapping{Low: 1, Middle: 4, TapAt: 7, Order: drill.TapInTurn}, func(d *drill.Drill) { d.Path.Strings = []int{2} })
	found := func(about ...string) (all []advice.Finding) {
		for _, a := range about {
			all = append(all, advice.Finding{About: a})
		}
		return all
	}
	for name, c := range map[string]struct {
		chart  drill.Chart
		school drill.School
		found  []advice.Finding
		first  string
	}{
		"a dragged string":             {pulls, drill.School{}, found("bend"), "Pull down into the next string rather than away from the neck."},
		"the same, amplified":          {pulls, drill.School{PullOff: drill.PullLift}, found("bend"), "Lift lightly; do not drag the string aside."},
		"soft pull-offs that may ring": {pulls, drill.School{PullOff: drill.PullClear}, found("slurs"), "Pull clear of the next string, so that it can ring."},
		"soft hammer-ons":              {hammers, drill.School{}, found("slurs"), "Hammer from close by, fingertip right behind the fret."},
		"the same, from the knuckle":   {hammers, drill.School{Hammer: drill.HammerKnuckle}, found("slurs"), "Hammer from the large knuckle, fingertip right behind the fret."},
		"a ringing string":             {hammers, drill.School{}, found("ringing"), "Palm on the thicker strings, the underside of the first finger on the thinner ones."},
		"a tiring hand":                {hammers, drill.School{}, found("tires"), "Press no harder than the note needs once it sounds."},
		"the most important first":     {pulls, drill.School{}, found("ringing", "bend"), "Palm on the thicker strings, the underside of the first finger on the thinner ones."},
		"hurried":                      {hammers, drill.School{}, found("hurried"), "Slow down until it is even; do not hurry the easy places."},
		"nothing yet":                  {taps, drill.School{Tap: drill.TapMiddle}, nil, "Tap with the tip of the middle finger, and pluck the string as it leaves."},
	} {
		said := advice.Cues(c.chart, c.school, c.found)
		require.NotEmpty(t, said, name)
		assert.Equal(t, c.first, said[0], name)
		assert.LessOrEqual(t, len(said), 2, name)
	}
	// What the drill does not have is not spoken of.
	for _, about := range []string{"slurs", "bend", "late", "uneven", "gaps", "tires"} {
		for _, said := range advice.Cues(hammers, drill.School{}, found(about)) {
			assert.NotContains(t, said, "Pull")
			assert.NotContains(t, said, "Tap")
		}
	}
}

// Every way of a school has another cue than its other ways, where it has one, and no
// choice is without a reason.
func TestSchools(t *testing.T) {
	for _, c := range drill.SchoolChoices {
		assert.Equal(t, c.Options[0].Value, drill.School{}.Says(c.ID))
		for _, o := range c.Options {
			assert.NotEmpty(t, o.Reason)
		}
	}
	setup := drill.UsualSetup()
	setup.School.PullOff = "sideways"
	assert.Error(t, setup.Validate())
	setup.School.PullOff = drill.PullClear
	assert.NoError(t, setup.Validate())
}
