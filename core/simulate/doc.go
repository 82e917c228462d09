// Package simulate plays a chart: the stand-in for a student with a guitar
// where there is none.
//
// A [Player] with known faults decides when and how loud each note is, and a
// plucked-string model makes the sound. The same seed gives the same take.
package simulate
