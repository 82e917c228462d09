package server_test

import (
	"archive/zip"
	"bytes"
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/bounds"
	"manudrill/store"
	"manudrill/storetest"
)

// film is the beginning of a WebM file (RFC 8794: an EBML header) and something after it.
func film(size int) []byte {
	b := append([]byte{0x1a, 0x45, 0xdf, 0xa3}, bytes.Repeat([]byte{7}, size)...)
	return b
}

// The hands are asked for with an assignment, handed in after the take, seen by the student
// and their instructors alone, sent in parts, and deleted by either.
func TestHandsOnVideo(t *testing.T) {
	h := newHouse(t)
	filmed := store.Person{ID: uuid.New(), Name: "Fina", Role: store.Student, Demo: true} // whose archive holds this alone
	require.NoError(t, h.kept.AddPerson(storetest.In(t.Context()), filmed))
	a := h.assigned(t, someDrill(), filmed)
	path := "/assignments/" + a.Id.String()
	h.as(t, filmed).fails(http.StatusForbidden, http.MethodPut, path+"/video", map[string]any{"asked": true})
	h.as(t, teacher).ok(http.MethodPut, path+"/video", map[string]any{"asked": true}, nil)
	var stand api.Stand
	h.as(t, filmed).ok(http.MethodGet, path, nil, &stand)
	assert.True(t, stand.Assignment.Video)

	take := h.taken(t, a, filmed, steady)
	video := "/takes/" + take.Summary.Id.String() + "/video"
	h.as(t, filmed).fails(http.StatusNotFound, http.MethodGet, video, nil)
	unasked := h.assigned(t, someDrill(), filmed)
	other := h.taken(t, unasked, filmed, steady)
	p := h.as(t, filmed).fails(http.StatusConflict, http.MethodPut, "/takes/"+other.Summary.Id.String()+"/video?startsAt=0", film(9))
	assert.Contains(t, p.Detail, "does not ask")
	p = h.as(t, filmed).fails(http.StatusUnprocessableEntity, http.MethodPut, video+"?startsAt=0.2", []byte("no film"))
	assert.Contains(t, p.Detail, "WebM or MP4")
	h.as(t, filmed).fails(http.StatusRequestEntityTooLarge, http.MethodPut, video+"?startsAt=0", film(bounds.VideoBytes))
	sent := film(700_000)
	h.as(t, filmed).ok(http.MethodPut, video+"?startsAt=0.2", film(9), nil)
	h.as(t, filmed).ok(http.MethodPut, video+"?startsAt=0.25", sent, nil) // the line broke off: once more
	var got api.Take
	h.as(t, teacher).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &got)
	assert.Equal(t, &api.TakeVideo{Media: "video/webm", StartsAt: 0.25}, got.Video)

	for _, who := range []store.Person{filmed, teacher} {
		part, err := http.NewRequestWithContext(t.Context(), http.MethodGet, h.base+"/api"+video, nil)
		require.NoError(t, err)
		part.Header.Set("Range", "bytes=262140-262150")
		status, some := h.as(t, who).send(part)
		assert.Equal(t, http.StatusPartialContent, status)
		assert.Equal(t, sent[262140:262151], some, "over the edge of a part")
	}
	h.as(t, ben).fails(http.StatusNotFound, http.MethodGet, video, nil)
	h.as(t, ben).fails(http.StatusNotFound, http.MethodDelete, video, nil)
	h.as(t, ben).fails(http.StatusNotFound, http.MethodPut, video+"?startsAt=0", film(9))

	status, body := h.as(t, filmed).do(http.MethodGet, "/people/"+filmed.ID.String()+"/archive.zip", nil)
	require.Equal(t, http.StatusOK, status)
	z, err := zip.NewReader(bytes.NewReader(body), int64(len(body)))
	require.NoError(t, err)
	var films int
	for _, f := range z.File {
		if bytes.HasSuffix([]byte(f.Name), []byte("/hands.webm")) {
			films++
		}
	}
	assert.Equal(t, 1, films, "what is taken out holds it")

	h.as(t, teacher).ok(http.MethodDelete, video, nil, nil)
	got = api.Take{}
	h.as(t, filmed).fails(http.StatusNotFound, http.MethodDelete, video, nil)
	h.as(t, filmed).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &got)
	assert.Nil(t, got.Video)
}

// No video is kept longer than the studio keeps sounds, whatever it is of; where it keeps
// them for ever it stays.
func TestVideosAreNotKeptLongerThanTheSetting(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	take := h.taken(t, a, ann, steady)
	ctx := storetest.In(t.Context())
	require.NoError(t, h.kept.PutVideo(ctx, take.Summary.Id, store.Video{Media: "video/webm"}, bytes.NewReader(film(9))))
	_, err := h.kept.Pool().Exec(ctx, `UPDATE take_videos SET made_at = now() - interval '40 days' WHERE take_id = $1`, take.Summary.Id)
	require.NoError(t, err)
	dropped, err := h.kept.DropOldVideos(t.Context())
	require.NoError(t, err)
	assert.Zero(t, dropped)
	_, err = h.kept.Pool().Exec(ctx, `UPDATE studios SET sound_days = 30 WHERE id = current_studio()`)
	require.NoError(t, err)
	defer func() {
		_, err := h.kept.Pool().Exec(ctx, `UPDATE studios SET sound_days = NULL WHERE id = current_studio()`)
		assert.NoError(t, err)
	}()
	dropped, err = h.kept.DropOldVideos(t.Context())
	require.NoError(t, err)
	assert.Equal(t, 1, dropped)
	_, _, err = h.kept.OpenVideo(ctx, take.Summary.Id)
	assert.ErrorIs(t, err, store.ErrNotFound)
}
