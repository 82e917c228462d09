package midifile

import (
	"fmt"
	"strings"

	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
)

// readText reads what textOf has written; any other text changes nothing.
func readText(text string, n *score.Note) {
	var attack string
	read := *n
	if got, _ := fmt.Sscanf(text, "string %d fret %d finger %d %s", &read.String, &read.Fret, &read.Finger, &attack); got != 4 {
		return
	}
	if read.Attack = chart.Attack(attack); !read.Attack.Known() {
		return
	}
	read.Hand = chart.FrettingHand
	if read.Attack == chart.Tap || strings.Contains(text, " tapping hand") {
		read.Hand = chart.TappingHand
	}
	if at := strings.Index(text, " bend "); at >= 0 {
		_, _ = fmt.Sscanf(text[at:], " bend %d", &read.Bend) // none where it is no number
	}
	words := strings.Fields(text)
	switch last := chart.Stroke(words[len(words)-1]); last {
	case chart.DownStroke, chart.UpStroke, chart.Index, chart.Middle:
		read.Stroke = last
	}
	*n = read
}
