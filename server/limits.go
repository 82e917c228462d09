package server

import (
	"math"
	"net"
	"net/http"
	"strconv"
	"sync"
	"time"

	"golang.org/x/time/rate"
)

// Limits are how often things may be tried.
type Limits struct {
	SignIns        PerMinute // by one address
	OfOne          PerMinute // by one name or code, from wherever
	Takes          PerMinute // handed in by one person
	TakesOfAddress PerMinute // handed in from one address, behind which a whole school may be
}

// PerMinute is how many times a minute, all of which may come at once.
type PerMinute int

// usual fills in what is not set.
func (l Limits) usual() Limits {
	set := func(of *PerMinute, usual PerMinute) {
		if *of == 0 {
			*of = usual
		}
	}
	set(&l.SignIns, 60)
	set(&l.OfOne, 10)
	set(&l.Takes, 60)
	set(&l.TakesOfAddress, 1200)
	return l
}

// limits count.
type limits struct{ signIns, ofOne, takes, takesOfAddress *counts }

func newLimits(l Limits) limits {
	l = l.usual()
	return limits{newCounts(l.SignIns), newCounts(l.OfOne), newCounts(l.Takes), newCounts(l.TakesOfAddress)}
}

// counts are the tries by whoever makes them.
type counts struct {
	most PerMinute
	mu   sync.Mutex
	by   map[string]*rate.Limiter
}

func newCounts(most PerMinute) *counts { return &counts{most: most, by: map[string]*rate.Limiter{}} }

// mostCounted is of how many tries are remembered; those who have not tried for
// a while are forgotten before.
const mostCounted = 10_000

// allow counts a try, and tells when there have been too many how long to wait.
func (c *counts) allow(by string) error {
	c.mu.Lock()
	defer c.mu.Unlock()
	if len(c.by) >= mostCounted {
		c.forget()
	}
	l, known := c.by[by]
	if !known {
		l = rate.NewLimiter(rate.Every(time.Minute/time.Duration(c.most)), int(c.most))
		c.by[by] = l
	}
	if l.Allow() {
		return nil
	}
	return tooOften{time.Minute / time.Duration(c.most)}
}

// forget drops those who may do all again, or all where nobody may.
func (c *counts) forget() {
	for by, l := range c.by {
		if l.Tokens() >= float64(l.Burst()) {
			delete(c.by, by)
		}
	}
	if len(c.by) >= mostCounted {
		clear(c.by)
	}
}

// tooOften is told to whoever tries too often.
type tooOften struct{ wait time.Duration }

func (tooOften) Error() string { return "too many tries" }

func (t tooOften) seconds() string { return strconv.Itoa(int(math.Ceil(t.wait.Seconds()))) }

// addressOf is the address that a request comes from.
func addressOf(r *http.Request) string {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	if err != nil {
		return r.RemoteAddr
	}
	return host
}
