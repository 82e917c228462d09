// Package browser starts Chromium, without the window that it would draw about its pages,
// for tests and pictures. One browser has many
// windows, each in the hands of a person of its own: they share no cookie, storage or cache.
package browser

import (
	"context"
	"fmt"
	"os"

	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
)

// A Browser is running. It may be used by many at once.
type Browser struct {
	ctx  context.Context
	stop func()
}

// A Microphone is what is before the browser's, in every window.
type Microphone struct {
	WAV     string // plays, once; a tone where none is named
	Refused bool   // nobody is let near it
}

// Start starts a browser with a fresh profile. The caller calls Stop.
func Start(ctx context.Context, microphone Microphone) (*Browser, error) {
	profile, err := os.MkdirTemp("", "manudrill-chromium-")
	if err != nil {
		return nil, err
	}
	flags := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath("/usr/bin/chromium-headless-shell"),
		chromedp.NoSandbox,
		chromedp.DisableGPU,
		chromedp.UserDataDir(profile),
		chromedp.Flag("disable-quic", true),
		chromedp.Flag("force-prefers-reduced-motion", true),
		chromedp.Flag("disable-component-update", true),
		chromedp.Flag("autoplay-policy", "no-user-gesture-required"),
		chromedp.Flag("use-fake-device-for-media-stream", true),
		chromedp.Flag("use-fake-ui-for-media-stream", true),
	)
	if microphone.Refused {
		flags = append(flags, chromedp.Flag("use-fake-ui-for-media-stream", "deny"))
	}
	if microphone.WAV != "" {
		flags = append(flags, chromedp.Flag("use-file-for-fake-audio-capture", microphone.WAV+"%noloop"))
	}
	allocated, endAllocation := chromedp.NewExecAllocator(ctx, flags...)
	b := &Browser{}
	b.ctx, b.stop = chromedp.NewContext(allocated)
	end := b.stop
	b.stop = func() {
		end()
		endAllocation()
		_ = os.RemoveAll(profile) // a leftover profile harms nobody
	}
	if err := chromedp.Do(b.ctx); err != nil {
		b.stop()
		return nil, fmt.Errorf("the browser does not start: %w", err)
	}
	return b, nil
}

// Stop ends the browser with all its windows.
func (b *Browser) Stop() { b.stop() }

// A Window is what a test wants to look through.
type Window struct {
	Width, Height int  // in CSS pixels
	Keeps         bool // pages are kept for when there is no line, which is all loaded ahead
}

// Open opens a window. The caller calls close.
func (b *Browser) Open(w Window) (tab context.Context, close func(), err error) {
	tab, close = chromedp.NewContext(b.ctx, chromedp.WithNewBrowserContext())
	err = chromedp.Do(tab, chromedp.EmulateViewport(int64(w.Width), int64(w.Height)))
	if err == nil && !w.Keeps {
		_, err = chromedp.Call(tab, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: "delete Navigator.prototype.serviceWorker"})
	}
	if err != nil {
		close()
		return nil, nil, fmt.Errorf("the window does not open: %w", err)
	}
	return tab, close, nil
}
