//touches: web/src/audio web/src/components/HandsVideo.vue server/videos.go store/videos.go

package e2e_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/store"
)

// An instructor asks for the hands on video; they are filmed with the take, handed in after
// it, played beside the notes, and deleted by the student.
func TestHandsAreFilmedWhereTheInstructorAsks(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Hands on video")
	stand := h.onTheStand(file)
	p := h.plays(file)
	p.enterAt(instructor, "/progress/"+stand[len("/stand/"):])
	p.press("ask-video")
	require.Eventually(t, func() bool { return h.standing(stand).Video }, patience, 100*time.Millisecond)

	p.sitDown(stand)
	p.see("film-asked")
	p.reads("only you and your instructors see it")
	p.press("play")
	p.see("left", "pass 1 of 2, filmed")
	p.see("right-notes", "16")
	p.see("all-figures")
	take := h.lastTake(stand)
	ctx := h.ctx
	var video *store.Video
	require.Eventually(t, func() bool {
		got, err := h.kept.Take(ctx, take.ID)
		video = got.Video
		return err == nil && video != nil
	}, patience, 100*time.Millisecond)
	assert.Equal(t, "video/webm", video.Media)
	assert.Greater(t, video.Size, int64(10_000))

	p.press("all-figures")
	p.see("hands-video")
	p.until("the film is there", `document.querySelector('video').readyState >= 2`)
	p.press("sound:still")
	p.until("the film goes with the sound", fmt.Sprintf(`(() => {
		const [film, sound] = [document.querySelector('video'), document.querySelector('audio')]
		return sound.currentTime > 1 && Math.abs(film.currentTime + %g - sound.currentTime) < 0.8
	})()`, video.StartsAt))
	p.press("delete-video")
	p.see("delete-video-sure")
	p.press("delete-video-now")
	p.until("it is gone", `document.querySelector('video') === null`)
	got, err := h.kept.Take(ctx, take.ID)
	require.NoError(t, err)
	assert.Nil(t, got.Video)
}
