// Package fingering finds the fingers of the fretting hand for a run of notes.
//
// It chooses over all notes at once, by least cost, with dynamic programming over the
// finger and the place of the hand at each note: the method of Sayegh, "Fingering for
// string instruments with the optimum path paradigm", Computer Music Journal 13(3), 1989;
// that what a hand finds easy is said by few terms, some within a place and some from
// place to place, follows Radicioni and Lombardo (both from memory). The terms and their
// weights are Manudrill's own, each with its reason, in costs.go.
package fingering
