package server_test

import (
	"bytes"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/memtest"
	"manudrill/server"
	"manudrill/store"
)

func document(t *testing.T) *openapi3.T {
	t.Helper()
	doc, err := openapi3.NewLoader().LoadFromData(api.Spec)
	require.NoError(t, err)
	return doc
}

// Every number of the contract has its bounds, every text and list that is sent
// its length, so that nothing odd comes in or goes out.
func TestEverythingInTheContractIsBounded(t *testing.T) {
	doc := document(t)
	for name, schema := range doc.Components.Schemas {
		bounded(t, name, schema.Value, map[*openapi3.Schema]bool{})
	}
	for path, item := range doc.Paths.Map() {
		for method, op := range item.Operations() {
			for _, p := range append(slices.Clone(item.Parameters), op.Parameters...) {
				bounded(t, method+" "+path+" "+p.Value.Name, p.Value.Schema.Value, map[*openapi3.Schema]bool{})
			}
			if op.RequestBody == nil {
				continue
			}
			for _, media := range op.RequestBody.Value.Content {
				closed(t, method+" "+path, media.Schema.Value, map[*openapi3.Schema]bool{})
			}
		}
	}
}

func bounded(t *testing.T, where string, s *openapi3.Schema, seen map[*openapi3.Schema]bool) {
	if s == nil || seen[s] {
		return
	}
	seen[s] = true
	if s.Type.Is("integer") || s.Type.Is("number") {
		assert.True(t, s.Min != nil && s.Max != nil || len(s.Enum) > 0, "%s has no bounds", where)
	}
	for name, p := range s.Properties {
		bounded(t, where+"."+name, p.Value, seen)
	}
	if s.Items != nil {
		bounded(t, where+"[]", s.Items.Value, seen)
	}
	if s.AdditionalProperties.Schema != nil {
		bounded(t, where+".*", s.AdditionalProperties.Schema.Value, seen)
	}
}

// closed looks at what is sent: no texts or lists without end.
func closed(t *testing.T, where string, s *openapi3.Schema, seen map[*openapi3.Schema]bool) {
	if s == nil || seen[s] {
		return
	}
	seen[s] = true
	switch {
	case s.Type.Is("array"):
		assert.NotNil(t, s.MaxItems, "%s has no most items", where)
		closed(t, where+"[]", s.Items.Value, seen)
	case s.Type.Is("string"):
		assert.True(t, s.MaxLength != nil || len(s.Enum) > 0 || s.Format != "", "%s has no greatest length", where)
	case s.Type.Is("object"):
		if s.AdditionalProperties.Schema != nil {
			assert.NotNil(t, s.MaxProps, "%s has no most entries", where)
		}
	}
	for name, p := range s.Properties {
		closed(t, where+"."+name, p.Value, seen)
	}
	for _, one := range s.OneOf {
		closed(t, where, one.Value, seen)
	}
}

// A body that is too large is refused before it is read, whoever sends it, and so
// is one that does not say how large it is.
func TestLargeBodiesAreRefused(t *testing.T) {
	h := houseAlone(t)
	a := h.assigned(t, someDrill(), ann)
	large := bytes.Repeat([]byte("[1,"), bounds.JSONBytes/2)
	huge := strings.Repeat(" ", 20*bounds.JSONBytes) + "1"
	memtest.AtMost(t, 24*memtest.MB, "a large body", func() {
		p := h.visitor(t).fails(http.StatusRequestEntityTooLarge, http.MethodPut, "/session", jsonText(strings.Repeat(" ", bounds.JSONBytes)+"1"))
		assert.Contains(t, p.Detail, "1 MB")
	})
	// Twenty times too large, it is still told why: what comes is thrown away.
	memtest.AtMost(t, 16*memtest.MB, "twenty times too large", func() {
		p := h.visitor(t).fails(http.StatusRequestEntityTooLarge, http.MethodPut, "/session", jsonText(huge))
		assert.Contains(t, p.Detail, "1 MB")
	})
	for name, c := range map[string]struct {
		method, path, media string
		body                io.Reader
		says                string
	}{
		"JSON":        {http.MethodPut, "/session", "application/json", bytes.NewReader(large), "1 MB"},
		"a drill":     {http.MethodPost, newly("/drills"), "application/json", bytes.NewReader(large), "1 MB"},
		"a document":  {http.MethodPost, "/import", "application/octet-stream", bytes.NewReader(make([]byte, bounds.DocumentBytes+1)), "4 MB"},
		"a recording": {http.MethodPut, takePath(a, uuid.New(), 100), "application/octet-stream", endless{}, "192 MB"},
	} {
		by := teacher
		if name == "a recording" {
			by = ann
		}
		browser := h.as(t, by)
		req, err := http.NewRequestWithContext(t.Context(), c.method, h.base+"/api"+c.path, onlyReader{c.body}) // chunked
		require.NoError(t, err)
		req.Header.Set("Content-Type", c.media)
		memtest.AtMost(t, 48*memtest.MB, name, func() {
			status, raw := browser.send(req)
			assert.Equal(t, http.StatusRequestEntityTooLarge, status, "%s: %s", name, raw)
			assert.Contains(t, string(raw), c.says, name)
		})
	}
}

// onlyReader hides how long a body is.
type onlyReader struct{ io.Reader }

// endless gives zeros as long as they are asked for.
type endless struct{}

func (endless) Read(p []byte) (int, error) {
	clear(p)
	return len(p), nil
}

// A time to read that outlives the body would end the connection and each later request on it
// (net/http: the background read of a connection cancels its context).
func TestATimeToReadEndsWithTheBody(t *testing.T) {
	h := newHouse(t)
	handler, err := server.New(h.kept, somePages, plenty)
	require.NoError(t, err)
	deadlines := make(chan []time.Time, 1)
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		watched := &deadlineWatch{ResponseWriter: w}
		handler.ServeHTTP(watched, r)
		deadlines <- watched.set
	}))
	t.Cleanup(srv.Close)
	a := h.assigned(t, someDrill(), ann)
	c := h.as(t, ann)
	own, err := url.Parse(srv.URL)
	require.NoError(t, err)
	old, err := url.Parse(h.base)
	require.NoError(t, err)
	c.http.Jar.SetCookies(own, c.http.Jar.Cookies(old))
	c.at = srv.URL
	take := played(t, someDrill(), 100, steady).EncodeWAV()
	for name, do := range map[string]func(){
		"no body":     func() { c.do(http.MethodGet, "/assignments", nil) },
		"JSON":        func() { c.do(http.MethodPut, "/session", map[string]any{"personId": ann.ID}) },
		"a recording": func() { c.do(http.MethodPut, takePath(a, uuid.New(), 100), take) },
	} {
		do()
		set := <-deadlines
		require.NotEmpty(t, set, name)
		assert.False(t, set[0].IsZero(), "%s is waited for, but not for ever", name)
		assert.True(t, set[len(set)-1].IsZero(), "%s: nothing is waited for any more", name)
	}
}

// A deadlineWatch keeps which times to read are set.
type deadlineWatch struct {
	http.ResponseWriter
	set []time.Time
}

func (d *deadlineWatch) Unwrap() http.ResponseWriter { return d.ResponseWriter }

func (d *deadlineWatch) SetReadDeadline(until time.Time) error {
	d.set = append(d.set, until)
	return http.NewResponseController(d.ResponseWriter).SetReadDeadline(until)
}

// Deep and wide JSON is refused with little memory and soon.
func TestHostileJSON(t *testing.T) {
	h := houseAlone(t)
	c := h.as(t, teacher)
	for name, body := range map[string]string{
		"deep":     strings.Repeat(`{"a":`, 100_000),
		"wide":     "[" + strings.Repeat("1,", 400_000) + "1]",
		"numbers":  `{"drill":{"path":{"position":1e999}}}`,
		"far away": `{"drill":{"path":{"position":123456789}}}`,
	} {
		memtest.Ends(t, name, func() {
			memtest.AtMost(t, 128*memtest.MB, name, func() {
				status, raw := c.do(http.MethodPost, "/preview", jsonText(body))
				assert.Equal(t, http.StatusBadRequest, status, "%s: %s", name, raw)
			})
		})
	}
}

// Names have no control characters: they stand in lists, file names and headers.
func TestNamesHaveNoControlCharacters(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	var d api.SavedDrill
	c.ok(http.MethodPost, newly("/drills"), someDrill(), &d)
	for _, name := range []string{"a\x00b", "a\rb", "a\nb", "\x7f"} {
		file := someDrill()
		file.Drill.Name = name
		c.fails(http.StatusBadRequest, http.MethodPost, newly("/drills"), file)
		c.on(1).fails(http.StatusBadRequest, http.MethodPut, "/drills/"+d.Id.String()+"/shelf", map[string]any{"folder": name, "tags": []string{}, "favourite": true})
		c.on(1).fails(http.StatusBadRequest, http.MethodPut, "/drills/"+d.Id.String()+"/shelf", map[string]any{"folder": "", "tags": []string{name}, "favourite": true})
	}
	take := h.taken(t, h.assigned(t, someDrill(), ann), ann, steady)
	c.fails(http.StatusBadRequest, http.MethodPut, "/takes/"+take.Summary.Id.String()+"/comments/"+uuid.NewString(), map[string]any{"note": 1, "text": "a\x00b"})
}

// Only the server's own pages may ask, under its own names, and the pages may load
// nothing from elsewhere.
func TestOtherSitesAreKeptOut(t *testing.T) {
	h := newHouse(t)
	send := func(host, origin, site string) *http.Response {
		req, err := http.NewRequestWithContext(t.Context(), http.MethodPut, h.base+"/api/session", strings.NewReader(`{"personId":"`+ann.ID.String()+`"}`))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		if host != "" {
			req.Host = host
		}
		if origin != "" {
			req.Header.Set("Origin", origin)
		}
		if site != "" {
			req.Header.Set("Sec-Fetch-Site", site)
		}
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		require.NoError(t, resp.Body.Close())
		return resp
	}
	assert.Equal(t, http.StatusOK, send("", "", "").StatusCode)
	assert.Equal(t, http.StatusOK, send("", h.base, "same-origin").StatusCode)
	assert.Equal(t, http.StatusOK, send("localhost:8765", "", "").StatusCode)
	assert.Equal(t, http.StatusForbidden, send("", "https://elsewhere.example", "").StatusCode)
	assert.Equal(t, http.StatusForbidden, send("", "", "cross-site").StatusCode)
	assert.Equal(t, http.StatusMisdirectedRequest, send("elsewhere.example", "", "").StatusCode, "a name that was made to lead here")
	header := send("", "", "").Header
	assert.NotContains(t, strings.Split(header.Get("Content-Security-Policy"), "style-src")[0], "unsafe-inline")
	assert.Equal(t, "nosniff", header.Get("X-Content-Type-Options"))
}

func TestTooManyTriesAreSlowedDown(t *testing.T) {
	h := newHouse(t)
	handler, err := server.New(h.kept, somePages, server.Options{Demo: true, Limits: server.Limits{SignIns: 3, Takes: 2}})
	require.NoError(t, err)
	try := func(method, path, body string, cookie string) *httptest.ResponseRecorder {
		req := httptest.NewRequestWithContext(t.Context(), method, "/api"+path, strings.NewReader(body))
		req.Header.Set("Content-Type", "application/json")
		if strings.Contains(path, "/takes/") {
			req.Header.Set("Content-Type", "application/octet-stream")
		}
		req.Header.Set("Cookie", cookie)
		req.Host = "localhost"
		w := httptest.NewRecorder()
		handler.ServeHTTP(w, req)
		return w
	}
	enter := `{"personId":"` + ann.ID.String() + `"}`
	first := try(http.MethodPut, "/session", enter, "")
	require.Equal(t, http.StatusOK, first.Code)
	try(http.MethodPut, "/session", enter, "")
	try(http.MethodPut, "/session", enter, "")
	last := try(http.MethodPut, "/session", enter, "")
	assert.Equal(t, http.StatusTooManyRequests, last.Code)
	assert.Equal(t, "20", last.Header().Get("Retry-After"))

	a := h.assigned(t, someDrill(), ann)
	cookie := strings.Split(first.Header().Get("Set-Cookie"), ";")[0]
	for i, want := range []int{422, 422, 429} {
		assert.Equal(t, want, try(http.MethodPut, takePath(a, uuid.New(), 100), "no take", cookie).Code, "try %d", i)
	}
}

func TestTheInterfaceIsCompressedAndAsksNoDatabase(t *testing.T) {
	h := newHouse(t)
	own, err := store.Open(t.Context(), h.kept.Pool().Config().ConnString()) // on which no worker asks meanwhile
	require.NoError(t, err)
	t.Cleanup(own.Close)
	handler, err := server.New(own, somePages, plenty)
	require.NoError(t, err)
	before := own.Pool().Stat().AcquireCount()
	for _, accept := range []string{"gzip, deflate, br", "gzip", "br;q=0, gzip", ""} {
		req := httptest.NewRequestWithContext(t.Context(), http.MethodGet, "/assets/a.js", nil)
		req.Header.Set("Accept-Encoding", accept)
		req.Header.Set("Cookie", "manudrill-"+own.House()+"=some-session")
		req.Host = "localhost"
		w := httptest.NewRecorder()
		handler.ServeHTTP(w, req)
		want := map[string]string{"gzip, deflate, br": "br", "gzip": "gzip", "br;q=0, gzip": "gzip", "": ""}[accept]
		assert.Equal(t, want, w.Header().Get("Content-Encoding"), accept)
		assert.Equal(t, map[string]string{"br": "small", "gzip": "smaller", "": "1"}[want], w.Body.String(), accept)
		assert.Contains(t, w.Header().Get("Content-Type"), "javascript")
	}
	assert.Equal(t, before, own.Pool().Stat().AcquireCount())
}

// Whoever runs the server sees what it does, and finds a request in its log.
func TestWhatIsSeenFromOutside(t *testing.T) {
	h := newHouse(t)
	h.as(t, ann).ok(http.MethodGet, "/session", nil, nil)
	for path, holds := range map[string]string{
		"/healthz": "", "/readyz": "", "/metrics": `manudrill_request_seconds_count{method="GET",status="200"}`,
	} {
		resp, err := http.Get(h.base + path)
		require.NoError(t, err)
		raw, err := io.ReadAll(resp.Body)
		require.NoError(t, err)
		require.NoError(t, resp.Body.Close())
		assert.Less(t, resp.StatusCode, 300, path)
		assert.Contains(t, string(raw), holds)
		assert.NotEmpty(t, resp.Header.Get("X-Request-Id"))
	}
}

// The greatest drill that the contract lets through is looked at, or refused, soon
// and with little memory.
func TestTheGreatestDrillOfTheContract(t *testing.T) {
	h := houseAlone(t)
	c := h.as(t, teacher)
	fingers := []int{1, 2, 3, 4, 1, 2, 3, 4, 1, 2, 3, 4, 1, 2, 3, 4}
	var orders, groups [][]int
	for range 64 {
		orders, groups = append(orders, fingers), append(groups, []int{6, 5, 4, 3, 2, 1, 6, 5, 4, 3, 2, 1, 6, 5, 4, 3})
	}
	patterns := map[string]drill.Pattern{
		"orders": drill.FingerPerFret{Orders: orders}, "diagonal": drill.Diagonal{Orders: orders}, "pairs": drill.StringPair{Orders: orders},
		"slurs": drill.SlurCombinations{Combinations: orders, Slur: drill.BothSlurs}, "trill": drill.Trill{Fingers: fingers},
	}
	for name, p := range patterns {
		for _, count := range []int{1, 36, 1000} {
			d := drill.New("great", p)
			d.Path.Strings = slices.Repeat([]int{6}, 64)
			d.Path.Groups, d.Path.Spread, d.Path.Back = groups, "own", drill.Mirrored
			d.Path.Stay = drill.Stay{Count: count, Unit: drill.Times}
			d.Path.Shift = drill.Shift{By: 1, Each: drill.EachCell, Count: count, Home: true}
			d.Rhythm.Passes = min(count, 64)
			memtest.Ends(t, name, func() {
				memtest.AtMost(t, 256*memtest.MB, name, func() { c.ok(http.MethodPost, "/preview", fileOf(d), nil) })
			})
			d.Path.Groups, d.Path.Spread = nil, "widening"
			memtest.Ends(t, name, func() {
				memtest.AtMost(t, 256*memtest.MB, name, func() { c.ok(http.MethodPost, "/preview", fileOf(d), nil) })
			})
		}
	}
}
