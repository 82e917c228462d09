// Package review looks at a drill and its notes with the eyes of an instructor: what no
// hand can make, what is too wide, what the strokes and the beat do, how hard it is, which
// strings are to be kept silent. Where something can be put right, the drill is offered
// with it put right.
package review
