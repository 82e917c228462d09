// Package dsp holds the numeric tools of the listener: transforms, prediction, pitch
// and partials of short sounds. It knows samples and rates, not notes.
//
// Samples are of full scale ±1. What is asked of a sound that is too short for it is
// answered as for one that has none, 0 or nil; lengths that only a mistake in the
// program can make wrong panic, and say so.
package dsp
