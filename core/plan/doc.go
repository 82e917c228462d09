// Package plan lays out weeks of practice by stated rules. Each line it makes carries the
// rule that made it and the reason; each rule can be changed or left out. What teachers
// do by hand is common practice throughout, and is meant to be set otherwise.
package plan
