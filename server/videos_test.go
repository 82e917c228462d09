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
	filmed := store.Person{ID: uuid.New(), Name: "Fina", Role: store.Student, Demo: true} // whose archive holds this alone
	require.NoError(t, kept.AddPerson(storetest.In(t.Context()), filmed))
	a := assigned(t, someDrill(), filmed)
	path := "/assignments/" + a.Id.String()
	as(t, filmed).fails(http.StatusForbidden, http.MethodPut, path+"/video", map[string]any{"asked": true})
	as(t, teacher).ok(http.MethodPut, path+"/video", map[string]any{"asked": true}, nil)
	var stand api.Stand
	as(t, filmed).ok(http.MethodGet, path, nil, &stand)
	assert.True(t, stand.Assignment.Video)

	take := taken(t, a, filmed, steady)
	video := "/takes/" + take.Summary.Id.String() + "/video"
	as(t, filmed).fails(http.StatusNotFound, http.MethodGet, video, nil)
	unasked := assigned(t, someDrill(), filmed)
	other := taken(t, unasked, filmed, steady)
	p := as(t, filmed).fails(http.StatusConflict, http.MethodPut, "/takes/"+other.Summary.Id.String()+"/video?startsAt=0", film(9))
	assert.Contains(t, p.Detail, "does not ask")
	p = as(t, filmed).fails(http.StatusUnprocessableEntity, http.MethodPut, video+"?startsAt=0.2", []byte("no film"))
	assert.Contains(t, p.Detail, "WebM or MP4")
	as(t, filmed).fails(http.StatusRequestEntityTooLarge, http.MethodPut, video+"?startsAt=0", film(bounds.VideoBytes))
	sent := film(700_000)
	as(t, filmed).ok(http.MethodPut, video+"?startsAt=0.2", film(9), nil)
	as(t, filmed).ok(http.MethodPut, video+"?startsAt=0.25", sent, nil) // the line broke off: once more
	var got api.Take
	as(t, teacher).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &got)
	assert.Equal(t, &api.TakeVideo{Media: "video/webm", StartsAt: 0.25}, got.Video)

	for _, who := range []store.Person{filmed, teacher} {
		part, err := http.NewRequestWithContext(t.Context(), http.MethodGet, base+"/api"+video, nil)
		require.NoError(t, err)
		part.Header.Set("Range", "bytes=262140-262150")
		status, some := as(t, who).send(part)
		assert.Equal(t, http.StatusPartialContent, status)
		assert.Equal(t, sent[262140:262151], some, "over the edge of a part")
	}
	as(t, ben).fails(http.StatusNotFound, http.MethodGet, video, nil)
	as(t, ben).fails(http.StatusNotFound, http.MethodDelete, video, nil)
	as(t, ben).fails(http.StatusNotFound, http.MethodPut, video+"?startsAt=0", film(9))

	status, body := as(t, filmed).do(http.MethodGet, "/people/"+filmed.ID.String()+"/archive.zip", nil)
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

	as(t, teacher).ok(http.MethodDelete, video, nil, nil)
	got = api.Take{}
	as(t, filmed).fails(http.StatusNotFound, http.MethodDelete, video, nil)
	as(t, filmed).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &got)
	assert.Nil(t, got.Video)
}

// No video is kept longer than the studio keeps sounds, whatever it is of; where it keeps
// them for ever it stays.
func TestVideosAreNotKeptLongerThanTheSetting(t *testing.T) {
	a := assigned(t, someDrill(), ann)
	take := taken(t, a, ann, steady)
	ctx := storetest.In(t.Context())
	require.NoError(t, kept.PutVideo(ctx, take.Summary.Id, store.Video{Media: "video/webm"}, bytes.NewReader(film(9))))
	_, err := kept.Pool().Exec(ctx, `UPDATE take_videos SET made_at = now() - interval '40 days' WHERE take_id = $1`, take.Summary.Id)
	require.NoError(t, err)
	dropped, err := kept.DropOldVideos(t.Context())
	require.NoError(t, err)
	assert.Zero(t, dropped)
	_, err = kept.Pool().Exec(ctx, `UPDATE studios SET sound_days = 30 WHERE id = current_studio()`)
	require.NoError(t, err)
	defer func() {
		_, err := kept.Pool().Exec(ctx, `UPDATE studios SET sound_days = NULL WHERE id = current_studio()`)
		assert.NoError(t, err)
	}()
	dropped, err = kept.DropOldVideos(t.Context())
	require.NoError(t, err)
	assert.Equal(t, 1, dropped)
	_, _, err = kept.OpenVideo(ctx, take.Summary.Id)
	assert.ErrorIs(t, err, store.ErrNotFound)
}
