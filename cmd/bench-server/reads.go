package main

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"sync"
	"sync/atomic"
	"time"

	"github.com/google/uuid"
)

// A read is what a screen asks for, and the same of the barest handler.
type read struct {
	name       string
	as         uuid.UUID
	path, bare string
}

// reads are those that the screens make most.
func (b bench) reads() []read {
	p := b.students[1]
	return []read{
		{"who is here", p.person, "/session", "/person/" + p.person.String()},
		{"practice: drills", p.person, "/assignments", "/assignments/" + p.person.String()},
		{"practice: takes", p.person, "/takes?limit=25", "/takes/" + p.person.String()},
		{"the stand", p.person, "/assignments/" + p.assignment.String(), "/stand/" + p.assignment.String()},
		{"a take", p.person, "/takes/" + p.take.String(), "/take/" + p.take.String()},
		{"progress", p.person, "/assignments/" + p.assignment.String() + "/progress", "/trend/" + p.assignment.String()},
		{"students", b.instructor, "/glance", "/students"},
		{"library", b.instructor, "/drills", "/drills"},
	}
}

// grown are the reads that must not grow with a student's takes.
var grown = []struct {
	name string
	path func(pupil) string
}{
	{"practice: drills", func(pupil) string { return "/assignments" }},
	{"practice: takes", func(pupil) string { return "/takes?limit=25" }},
	{"the stand", func(p pupil) string { return "/assignments/" + p.assignment.String() }},
	{"takes of a drill", func(p pupil) string { return "/takes?limit=25&assignmentId=" + p.assignment.String() }},
	{"progress, a page of 100", func(p pupil) string { return "/assignments/" + p.assignment.String() + "/progress?limit=100" }},
	{"a take", func(p pupil) string { return "/takes/" + p.take.String() }},
	{"half a year of a student", func(p pupil) string { return "/students/" + p.person.String() + "/overview" }},
}

// visitor is a browser in which somebody is here.
func (b bench) visitor(who uuid.UUID) *http.Client {
	jar, _ := cookiejar.New(nil) // fails for no options
	c := &http.Client{Jar: jar, Transport: &http.Transport{MaxIdleConnsPerHost: clients}}
	req, err := http.NewRequest(http.MethodPut, b.ours+"/session", bytes.NewReader([]byte(`{"personId":"`+who.String()+`"}`)))
	if err == nil {
		req.Header.Set("Content-Type", "application/json")
		var resp *http.Response
		if resp, err = c.Do(req); err == nil {
			err = resp.Body.Close()
		}
	}
	if err != nil {
		panic(err)
	}
	return c
}

// get reads one answer.
func get(c *http.Client, url string) error {
	resp, err := c.Get(url)
	if err != nil {
		return err
	}
	defer resp.Body.Close()
	if _, err := io.Copy(io.Discard, resp.Body); err != nil {
		return err
	}
	if resp.StatusCode != http.StatusOK {
		return fmt.Errorf("%s answers %s", url, resp.Status)
	}
	return nil
}

// throughput is how many answers a second come to clients that ask at once.
func throughput(c *http.Client, url string) (float64, error) {
	if c == nil {
		c = &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: clients}}
	}
	defer c.CloseIdleConnections()
	if err := get(c, url); err != nil { // and the first one is not counted
		return 0, err
	}
	var answers atomic.Int64
	var fault atomic.Value
	var wg sync.WaitGroup
	began := time.Now()
	for range clients {
		wg.Go(func() {
			for time.Since(began) < each {
				if err := get(c, url); err != nil {
					fault.Store(err)
					return
				}
				answers.Add(1)
			}
		})
	}
	wg.Wait()
	if err, failed := fault.Load().(error); failed {
		return 0, err
	}
	return float64(answers.Load()) / time.Since(began).Seconds(), nil
}
