// Package bounds holds the greatest sizes of what Manudrill takes in. They are
// here together so that whoever reads a file, checks a request or makes a sound
// keeps to the same ones. Each is checked before anything is allocated for what
// may be larger.
package bounds

import "errors"

// Takes.
const (
	TakeSeconds = 20 * 60 // longest take, whatever it comes as
	TakeNotes   = 50_000  // most notes that are read of one: 40 a second to its end, which no hand plays
)

// Files and documents, in bytes.
const (
	RecordingBytes = 192 << 20 // 20 minutes as 48 kHz, 24 bit, mono WAV are 173 MB
	VideoBytes     = 64 << 20  // of hands: five minutes at 1.7 Mbit/s
	DocumentBytes  = 4 << 20   // music that is made into a drill, and a take as MIDI
	JSONBytes      = 1 << 20   // any JSON
)

// RenditionSeconds is the longest drill that is made into sound to be taken out,
// which is held whole.
const RenditionSeconds = 10 * 60

// Errors for what is larger. They say what to do.
var (
	ErrTakeTooLong      = errors.New("a take may last 20 minutes at the most; cut the recording to the drill")
	ErrRenditionTooLong = errors.New("the sound would be longer than ten minutes; use fewer passes or a faster tempo")
	ErrDocumentTooLarge = errors.New("a file that is made into a drill may have 4 MB at the most; cut the music to the part to be drilled")
	ErrTooManyNotes     = errors.New("the file holds more than 50,000 notes; cut it to the part that is wanted")
)
