// Package browser starts a headless Chromium for tests and pictures.
package browser

import (
	"context"
	"fmt"
	"os"

	"github.com/chromedp/chromedp"
)

// Options are what a test wants of its browser.
type Options struct {
	Width, Height int
	MicrophoneWAV string // plays as the microphone, once; empty for a tone
	NoMicrophone  bool   // the microphone is refused
}

// Start starts a browser with a fresh profile. The caller calls stop.
func Start(ctx context.Context, o Options) (tab context.Context, stop func(), err error) {
	profile, err := os.MkdirTemp("", "manudrill-chromium-")
	if err != nil {
		return nil, nil, err
	}
	flags := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath("/usr/bin/chromium"),
		chromedp.NoSandbox,
		chromedp.DisableGPU,
		chromedp.UserDataDir(profile),
		chromedp.WindowSize(o.Width, o.Height),
		chromedp.Flag("disable-quic", true),
		chromedp.Flag("disable-component-update", true),
		chromedp.Flag("autoplay-policy", "no-user-gesture-required"),
		chromedp.Flag("use-fake-device-for-media-stream", true),
	)
	if !o.NoMicrophone {
		flags = append(flags, chromedp.Flag("use-fake-ui-for-media-stream", true))
	} else {
		flags = append(flags, chromedp.Flag("deny-permission-prompts", true))
	}
	if o.MicrophoneWAV != "" {
		flags = append(flags, chromedp.Flag("use-file-for-fake-audio-capture", o.MicrophoneWAV+"%noloop"))
	}
	allocated, endAllocation := chromedp.NewExecAllocator(ctx, flags...)
	tab, endTab := chromedp.NewContext(allocated)
	stop = func() {
		endTab()
		endAllocation()
		_ = os.RemoveAll(profile) // a leftover profile harms nobody
	}
	if err := chromedp.Do(tab, chromedp.EmulateViewport(int64(o.Width), int64(o.Height))); err != nil {
		stop()
		return nil, nil, fmt.Errorf("the browser does not start: %w", err)
	}
	return tab, stop, nil
}
