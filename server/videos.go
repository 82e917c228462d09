package server

import (
	"bytes"
	"context"
	"errors"
	"io"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"manudrill/api"
	"manudrill/store"
)

// GetVideo returns the video of a take.
func (s *Server) GetVideo(ctx context.Context, r api.GetVideoRequestObject) (api.GetVideoResponseObject, error) {
	request := ctx.(*gin.Context).Request
	v, video, err := s.store.OpenVideo(request.Context(), r.TakeId)
	if err != nil {
		return nil, err
	}
	return filmed{request, v, video}, nil
}

// A filmed video is sent whole or in the part that was asked for.
type filmed struct {
	request *http.Request
	store.Video
	video store.Sound
}

// VisitGetVideoResponse sends it, reading part after part.
func (f filmed) VisitGetVideoResponse(w http.ResponseWriter) error {
	defer f.video.Close()
	w.Header().Set("Content-Type", f.Media)
	w.Header().Set("Cache-Control", "private, no-cache") // deleted, it is gone
	http.ServeContent(w, f.request, "", time.Time{}, f.video)
	return nil
}

// PutVideo takes the video of a take in, where it was asked for.
func (s *Server) PutVideo(ctx context.Context, r api.PutVideoRequestObject) (api.PutVideoResponseObject, error) {
	asked, err := s.store.AsksVideo(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	if !asked {
		return nil, errNotAsked
	}
	if err := s.limits.takes.allow(here(ctx).ID.String()); err != nil {
		return nil, err
	}
	file, _, err := spool(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return nil, err
	}
	start := make([]byte, 12)
	n, err := io.ReadFull(file, start)
	if err != nil && !errors.Is(err, io.ErrUnexpectedEOF) && !errors.Is(err, io.EOF) {
		return nil, err
	}
	media := mediaOf(start[:n])
	if media == "" {
		return nil, errNoVideo
	}
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return nil, err
	}
	return api.PutVideo204Response{}, s.store.PutVideo(ctx, r.TakeId, store.Video{Media: media, StartsAt: r.Params.StartsAt}, file)
}

// mediaOf tells WebM (an EBML document, RFC 8794) and MP4 (ISO/IEC 14496-12) by their first
// bytes; empty for anything else.
func mediaOf(start []byte) string {
	switch {
	case bytes.HasPrefix(start, []byte{0x1a, 0x45, 0xdf, 0xa3}):
		return "video/webm"
	case len(start) >= 8 && string(start[4:8]) == "ftyp":
		return "video/mp4"
	}
	return ""
}

// DeleteVideo deletes the video of a take for good.
func (s *Server) DeleteVideo(ctx context.Context, r api.DeleteVideoRequestObject) (api.DeleteVideoResponseObject, error) {
	return api.DeleteVideo204Response{}, s.store.DeleteVideo(ctx, r.TakeId)
}

// AskVideo asks a student for their hands on video, or no more.
func (s *Server) AskVideo(ctx context.Context, r api.AskVideoRequestObject) (api.AskVideoResponseObject, error) {
	return api.AskVideo204Response{}, s.store.AskVideo(ctx, r.AssignmentId, r.Body.Asked)
}
