package tabtext

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

var (
	inShort    = regexp.MustCompile(`(?:^|[\s,])\d:[hptns/\\]?\d`)
	shortNotes = regexp.MustCompile(`^(?:(\d):)?((?:[-hptnsHPTNS/\\^]*\d+)+)-*$`)
	shortNote  = regexp.MustCompile(`([hptnsHPTNS/\\^])?-*(\d+)`)
)

// short reads a line of places, as 3:5h7 2:8: frets on a string, which goes on until
// another is named. It says where it cannot read on, so that nothing is lost unseen.
func (r *reader) short(line string) error {
	parts := strings.FieldsFunc(line, func(c rune) bool { return c == ' ' || c == ',' })
	for i, part := range parts {
		m := shortNotes.FindStringSubmatch(part)
		if m == nil || m[1] == "" && r.str == 0 {
			read := strings.Join(parts[:i], " ")
			if read == "" {
				read = "its beginning"
			}
			return fmt.Errorf("after %s, %q cannot be read; write frets on a string, such as 3:5h7", read, part)
		}
		if m[1] != "" {
			r.str, _ = strconv.Atoi(m[1]) // a digit by the pattern
		}
		if r.str < 1 || r.str > len(r.tuning) {
			return fmt.Errorf("there is no string %d; this guitar has strings 1 to %d", r.str, len(r.tuning))
		}
		for _, t := range shortNote.FindAllStringSubmatch(m[2], -1) {
			mark := rune(0)
			if t[1] != "" {
				mark = []rune(strings.ToLower(t[1]))[0]
			}
			n, err := r.note(r.str, mark, t[2])
			if err != nil {
				return err
			}
			n.Bar = r.bars
			r.score.Notes = append(r.score.Notes, n)
		}
	}
	r.bars++
	return nil
}
