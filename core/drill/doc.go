// Package drill turns an instructor's idea into notes.
//
// A [Drill] is a pattern with its path, attacks, rhythm and strokes. One small
// engine writes it out: the [Pattern] gives cells, [Path] carries each cell over
// strings and along the neck, [Fingering] finds fingers for notes that have
// none, [Attacks] says which notes are picked and which slurred, [Rhythm] spaces
// them and [Strokes] gives the picked ones their directions. The result is a
// [Chart]: the drill note by note for one instrument at one tempo.
//
// A pattern knows nothing of the neck, and the engine nothing of patterns: a
// [Touch] says where it lies by the hand or by the key, and that is all they
// share. [Drill.Review] then looks at the notes with the eyes of an instructor.
package drill
