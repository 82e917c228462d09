// Package score stands between the drill and the files of other programs: notes in time,
// with or without their places on the neck. A chart leaves as a [Score], and a score is
// adopted as a drill of one's own.
package score
