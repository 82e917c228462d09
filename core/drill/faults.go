package drill

import (
	"fmt"
	"strings"
)

// A Fault is one setting that cannot be.
type Fault struct {
	Field string `json:"field"` // the setting that is wrong
	Text  string `json:"text"`  // what is wrong and how to mend it
	Mends []Mend `json:"mends,omitempty"`
}

// A Mend is the same drill with something put right.
type Mend struct {
	Text  string `json:"text"` // what is changed
	Drill Drill  `json:"drill"`
}

// Faults are all that is wrong at once, so that it can be mended together.
type Faults []Fault

// Add puts one more fault on the list.
func (f *Faults) Add(field, format string, args ...any) {
	*f = append(*f, Fault{Field: field, Text: fmt.Sprintf(format, args...)})
}

// Error joins the texts of all faults.
func (f Faults) Error() string {
	texts := make([]string, len(f))
	for i, one := range f {
		texts[i] = one.Text
	}
	return strings.Join(texts, " ")
}
