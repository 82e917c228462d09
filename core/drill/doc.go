// Package drill turns an instructor's idea into notes.
//
// A [Drill] is a pattern with its path, rhythm and strokes. One small engine
// writes it out: the [Pattern] gives cells (fingers and attacks on one string),
// the path carries each cell across strings, the rhythm spaces the notes and
// the strokes flip at each picked one. The result is a [Chart]: the drill note
// by note for one instrument at one tempo.
package drill
