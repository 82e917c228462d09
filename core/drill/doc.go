// Package drill turns an instructor's idea into notes.
//
// A [Drill] is one or more parts; a [Part] is a pattern with its path, attacks, strokes
// and fingers. One small engine writes it out: the [Pattern] gives cells, [Path] carries
// each cell over strings and along the neck, [Fingering] finds fingers for notes that have
// none, [Attacks] says which notes are picked and which slurred, [Rhythm] spaces them and
// [Strokes] gives the picked ones their directions. The result is a chart: the drill note
// by note for one instrument at one tempo.
//
// A pattern knows nothing of the neck, and the engine nothing of patterns: a [Touch] says
// where it lies by the hand or by the key, and that is all they share.
//
// Below it lies chart, which listening needs without the rest; beside it review, library
// and score, which know the drill while it knows nothing of them.
package drill
