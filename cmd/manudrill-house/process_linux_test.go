package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/formats/sound"
)

// patience is how long anything that must come may take: a machine may be slow, and a test
// that passes does not wait.
const patience = 3 * time.Minute

// asProgram makes this test binary be the program itself.
const asProgram = "MANUDRILL_AS_PROGRAM"

func TestMain(m *testing.M) {
	if os.Getenv(asProgram) != "" {
		main()
		os.Exit(0)
	}
	os.Exit(m.Run())
}

// A process is the program, run for real.
type process struct {
	t    *testing.T
	cmd  *exec.Cmd
	base string // address it serves at, once serves has returned

	address <-chan string
	done    chan error
	said    *bytes.Buffer
	mu      *sync.Mutex
}

// ownFolder is one that PostgreSQL's user may enter. It goes once the database that a killed
// program has left has ended.
func ownFolder(t *testing.T) string {
	t.Helper()
	dir, err := os.MkdirTemp("/tmp", "manudrill-process-")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(dir, 0o755))
	t.Cleanup(func() {
		assert.Eventually(t, func() bool { pid, known := databaseOn(dir); return !known || syscall.Kill(pid, 0) != nil }, patience, 20*time.Millisecond)
		assert.NoError(t, os.RemoveAll(dir))
	})
	return dir
}

// databaseOn is the process id of the database on a program's data, where one runs or was killed.
func databaseOn(data string) (pid int, known bool) {
	file, err := os.ReadFile(filepath.Join(data, "postgresql", "postmaster.pid"))
	if err != nil {
		return 0, false
	}
	first, _, _ := strings.Cut(string(file), "\n")
	pid, err = strconv.Atoi(first)
	return pid, err == nil
}

// begin starts the program with its data in a folder, and does not wait for it.
func begin(t *testing.T, data string, env []string, args ...string) *process {
	t.Helper()
	self, err := os.Executable()
	require.NoError(t, err)
	p := &process{t: t, cmd: exec.Command(self, args...), done: make(chan error, 1), said: &bytes.Buffer{}, mu: &sync.Mutex{}}
	p.cmd.Env = append(append(os.Environ(), asProgram+"=1", "MANUDRILL_DATA="+data), env...)
	p.cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGTERM}
	out, err := p.cmd.StdoutPipe()
	require.NoError(t, err)
	p.cmd.Stderr = &locked{p.said, p.mu}
	started, address := make(chan error), make(chan string, 1)
	go func() {
		// A child is told of its parent's death when the thread dies that began it (prctl(2)):
		// this one lives as long as the child.
		runtime.LockOSThread()
		err := p.cmd.Start()
		started <- err
		if err != nil {
			return
		}
		at := regexp.MustCompile(`Manudrill is at (http://\S+)`)
		for lines := bufio.NewScanner(out); lines.Scan(); {
			fmt.Fprintln(&locked{p.said, p.mu}, lines.Text())
			if m := at.FindStringSubmatch(lines.Text()); m != nil {
				address <- m[1]
			}
		}
		p.done <- p.cmd.Wait()
		close(address)
	}()
	require.NoError(t, <-started)
	t.Cleanup(func() { _ = p.cmd.Process.Kill() })
	p.address = address
	return p
}

// serves waits for the server's address.
func (p *process) serves() *process {
	p.t.Helper()
	p.base = <-p.address
	require.NotEmpty(p.t, p.base, "it says: %s", p.words())
	return p
}

type locked struct {
	to *bytes.Buffer
	mu *sync.Mutex
}

func (l *locked) Write(b []byte) (int, error) {
	l.mu.Lock()
	defer l.mu.Unlock()
	return l.to.Write(b)
}

// servingOn starts the server and waits for its address.
func servingOn(t *testing.T, data string) *process {
	t.Helper()
	return begin(t, data, nil, "serve", "--listen", "127.0.0.1:0").serves()
}

func (p *process) words() string {
	p.mu.Lock()
	defer p.mu.Unlock()
	return p.said.String()
}

// says waits until the program has said something.
func (p *process) says(what string) {
	p.t.Helper()
	for until := time.Now().Add(patience); !strings.Contains(p.words(), what); time.Sleep(10 * time.Millisecond) {
		require.True(p.t, time.Now().Before(until), "it does not say %q, but: %s", what, p.words())
	}
}

// ends waits for the program's end.
func (p *process) ends() error {
	p.t.Helper()
	select {
	case err := <-p.done:
		return err
	case <-time.After(patience):
		p.t.Fatalf("it does not end; it says: %s", p.words())
		return nil
	}
}

// stops ends the program properly.
func (p *process) stops() {
	p.t.Helper()
	p.signal(syscall.SIGTERM)
	require.NoError(p.t, p.ends())
}

func (p *process) signal(s os.Signal) { require.NoError(p.t, p.cmd.Process.Signal(s)) }

// A visitor asks a server, which may be gone and come back under another address.
type visitor struct {
	t    *testing.T
	http *http.Client
	mu   sync.Mutex
	base string
}

func visiting(t *testing.T, base string) *visitor {
	t.Helper()
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	line := http.DefaultTransport.(*http.Transport).Clone()
	line.ExpectContinueTimeout = patience
	return &visitor{t: t, http: &http.Client{Jar: jar, Transport: line, Timeout: patience}, base: base}
}

func (v *visitor) at(base string) {
	v.mu.Lock()
	defer v.mu.Unlock()
	v.base = base
}

// ask sends one request. An answer that did not come through is no answer.
func (v *visitor) ask(method, path string, body any, into any) (status int, err error) {
	v.mu.Lock()
	base := v.base
	v.mu.Unlock()
	var reader io.Reader
	media, expect := "application/json", ""
	switch b := body.(type) {
	case nil:
	case []byte:
		reader, media = bytes.NewReader(b), "application/octet-stream"
	case io.Reader: // nothing of it is sent before the server asks for it
		reader, media, expect = b, "application/octet-stream", "100-continue"
	default:
		raw, err := json.Marshal(b)
		require.NoError(v.t, err)
		reader = bytes.NewReader(raw)
	}
	req, err := http.NewRequestWithContext(context.Background(), method, base+"/api"+path, reader)
	require.NoError(v.t, err)
	req.Header.Set("Content-Type", media)
	req.Header.Set("If-Match", "0")
	if expect != "" {
		req.Header.Set("Expect", expect)
	}
	resp, err := v.http.Do(req)
	if err != nil {
		return 0, err
	}
	defer resp.Body.Close()
	raw, err := io.ReadAll(resp.Body)
	if err != nil {
		return 0, err
	}
	if into != nil && resp.StatusCode < 300 {
		return resp.StatusCode, json.Unmarshal(raw, into)
	}
	return resp.StatusCode, nil
}

// must asks until the answer is a good one.
func (v *visitor) must(method, path string, body any, into any) {
	v.t.Helper()
	var status int
	var err error
	require.Eventually(v.t, func() bool {
		status, err = v.ask(method, path, body, into)
		return err == nil && status < 300
	}, patience, 20*time.Millisecond, "%s %s", method, path)
}

// page is a list of the API as far as these tests look at it.
type page struct {
	Items []struct {
		ID    uuid.UUID
		State string
	}
	Next *string
}

// The owner of the studio that these tests begin, and its student.
const (
	signIn   = "oda"
	password = "four frets up"
)

// begins opens the link that the program has printed, and begins a studio.
func (v *visitor) begins(p *process) {
	v.t.Helper()
	link := regexp.MustCompile(`/begin#(\S+)`)
	require.Eventually(v.t, func() bool { return link.MatchString(p.words()) }, patience, 10*time.Millisecond)
	v.must(http.MethodPost, "/house", map[string]any{
		"token": link.FindStringSubmatch(p.words())[1], "studio": "Fret House", "name": "Oda", "signIn": signIn, "password": password,
	}, nil)
}

// signsIn comes in by name and password.
func (v *visitor) signsIn() {
	v.t.Helper()
	v.must(http.MethodPost, "/session", map[string]any{"name": signIn, "password": password}, nil)
}

// adds adds a student and lets another visitor come in as them, by their code.
func (v *visitor) adds(student *visitor) uuid.UUID {
	v.t.Helper()
	id := uuid.New()
	v.must(http.MethodPost, "/people", map[string]any{"people": []any{map[string]any{"id": id, "name": "Mira", "role": "student"}}}, nil)
	var card struct{ Code string }
	v.must(http.MethodPost, "/people/"+id.String()+"/code", nil, &card)
	student.must(http.MethodPost, "/session/code", map[string]any{"code": card.Code}, nil)
	return id
}

// all reads a list to its end.
func (v *visitor) all(path string) (ids map[uuid.UUID]string) {
	v.t.Helper()
	ids = map[uuid.UUID]string{}
	for after := ""; ; {
		var p page
		v.must(http.MethodGet, path+after, nil, &p)
		for _, i := range p.Items {
			require.NotContains(v.t, ids, i.ID, "twice in %s", path)
			ids[i.ID] = i.State
		}
		if p.Next == nil {
			return ids
		}
		after = "?after=" + *p.Next
	}
}

func someDrill(name string) drillfile.File {
	d := drill.New(name, drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns})
	d.Path.Strings = []int{4, 3}
	return drillfile.File{Drill: d, Ladder: tempo.Usual()}
}

// aTake is a recording of the drill by a player of its own.
func aTake(t *testing.T, seed uint64) []byte {
	t.Helper()
	chart, err := someDrill("any").Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	_, samples, err := simulate.Player{Seed: seed, MotorMs: 3}.Take(chart)
	require.NoError(t, err)
	return sound.FromMono(simulate.Rate, samples).EncodeWAV()
}

// A studio at work: an instructor who makes drills and comments, and a student who
// hands takes in, all of which is written down once it is acknowledged.
type studio struct {
	t                   *testing.T
	teacher, student    *visitor
	assignment          uuid.UUID
	mu                  sync.Mutex
	takes, drills       map[uuid.UUID]bool
	comments            map[uuid.UUID]bool
	commented           uuid.UUID
	stop                chan struct{}
	wg                  sync.WaitGroup
	recordings          [][]byte
	tries, acknowledged int
}

func opened(t *testing.T, p *process) *studio {
	t.Helper()
	s := &studio{
		t: t, teacher: visiting(t, p.base), student: visiting(t, p.base), stop: make(chan struct{}),
		takes: map[uuid.UUID]bool{}, drills: map[uuid.UUID]bool{}, comments: map[uuid.UUID]bool{},
	}
	s.teacher.begins(p)
	student := s.teacher.adds(s.student)
	id := uuid.New()
	s.teacher.must(http.MethodPost, "/drills?id="+id.String(), someDrill("Under fire"), nil)
	s.drills[id] = true
	var a struct{ ID uuid.UUID }
	s.teacher.must(http.MethodPost, "/assignments", map[string]any{"drillId": id, "studentId": student}, &a)
	s.assignment = a.ID
	for seed := range uint64(8) {
		s.recordings = append(s.recordings, aTake(t, seed+1))
	}
	s.commented = s.handIn(uuid.New(), 0)
	require.Eventually(t, func() bool {
		var take struct{ Summary struct{ State string } }
		_, err := s.teacher.ask(http.MethodGet, "/takes/"+s.commented.String(), nil, &take)
		return err == nil && take.Summary.State == "measured"
	}, patience, 20*time.Millisecond)
	return s
}

// handIn hands a take in until that is acknowledged, always under the same id.
func (s *studio) handIn(id uuid.UUID, n int) uuid.UUID {
	path := fmt.Sprintf("/assignments/%s/takes/%s?source=file&bpm=60", s.assignment, id)
	wav := s.recordings[n%len(s.recordings)]
	wav = append(bytes.Clone(wav), []byte(id.String())...) // behind the sound: each file is another
	for {
		status, err := s.student.ask(http.MethodPut, path, wav, nil)
		s.mu.Lock()
		s.tries++
		if err == nil && status < 300 {
			s.takes[id] = true
			s.acknowledged++
			s.mu.Unlock()
			return id
		}
		s.mu.Unlock()
		select {
		case <-s.stop:
			return id
		case <-time.After(200 * time.Millisecond):
		}
	}
}

// work goes on until it is ended.
func (s *studio) work() {
	loop := func(do func(n int)) {
		s.wg.Go(func() {
			for n := 0; ; n++ {
				select {
				case <-s.stop:
					return
				case <-time.After(100 * time.Millisecond):
					do(n)
				}
			}
		})
	}
	for range 5 {
		loop(func(n int) { s.handIn(uuid.New(), n) })
	}
	loop(func(n int) {
		id := uuid.New()
		if status, err := s.teacher.ask(http.MethodPost, "/drills?id="+id.String(), someDrill("Drill "+strconv.Itoa(n)), nil); err == nil && status < 300 {
			s.mu.Lock()
			s.drills[id] = true
			s.mu.Unlock()
		}
	})
	loop(func(n int) {
		id := uuid.New()
		status, err := s.teacher.ask(http.MethodPut, fmt.Sprintf("/takes/%s/comments/%s", s.commented, id), map[string]any{"note": n % 4, "text": "note " + strconv.Itoa(n)}, nil)
		if err == nil && status < 300 {
			s.mu.Lock()
			s.comments[id] = true
			s.mu.Unlock()
		}
	})
}

func (s *studio) at(base string) {
	s.teacher.at(base)
	s.student.at(base)
}

// goesOn waits until there was work of each kind since it was asked.
func (s *studio) goesOn() {
	s.t.Helper()
	done := func() [3]int {
		s.mu.Lock()
		defer s.mu.Unlock()
		return [3]int{len(s.takes), len(s.drills), len(s.comments)}
	}
	before := done()
	require.Eventually(s.t, func() bool {
		now := done()
		return now[0] >= before[0]+3 && now[1] > before[1] && now[2] > before[2]
	}, patience, 10*time.Millisecond, "the work goes on")
}

// allIsThere ends the work and counts: whatever was acknowledged is there, once,
// and every take is measured.
func (s *studio) allIsThere() {
	s.t.Helper()
	close(s.stop)
	s.wg.Wait()
	var takes map[uuid.UUID]string
	require.Eventually(s.t, func() bool {
		takes = s.teacher.all("/takes")
		for _, state := range takes {
			if state != "measured" {
				return false
			}
		}
		return true
	}, patience, 100*time.Millisecond, "every take is measured in the end")
	drills := s.teacher.all("/drills")
	var take struct{ Comments []struct{ ID uuid.UUID } }
	s.teacher.must(http.MethodGet, "/takes/"+s.commented.String(), nil, &take)
	there := map[uuid.UUID]int{}
	for _, c := range take.Comments {
		there[c.ID]++
	}
	for id := range s.takes {
		assert.Contains(s.t, takes, id, "a take that was acknowledged")
	}
	for id := range s.drills {
		assert.Contains(s.t, drills, id, "a drill that was acknowledged")
	}
	for id := range s.comments {
		assert.Equal(s.t, 1, there[id], "a comment that was acknowledged")
	}
	var stand struct{ Assignment struct{ Takes int } }
	s.student.must(http.MethodGet, "/assignments/"+s.assignment.String(), nil, &stand)
	assert.Equal(s.t, len(takes), stand.Assignment.Takes, "takes are counted once")
	s.t.Logf("%d takes, %d drills and %d comments acknowledged, all there once; %d hand-ins sent", len(s.takes), len(s.drills), len(s.comments), s.tries)
}

// kills is how often a process is killed; MANUDRILL_KILLS asks for more.
func kills(usual int) int {
	if n, err := strconv.Atoi(os.Getenv("MANUDRILL_KILLS")); err == nil {
		return n
	}
	return usual
}

// underFire lets a studio work while something is killed so many times, each time at another
// moment, and counts what is left.
func underFire(t *testing.T, times int, kill func(data string, p *process, s *studio) *process) {
	t.Helper()
	data := ownFolder(t)
	p := servingOn(t, data)
	s := opened(t, p)
	s.work()
	for n := range times {
		s.goesOn()
		time.Sleep(time.Duration(90*(n%7)) * time.Millisecond)
		p = kill(data, p, s)
	}
	s.goesOn() // the last one is got over
	s.allIsThere()
	p.stops()
}

// Whatever was acknowledged is there, once, however often the server is killed in
// the middle of hand-ins, jobs and edits.
func TestKillingTheServerLosesNothing(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	t.Parallel()
	underFire(t, kills(3), func(data string, p *process, s *studio) *process {
		p.signal(syscall.SIGKILL)
		_ = p.ends()
		p = servingOn(t, data)
		s.at(p.base)
		return p
	})
}

// The same when it is PostgreSQL that is killed; the server goes on.
func TestKillingPostgreSQLLosesNothing(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	t.Parallel()
	underFire(t, (kills(4)+2)/3, func(data string, p *process, s *studio) *process {
		pid, known := databaseOn(data)
		if !known {
			return p // it is being started again
		}
		_ = syscall.Kill(pid, syscall.SIGKILL)
		s.teacher.must(http.MethodGet, "/session", nil, nil)
		return p
	})
}

// Ctrl+C in the first second leaves nothing that the next start stumbles over.
func TestInterruptedInItsFirstSecond(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	t.Parallel()
	data := ownFolder(t)
	for _, after := range []time.Duration{20, 150, 400, 800, 1200} {
		p := begin(t, data, nil, "serve", "--listen", "127.0.0.1:0")
		time.Sleep(after * time.Millisecond)
		p.signal(os.Interrupt)
		_ = p.ends()
	}
	p := servingOn(t, data)
	visiting(t, p.base).begins(p)
	p.stops()
}

// SIGTERM finishes what was taken on; a second one ends at once.
func TestAServerFinishesWhatItHasTaken(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	t.Parallel()
	data := ownFolder(t)
	p := servingOn(t, data)
	s := opened(t, p)
	id := uuid.New()
	path := fmt.Sprintf("/assignments/%s/takes/%s?source=file&bpm=60", s.assignment, id)
	answered := make(chan int, 1)
	wav := aTake(t, 99)
	slow := &slowly{b: wav, pause: 20 * time.Millisecond, begun: make(chan struct{})}
	go func() {
		status, err := s.student.ask(http.MethodPut, path, io.Reader(slow), nil)
		if err != nil {
			status = -1
		}
		answered <- status
	}()
	slow.begins(t)
	p.signal(syscall.SIGTERM)
	assert.Contains(t, []int{200, 202}, <-answered)
	assert.NoError(t, p.ends())

	p = servingOn(t, data)
	s.at(p.base)
	assert.Contains(t, s.teacher.all("/takes"), id)
	endless := &slowly{b: bytes.Repeat(wav, 50), pause: time.Second, begun: make(chan struct{})}
	another := strings.Replace(path, id.String(), uuid.NewString(), 1)
	go func() { _, _ = s.student.ask(http.MethodPut, another, io.Reader(endless), nil) }()
	endless.begins(t)
	p.signal(syscall.SIGTERM)
	p.says("Finishing what is under way")
	p.signal(syscall.SIGTERM)
	require.Error(t, p.ends())
	assert.True(t, p.cmd.ProcessState.Sys().(syscall.WaitStatus).Signaled(), "at once, in the middle of it")
}

// begins waits until somebody asks.
func (s *slowly) begins(t *testing.T) {
	t.Helper()
	select {
	case <-s.begun:
	case <-time.After(patience):
		t.Fatal("nothing of the upload is asked for")
	}
}

// slowly gives a few bytes at a time. It has begun when the first are asked for.
type slowly struct {
	b     []byte
	pause time.Duration
	begun chan struct{}
	asked bool
}

func (s *slowly) Read(p []byte) (int, error) {
	if len(s.b) == 0 {
		return 0, io.EOF
	}
	if !s.asked {
		s.asked = true
		close(s.begun)
	}
	time.Sleep(s.pause)
	n := copy(p, s.b[:min(len(s.b), 8<<10)])
	s.b = s.b[n:]
	return n, nil
}
