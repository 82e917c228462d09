// Package listen hears notes in a recording: when each starts, at what pitch,
// how loud, and when it ends.
//
// A [Listener] takes samples as they come, from a file or from a live stream,
// thins them to some 22 kHz and keeps only the last seconds. Onsets are peaks of
// a spectral flux with maximum filter (Böck & Widmer, "Maximum filter vibrato suppression for
// onset detection", DAFx 2013), which rises for plucks and, because its bands
// are a quarter tone wide, for slurs that change the pitch without a pluck. A
// peak becomes a note when the new partials last, and what sounds after it did not
// go on from before; where they do not last, when the pitch has stepped or the string
// was struck again. A note whose end has another pitch than its beginning is two. The click of a metronome and the squeak of a finger are none.
// Its time is refined in the waveform, where the string stops following its own
// prediction, and its pitch is found by YIN (de Cheveigné & Kawahara, J. Acoust. Soc.
// Am. 111, 2002). The numeric tools are in package dsp.
package listen
