package api

import (
	"context"
	"hash/maphash"
	"net"
	"net/http"
	"net/netip"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"
)

// What the edge keeps out: requests for other hosts, more at once than can be served,
// guesses at passwords.

// How many requests under the API are served at once, how many wait, and for how long.
const (
	mostServed  = 32
	mostWaiting = 256
	longestWait = 5 * time.Second
)

// knownHost lets a request through that is for this machine by one of its own names or
// for one that the studio was told: a page elsewhere that gives its own name to this
// address must not reach the studio through a browser.
func knownHost(names []string) echo.MiddlewareFunc {
	known := map[string]bool{"localhost": true}
	for _, name := range names {
		known[strings.ToLower(name)] = true
	}
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			name := c.Request().Host
			if host, _, err := net.SplitHostPort(name); err == nil {
				name = host
			}
			name = strings.ToLower(strings.TrimSuffix(strings.Trim(name, "[]"), "."))
			if address, err := netip.ParseAddr(name); known[name] || err == nil && address.Unmap().IsLoopback() {
				return next(c)
			}
			return echo.NewHTTPError(http.StatusMisdirectedRequest, "This studio does not answer to that name. Start it with -host and the name others reach it by.")
		}
	}
}

// inTurn serves a limited number of requests under the API at once; others wait a little, then are
// sent away with a time to come back.
func inTurn() echo.MiddlewareFunc {
	served, waiting := make(chan struct{}, mostServed), make(chan struct{}, mostWaiting)
	busy := func(c *echo.Context) error {
		c.Response().Header().Set("Retry-After", "2")
		return echo.NewHTTPError(http.StatusServiceUnavailable, "Too many requests at once. Try again in a moment.")
	}
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			if !strings.HasPrefix(c.Request().URL.Path, "/api/") {
				return next(c)
			}
			select {
			case served <- struct{}{}:
			default:
				select {
				case waiting <- struct{}{}:
				default:
					return busy(c)
				}
				patience := time.NewTimer(longestWait)
				defer patience.Stop()
				select {
				case served <- struct{}{}:
					<-waiting
				case <-patience.C:
					<-waiting
					return busy(c)
				case <-c.Request().Context().Done():
					<-waiting
					return c.Request().Context().Err()
				}
			}
			defer func() { <-served }()
			return next(c)
		}
	}
}

// oneEach lets every person have one long computation at a time: a second waits until
// the first is done, or until nobody waits for the second any more.
type oneEach struct {
	lock  sync.Mutex
	turns map[string]*turn
}

type turn struct {
	taken chan struct{}
	users int
}

// begin waits for the person's turn; end gives it up. The error is that of ctx.
func (o *oneEach) begin(ctx context.Context, person string) (end func(), err error) {
	o.lock.Lock()
	if o.turns == nil {
		o.turns = map[string]*turn{}
	}
	t := o.turns[person]
	if t == nil {
		t = &turn{taken: make(chan struct{}, 1)}
		o.turns[person] = t
	}
	t.users++
	o.lock.Unlock()
	leave := func() {
		o.lock.Lock()
		if t.users--; t.users == 0 {
			delete(o.turns, person)
		}
		o.lock.Unlock()
	}
	select {
	case t.taken <- struct{}{}:
		return func() { <-t.taken; leave() }, nil
	case <-ctx.Done():
		leave()
		return nil, ctx.Err()
	}
}

// A password is tried addressBurst times at once from one address, then once every
// addressPause. From addresses that no one signed in from before, one account is tried
// accountBurst times, then once every accountPause, which is less: so one address alone
// cannot use up the tries of an account and keep its owner out, and many addresses
// together cannot guess on.
const (
	addressBurst, addressPause = 8, 15 * time.Second
	accountBurst, accountPause = 24, 10 * time.Second
)

// bucket holds tries: as many as the burst, one more after every pause.
type bucket struct {
	spent float64
	at    time.Time
}

// take takes a try, or says how long there is none.
func (b *bucket) take(now time.Time, burst float64, pause time.Duration) (wait time.Duration) {
	b.spent = max(0, b.spent-now.Sub(b.at).Seconds()/pause.Seconds())
	b.at = now
	if b.spent > burst-1 {
		return time.Duration((b.spent - (burst - 1)) * float64(pause))
	}
	b.spent++
	return 0
}

// giveBack returns a try that was no guess.
func (b *bucket) giveBack() { b.spent = max(0, b.spent-1) }

// guesses slows guessing down. It forgets nothing that a flood of other names or
// addresses could push out: both fall into a fixed number of buckets, which ones nobody
// outside can tell.
type guesses struct {
	seed      maphash.Seed
	lock      sync.Mutex
	addresses [8192]bucket
	accounts  [1024]bucket
	// familiar are addresses from which an account was opened with its password.
	familiar map[uint64]bool
}

func newGuesses() *guesses {
	return &guesses{seed: maphash.MakeSeed(), familiar: map[uint64]bool{}}
}

func (g *guesses) hash(parts ...string) uint64 {
	return maphash.String(g.seed, strings.Join(parts, "\x00"))
}

func (g *guesses) address(address string) *bucket {
	return &g.addresses[g.hash(address)%uint64(len(g.addresses))]
}

// fromAddress is how long no password may be tried from an address; 0 lets one be.
func (g *guesses) fromAddress(address string) time.Duration {
	g.lock.Lock()
	defer g.lock.Unlock()
	return g.address(address).take(time.Now(), addressBurst, addressPause)
}

// atAccount is how long no password of an account may be tried from an address.
func (g *guesses) atAccount(address, name string) time.Duration {
	g.lock.Lock()
	defer g.lock.Unlock()
	if g.familiar[g.hash(address, name)] {
		return 0
	}
	return g.accounts[g.hash(name)%uint64(len(g.accounts))].take(time.Now(), accountBurst, accountPause)
}

// knew returns the try of who knew a secret.
func (g *guesses) knew(address string) {
	g.lock.Lock()
	defer g.lock.Unlock()
	g.address(address).giveBack()
}

// mostFamiliar bounds what is remembered of addresses that are known.
const mostFamiliar = 10_000

// opened notes that an account was opened from an address: that was no guess.
func (g *guesses) opened(address, name string) {
	g.lock.Lock()
	defer g.lock.Unlock()
	g.address(address).giveBack()
	if len(g.familiar) < mostFamiliar {
		g.familiar[g.hash(address, name)] = true
	}
}

// network is the part of an address that one guesser has to themselves: of version 6
// whoever has one has a whole /64.
func network(address string) string {
	a, err := netip.ParseAddr(address)
	if err != nil || a.Unmap().Is4() {
		return address
	}
	prefix, err := a.Prefix(64)
	if err != nil {
		return address
	}
	return prefix.String()
}

// guessed are the routes at which a password is tried.
var guessed = map[string]bool{
	"POST /api/v1/session": true, "POST /api/v1/owner": true, "PUT /api/v1/session/password": true,
}

// slowGuessing limits how fast passwords can be tried from one address, before anything
// is looked up or hashed.
func (g *guesses) slowGuessing(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if guessed[c.Request().Method+" "+c.Path()] {
			if wait := g.fromAddress(network(c.RealIP())); wait > 0 {
				return tooMany(c.Response().Header(), wait)
			}
		}
		return next(c)
	}
}

const waitALittle = "Too many tries. Wait a little, then try again."

// tooManyTries is the answer of an operation to a guess too many.
func tooManyTries(wait time.Duration) error {
	return huma.ErrorWithHeaders(huma.Error429TooManyRequests(waitALittle), http.Header{"Retry-After": {seconds(wait)}})
}

func tooMany(header http.Header, wait time.Duration) error {
	header.Set("Retry-After", seconds(wait))
	return echo.NewHTTPError(http.StatusTooManyRequests, waitALittle)
}
