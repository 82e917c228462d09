package drillfile

import (
	"strings"

	"manudrill/core/drill"
	"manudrill/core/guitar"
)

// MaxBlock is the most drills a block may have.
const MaxBlock = 128

// A Block is a few drills practised one after the other, each for a while: all
// orders of the fingers, say, at 15 seconds each.
type Block struct {
	Name  string      `json:"name"`
	Items []BlockItem `json:"items"`
}

// A BlockItem is a drill of a block.
type BlockItem struct {
	File    File `json:"file"`
	Seconds int  `json:"seconds"`
}

// Check returns all that is wrong with the block on guitar g.
func (b Block) Check(g guitar.Guitar) drill.Faults {
	var faults drill.Faults
	if strings.TrimSpace(b.Name) == "" {
		faults.Add("name", "Give the block a name.")
	}
	if len(b.Items) == 0 || len(b.Items) > MaxBlock {
		faults.Add("items", "A block has 1 to %d drills, not %d.", MaxBlock, len(b.Items))
	}
	for _, item := range b.Items {
		if item.Seconds < 5 || item.Seconds > 3600 {
			faults.Add("items", "“%s” is set to %d seconds; give 5 to 3600.", item.File.Drill.Name, item.Seconds)
		}
		faults = append(faults, item.File.Check(g)...)
	}
	return faults
}

// Joined is one drill of all that the block has, played without a stop for as long as
// the block says, on the first one's ladder. The block must have been checked.
func (b Block) Joined() File {
	var drills []drill.Drill
	var seconds []int
	for _, item := range b.Items {
		drills, seconds = append(drills, item.File.Drill), append(seconds, item.Seconds)
	}
	return File{drill.Joined(b.Name, drills, seconds), b.Items[0].File.Ladder}
}
