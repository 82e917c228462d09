// Package compare lays heard notes against a chart: which chart notes were
// played, which were missed, which came out as another pitch, and which notes
// were played that the chart does not have.
package compare
