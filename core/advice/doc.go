// Package advice says what an instructor would say of a measured take, in words:
// mistakes first, then the one cause that explains most of the unevenness, then two
// drills at the most to practise for it.
//
// It rests on the figures of package evenness alone, so that a sentence and the table
// beside it say the same.
package advice
