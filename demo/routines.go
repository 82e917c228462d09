package demo

import (
	"context"

	"github.com/google/uuid"

	"manudrill/core/practice"
	"manudrill/store"
)

// routines are what two of the students practise in one go; the others play drill by
// drill.
var routines = map[string]practice.Routine{
	"Lena Quarrow": {
		Name: "Even before fast",
		Note: "Stop each take while it is still loose. The second drill two steps slower than you could.",
		Items: []practice.Item{
			{Kind: practice.Note, Seconds: 10, Text: "Thumb behind the middle finger; shoulders down."},
			play("One finger per fret 1-3-2-4", practice.Enough{By: practice.ByTakes, Count: 3}, "Listen for the third finger."),
			{Kind: practice.Rest, Seconds: 30, Text: "Let both arms hang."},
			play("Up and down 1-3-4", practice.Enough{By: practice.ByClean, Count: 3, Of: 5}, ""),
			{Kind: practice.Rest, Seconds: 30},
			play("One finger per fret 1-3-2-4", practice.Enough{By: practice.BySeconds, Count: 180}, ""),
		},
	},
	"Bram Tillowe": {
		Name: "Ten slow minutes",
		Items: []practice.Item{
			play("Hammer-on pairs 1-2, 3-4", practice.Enough{By: practice.ByTakes, Count: 4}, "Leave the third finger down until the fourth has landed."),
			{Kind: practice.Rest, Seconds: 60, Text: "Open and close the hand slowly."},
			play("Hammer-on pairs 1-2, 3-4", practice.Enough{By: practice.ByTakes, Count: 4}, ""),
		},
	},
}

func play(drill string, enough practice.Enough, text string) practice.Item {
	return practice.Item{Kind: practice.Play, Drill: id(drill).String(), Enough: &enough, Text: text}
}

// compose gives the students their routines.
func compose(ctx context.Context, s *store.Store) error {
	for name, r := range routines {
		var drills []uuid.UUID
		for _, d := range r.Drills() {
			drills = append(drills, uuid.MustParse(d))
		}
		if err := once(s.PutRoutine(ctx, id("routine "+name), id(name), 0, r, drills)); err != nil {
			return err
		}
	}
	return nil
}
