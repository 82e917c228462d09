package chart

// A Stroke is what makes a picked note sound: the pick's direction, or the
// plucking finger. Slurred notes have none.
type Stroke string

// Down and up strokes of the pick; index and middle finger.
const (
	DownStroke Stroke = "down"
	UpStroke   Stroke = "up"
	Index      Stroke = "i"
	Middle     Stroke = "m"
)
