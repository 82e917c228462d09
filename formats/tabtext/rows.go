package tabtext

import (
	"fmt"
	"math/bits"
	"regexp"
	"strconv"
	"strings"

	"manudrill/core/guitar"
)

// A row is a line of tablature: what it is called and what stands on its string.
type row struct {
	label    string // "e", "F#", "3"; empty where there is none
	body     string // from where columns are counted
	barred   bool   // a bar line parts the label from the body
	repeated int    // how often it is said to be played; 0 where that is not said
}

var (
	rowLine  = regexp.MustCompile(`^\s*([A-Ga-g][#b]?\d?|\d)?\s*([|:]*)(.*)$`)
	onString = regexp.MustCompile(`^[-0-9hptnsbrxvHPTNSBRX/\\|~^()<>\[\]{}*=. ]*$`)
	times    = regexp.MustCompile(`(?:\||\s)\s*[(\[]?(?:[xX]\s*(\d{1,2})|(\d{1,2})\s*[xX])[)\]]?\s*$`)
)

// stars are what dots at a bar line are read as.
var stars = strings.NewReplacer("|:", "|*", ":|", "*|")

// plainer writes the signs of a text as most tabs have them: long dashes, drawn lines,
// accidentals and what stands for x.
var plainer = strings.NewReplacer("–", "-", "—", "-", "‒", "-", "―", "-", "−", "-", "─", "-", "━", "-", "│", "|", "┃", "|", "║", "||", "¦", "|",
	"♯", "#", "♭", "b", "×", "x", "\u00a0", " ", "\t", " ", "\r", "")

// rowOf reads a line as one of a string; false where it is none. A line of dashes alone is
// one too: whether it is an empty string or a rule shows beside others.
func rowOf(line string) (row, bool) {
	r := row{}
	if !strings.Contains(line, "-") {
		return r, false
	}
	if m := timesOf(line); m != nil {
		count := line[max(m[2], m[4]):max(m[3], m[5])]
		r.repeated, _ = strconv.Atoi(count) // two digits by the pattern
		line = line[:m[0]]
	}
	m := rowLine.FindStringSubmatchIndex(line)
	if m[2] >= 0 {
		r.label = line[m[2]:m[3]]
	}
	bar := line[m[4]:m[5]]
	r.barred, r.body = bar != "", line[m[6]:]
	// Dots that stand at a bar line say that it is repeated.
	r.body = stars.Replace(r.body)
	if strings.Contains(bar, ":") && strings.Contains(bar, "|") {
		r.body = "*" + r.body
	}
	dashes := strings.Count(r.body, "-")
	few := !r.barred && 4*dashes < len(strings.TrimSpace(r.body))
	return r, dashes > 0 && !few && onString.MatchString(r.body)
}

// timesOf finds how often a row is said to be played.
func timesOf(line string) []int {
	if !strings.ContainsAny(line, "xX") {
		return nil
	}
	return times.FindStringSubmatchIndex(line)
}

// rule reports whether nothing stands in a row, not even what it is called.
func (r row) rule() bool { return r.label == "" && !r.barred && strings.Trim(r.body, "-= ") == "" }

// named reports whether all rows are called by notes.
func named(rows []row) bool {
	for _, r := range rows {
		if r.label == "" || r.numbered() {
			return false
		}
	}
	return len(rows) > 0
}

// numbered reports whether a row is called by its number.
func (r row) numbered() bool {
	return r.label != "" && r.label[0] >= '0' && r.label[0] <= '9' && r.barred
}

// parted parts rows that stand under one another into those that belong together, on a
// guitar with so many strings: by the names that come again, by their number, or by lines of
// dashes that are no empty strings, since there are more rows than strings.
func parted(rows []row, strings int) (systems [][]row) {
	if len(rows) > 0 && rows[0].numbered() {
		return byNumbers(rows)
	}
	if n := period(rows, strings); n > 0 {
		for ; len(rows) > 0; rows = rows[n:] {
			systems = append(systems, rows[:n])
		}
		return systems
	}
	from := 0
	for i := 0; i <= len(rows); i++ {
		if i < len(rows) && !rows[i].rule() {
			continue
		}
		if i > from {
			systems = append(systems, parted(rows[from:i], strings)...)
		}
		from = i + 1
	}
	return systems
}

// byNumbers parts rows that are called by numbers where one comes again.
func byNumbers(rows []row) (systems [][]row) {
	from := 0
	seen := map[string]bool{}
	for i, r := range rows {
		if seen[r.label] {
			systems, from = append(systems, rows[from:i]), i
			clear(seen)
		}
		seen[r.label] = true
	}
	return append(systems, rows[from:])
}

// period is after how many rows the same strings come again; 0 where rules must part them.
func period(rows []row, strings int) int {
	rules := 0
	for _, r := range rows {
		if r.rule() {
			rules++
		}
	}
	if len(rows) == 0 || rules == len(rows) {
		return 0
	}
	for _, n := range []int{strings, 4, 5, 6, 7, 8, guitar.MaxStrings} {
		again := len(rows)%n == 0 && (n == strings || rules == 0)
		for i := n; again && i < len(rows); i++ {
			again = rows[i].label == rows[i-n].label
		}
		if again {
			return n
		}
	}
	if rules == 0 {
		return len(rows)
	}
	return 0
}

// A layout says for which string each row stands, and how the strings are tuned.
type layout struct {
	strings []int // from 1
	tuning  []int // MIDI numbers, string 1 first
}

// layoutOf finds out for which strings rows stand on a guitar tuned so: by their numbers,
// by the notes they are called by, whichever way up they are written, or by their places
// where all strings have a row, the thinnest on top (common practice).
func layoutOf(rows []row, tuning []int) (layout, error) {
	if named(rows) {
		return byNotes(rows, tuning)
	}
	l := layout{tuning: tuning}
	for i, r := range rows {
		str := i + 1
		if r.numbered() {
			str, _ = strconv.Atoi(r.label) // a digit by the pattern
			if str < 1 || str > len(tuning) {
				return l, fmt.Errorf("there is no string %d; this guitar has strings 1 to %d", str, len(tuning))
			}
		} else if len(rows) != len(tuning) {
			return l, fmt.Errorf("these rows are %d lines, but the guitar has %d strings; write a line for each string, or begin each line with its number or its note, such as 3|--5h7--", len(rows), len(tuning))
		}
		l.strings = append(l.strings, str)
	}
	return l, nil
}

// byNotes lays rows out by the notes they are called by.
func byNotes(rows []row, tuning []int) (layout, error) {
	if len(rows) > len(tuning) {
		return moreStrings(rows, tuning)
	}
	best, cost := layout{}, -1
	for _, turned := range []bool{false, true} {
		for _, strs := range choices(len(tuning), len(rows)) {
			l := layout{strings: make([]int, len(rows))}
			for i := range rows {
				l.strings[i] = strs[i]
				if turned {
					l.strings[i] = strs[len(rows)-1-i]
				}
			}
			if c := l.misfit(rows, tuning); cost < 0 || c < cost {
				best, cost = l, c
			}
		}
	}
	best.tuning = append([]int{}, tuning...)
	if len(rows) < len(tuning) && cost >= otherNote {
		return best, fmt.Errorf("these rows are %d lines, called by notes that no %d strings of this guitar are tuned to; write a line for each string", len(rows), len(rows))
	}
	for i, r := range rows {
		best.tuning[best.strings[i]-1] += away(r.label, tuning[best.strings[i]-1])
	}
	return best, nil
}

// otherNote is what a string costs that is tuned otherwise than its row is called; a case
// that speaks for the other e costs one.
const otherNote = 10

// misfit is how badly rows fit the strings they would stand for.
func (l layout) misfit(rows []row, tuning []int) (cost int) {
	for i, r := range rows {
		str := l.strings[i]
		by := away(r.label, tuning[str-1])
		cost += otherNote * max(by, -by)
		// A small e is the thin one (common practice).
		if small := r.label[0] >= 'a'; small != (str == 1) && (str == 1 || str == len(tuning)) {
			cost++
		}
	}
	return cost
}

// away is by how many semitones, the nearest way, a note lies from a string.
func away(label string, open int) int {
	by := (classOf(label) - open%12 + 12) % 12
	if by > 6 {
		by -= 12
	}
	return by
}

// classOf is the pitch class of a note's name, whatever its case: of one by the pattern.
func classOf(label string) int {
	class := map[byte]int{'C': 0, 'D': 2, 'E': 4, 'F': 5, 'G': 7, 'A': 9, 'B': 11}[label[0]&^0x20]
	if strings.Contains(label[1:], "#") {
		class++
	}
	if strings.Contains(label[1:], "b") {
		class += 11
	}
	return class % 12
}

// choices are all ways to choose n of so many strings, in order.
func choices(strings, n int) (all [][]int) {
	for set := uint(0); set < 1<<strings; set++ {
		if bits.OnesCount(set) != n {
			continue
		}
		var chosen []int
		for str := range strings {
			if set&(1<<str) != 0 {
				chosen = append(chosen, str+1)
			}
		}
		all = append(all, chosen)
	}
	return all
}

// moreStrings lays out rows for a guitar with more strings than this one has: the first
// of them as here, each further one the note it is called by below the one before.
func moreStrings(rows []row, tuning []int) (layout, error) {
	if len(rows) > guitar.MaxStrings {
		return layout{}, fmt.Errorf("these rows are %d lines; a guitar has %d strings at the most", len(rows), guitar.MaxStrings)
	}
	l, err := byNotes(rows[:len(tuning)], tuning)
	for i := len(tuning); i < len(rows) && err == nil; i++ {
		below := l.tuning[i-1]
		by := (below%12 - classOf(rows[i].label) + 12) % 12
		l.strings = append(l.strings, i+1)
		l.tuning = append(l.tuning, below-by)
	}
	return l, err
}
