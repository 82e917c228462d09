package midifile

import (
	"fmt"
	"strings"

	"manudrill/core/drill"
)

// readText reads what textOf has written; any other text changes nothing.
func readText(text string, n *drill.ScoreNote) {
	var attack string
	read := *n
	if got, _ := fmt.Sscanf(text, "string %d fret %d finger %d %s", &read.String, &read.Fret, &read.Finger, &attack); got != 4 {
		return
	}
	if read.Attack = drill.Attack(attack); !read.Attack.Known() {
		return
	}
	read.Hand = drill.FrettingHand
	if read.Attack == drill.Tap || strings.Contains(text, " tapping hand") {
		read.Hand = drill.TappingHand
	}
	if at := strings.Index(text, " bend "); at >= 0 {
		_, _ = fmt.Sscanf(text[at:], " bend %d", &read.Bend) // none where it is no number
	}
	words := strings.Fields(text)
	switch last := drill.Stroke(words[len(words)-1]); last {
	case drill.DownStroke, drill.UpStroke, drill.Index, drill.Middle:
		read.Stroke = last
	}
	*n = read
}
