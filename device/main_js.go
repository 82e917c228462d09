//go:build js && wasm

// The core built for the browser: one ear at a time, and what the stand does by itself,
// called from a worker of the stand. Questions and answers are JSON; what went wrong is
// their "error".
package main

import (
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"syscall/js"

	"manudrill/core/listen"
	"manudrill/core/practice"
	"manudrill/device/ear"
	"manudrill/device/stand"
)

func main() {
	var (
		now   *ear.Ear
		bytes []byte
		block []int32
	)
	js.Global().Set("manudrillEar", map[string]any{
		// begin takes what is to be played, as JSON.
		"begin": answering(func(args []js.Value) (_ any, err error) {
			now, err = ear.New([]byte(args[0].String()))
			return nil, err
		}),
		// hear takes samples of 24 bits, as the bytes of an Int32Array.
		"hear": answering(func(args []js.Value) (any, error) {
			if now == nil {
				return nil, errNotBegun
			}
			if n := args[0].Length(); cap(bytes) < n {
				bytes = make([]byte, n)
			}
			bytes = bytes[:js.CopyBytesToGo(bytes[:cap(bytes)], args[0])]
			block = samplesIn(block[:0], bytes)
			marks, err := now.Hear(block)
			return struct {
				Marks []practice.Mark `json:"marks,omitempty"`
			}{marks}, err
		}),
		// strike takes a note that an instrument has told, as JSON.
		"strike": answering(func(args []js.Value) (any, error) {
			if now == nil {
				return nil, errNotBegun
			}
			var struck listen.Struck
			if err := json.Unmarshal([]byte(args[0].String()), &struck); err != nil {
				return nil, err
			}
			return struct {
				Marks []practice.Mark `json:"marks,omitempty"`
			}{now.Strike(struck)}, nil
		}),
		// end judges what was heard, or what an instrument has told in JSON.
		"end": answering(func(args []js.Value) (any, error) {
			if now == nil {
				return nil, errNotBegun
			}
			last := now
			now = nil
			if len(args) > 0 && args[0].Type() == js.TypeString {
				var all []listen.Struck
				if err := json.Unmarshal([]byte(args[0].String()), &all); err != nil {
					return nil, err
				}
				if err := last.Struck(all); err != nil {
					return nil, err
				}
			}
			verdict, err := last.End()
			if errors.Is(err, ear.ErrNothing) {
				return struct {
					Nothing bool `json:"nothing"`
				}{true}, nil
			}
			return verdict, err
		}),
	})
	js.Global().Set("manudrillStand", map[string]any{
		// lay writes a drill out at a rung.
		"lay": answering(func(args []js.Value) (any, error) { return stand.Lay([]byte(args[0].String())) }),
		// hear renders a drill as it should sound.
		"hear": answering(func(args []js.Value) (any, error) { return stand.Hear([]byte(args[0].String())) }),
		// seek takes a search for a tempo from one short take to the next.
		"seek": answering(func(args []js.Value) (any, error) { return stand.Seek([]byte(args[0].String())) }),
		// delay finds the delay of the device in samples of 24 bits, as the bytes of an Int32Array.
		"delay": answering(func(args []js.Value) (any, error) {
			raw := make([]byte, args[1].Length())
			js.CopyBytesToGo(raw, args[1])
			return stand.FindDelay([]byte(args[0].String()), samplesIn(nil, raw))
		}),
		// step takes a run of a routine from one moment to the next.
		"step": answering(func(args []js.Value) (any, error) { return stand.Step([]byte(args[0].String())) }),
	})
	select {} // for as long as the worker lives
}

// samplesIn appends the samples in the bytes of an Int32Array.
func samplesIn(to []int32, bytes []byte) []int32 {
	for i := 0; i+4 <= len(bytes); i += 4 {
		to = append(to, int32(binary.LittleEndian.Uint32(bytes[i:])))
	}
	return to
}

var errNotBegun = errors.New("nothing is being heard")

// answering makes a function of the browser of one that answers, or fails, or panics.
func answering(do func(args []js.Value) (any, error)) js.Func {
	return js.FuncOf(func(_ js.Value, args []js.Value) (answer any) {
		defer func() {
			if p := recover(); p != nil {
				answer = failed(fmt.Errorf("it could not be done: %v", p))
			}
		}()
		said, err := do(args)
		if err != nil {
			return failed(err)
		}
		told, err := json.Marshal(said)
		if err != nil {
			return failed(err)
		}
		return string(told)
	})
}

func failed(err error) string {
	told, _ := json.Marshal(map[string]string{"error": err.Error()})
	return string(told)
}
