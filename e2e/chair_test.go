package e2e

import (
	"flag"
	"fmt"
	"io"
	"net"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var bars = flag.Bool("bars", false, "print what is told in docs/performance.md too")

var kills = flag.Int("kills", 8, "how often browser and server are killed while tapping")

// What the chair shows.
const (
	taskNow = `(document.querySelector("[data-task]")?.dataset.task ?? "")`
	stepNow = `document.querySelector("footer button[data-step]")?.dataset.step`
	unsent  = `Number(document.querySelector("[data-sending]")?.dataset.waiting ?? -1)`
	sending = `document.querySelector("[data-sending]")?.dataset.sending`
)

// told is what the server knows of an install, asked for by a page.
const told = `(async () => {
	const id = location.pathname.split("/")[2];
	const events = (await (await fetch("/api/v1/installs/" + id + "/events", { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ after: 0, events: [] }) })).json()).events;
	return events;
})()`

// slip is how soon after a step another press of the finger is one that slipped; what is pressed in earnest
// waits so long.
const slip = 230 * time.Millisecond

// done taps the large button by a key and waits for the next step; it returns what was done.
func (b tab) done(key string) string {
	b.t.Helper()
	task := value[string](b, taskNow)
	time.Sleep(slip)
	b.do(chromedp.KeyEvent(key))
	b.waitFor(taskNow + ` !== ` + fmt.Sprintf("%q", task))
	return task
}

// answered answers what is asked at the chair, as long as there is anything.
func (b tab) answered() {
	b.t.Helper()
	for value[bool](b, `[...document.querySelectorAll("button")].some((e) => e.innerText === "Fine")`) {
		before := value[string](b, `document.querySelector("[data-task]")?.parentElement.innerText ?? ""`)
		b.press("button", "Fine")
		b.waitFor(`(document.querySelector("[data-task]")?.parentElement.innerText ?? "") !== ` + fmt.Sprintf("%q", before))
	}
}

// A whole head, from the day of a plan to the log and the stash, by keys on a tablet: nothing is left,
// nothing twice, and every part is judged for accessibility.
func TestAWholeHeadAtTheChair(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	b := open(t, 820, 1180)
	b.signInDemo(address, "")
	b.openPlan(address, "The lighthouse technician, long thick hair", "day")
	b.part("On the calendar")
	b.press("button", "To the chair")
	b.waitFor(stepNow + ` === "begin"`)
	b.judge("the chair before it begins")
	b.do(chromedp.KeyEvent(" "))
	b.waitFor(stepNow + ` === "done"`)
	b.judge("the chair")
	b.done(" ") // the head is prepared
	rows := 0
	for strings.HasPrefix(value[string](b, taskNow), "plait/") {
		before := value[string](b, taskNow)
		if rows == 0 {
			b.done(kb.PageDown) // a pedal
		} else {
			time.Sleep(50 * time.Millisecond)
			b.do(chromedp.KeyEvent("r"))
			b.waitFor(taskNow + ` !== ` + fmt.Sprintf("%q", before))
		}
		rows++
	}
	assert.Greater(t, rows, 8)
	pieces := map[string]bool{}
	for strings.HasPrefix(value[string](b, taskNow), "attach/") {
		task := b.done(" ")
		require.False(t, pieces[task], "%s twice", task)
		pieces[task] = true
		b.answered()
		if len(pieces) == 20 { // taken back and done again
			b.do(chromedp.KeyEvent(kb.Backspace))
			b.waitFor(taskNow + ` === ` + fmt.Sprintf("%q", task))
			b.done(" ")
		}
	}
	assert.GreaterOrEqual(t, len(pieces), 70)
	b.waitFor(stepNow + ` === "check"`)
	b.press("radio", "Watch")
	b.waitFor(says + `("Nothing was missed")`)
	b.judge("watch")
	b.press("radio", "Check")
	b.waitFor(says + `("The last check")`)
	b.judge("check")
	for _, look := range value[[]string](b, `[...document.querySelectorAll("[aria-label='The last check'] button strong")].map((e) => e.innerText)`) {
		value[bool](b, `([...document.querySelectorAll("[aria-label='The last check'] button")].find((e) => e.innerText.startsWith(`+fmt.Sprintf("%q", look)+`)).click(), true)`)
	}
	b.waitFor(says + `("7 of 7")`)
	b.press("button", "Finished")
	b.waitFor(unsent + ` === 0 && ` + sending + ` === "sent"`)
	b.follow("See how it went")
	b.waitFor(says + `("Planned against actual")`)
	b.judge("the log of a head")
	assert.Contains(t, value[string](b, `document.body.innerText`), fmt.Sprintf("%d on the head", len(pieces)))
	b.visit(address+"/log", says+`("Finished installs")`)
	b.judge("the log")
	assert.Equal(t, 13, value[int](b, `document.querySelectorAll("main li a[href^='/log/']").length`))
	// The plan it came from stays as it was, and is copied on.
	b.openPlan(address, "The lighthouse technician, long thick hair", "day")
	b.waitFor(says + `("This plan was at the chair and stays as it was")`)
	b.follow("Copy and edit")
	b.waitFor(`location.search.includes("from=")`)
}

// One touch from Today on a phone: the next step by finger and by voice, a place touched on the head, a
// section that came out as two, what was missed before the region is left, and all of it spoken.
func TestTheChairOnAPhone(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	b := open(t, 390, 844, "touch-events")
	b.enterDemo(address, "Tamsin Okoro-Vale stylist")
	b.follow("61")
	b.waitFor(stepNow + ` === "done"`)
	assert.True(t, value[bool](b, `document.querySelector("link[rel=manifest]") !== null`))
	// A silent stand-in for the voice of the browser.
	value[bool](b, `(window.said = [], window.speechSynthesis.speak = (u) => void window.said.push(u.text), true)`)
	look := func(what string) {
		b.judge(what)
		assert.LessOrEqual(t, value[int](b, `document.scrollingElement.scrollWidth`), 390, what)
	}
	look("the chair on a phone")
	assert.Equal(t, 0, value[int](b, `[...document.querySelectorAll("button, a")].filter((e) => e.checkVisibility() && e.getBoundingClientRect().height < 43.5).length`), "targets smaller than a fingertip")
	b.press("button", "How it works here")
	b.waitFor(named("switch", "Say the next step By the voice of this device"))
	look("how it works here")
	b.press("switch", "Say the next step By the voice of this device")
	b.press("button", "Close")
	b.waitFor(`window.said.at(-1)?.includes("Cornrow 4")`)
	assert.Contains(t, value[string](b, `window.said.at(-1)`), "inches")

	tap := func(selector string) {
		x, y := b.place(selector)
		b.touch([2]float64{x, y})
	}
	b.press("button", "Fine")
	before := value[string](b, taskNow)
	tap(`footer button[data-step]`)
	b.waitFor(taskNow + ` !== ` + fmt.Sprintf("%q", before))
	next := value[string](b, taskNow)
	b.press("button", "More: something else")
	b.waitFor(named("button", "Came out as two One more plait and piece"))
	look("something else")
	b.press("button", "Came out as two One more plait and piece")
	b.waitFor(says + `("of 16")`)
	// Done, its twin comes next; both taken back.
	time.Sleep(slip)
	tap(`footer button[data-step]`)
	b.waitFor(taskNow + `.startsWith(` + fmt.Sprintf("%q", next+"#") + `)`)
	for range 2 {
		tap(`footer button[aria-label^="Undo"]`)
		time.Sleep(slip)
	}
	b.waitFor(says + `("of 15") && ` + taskNow + ` === ` + fmt.Sprintf("%q", next))

	// The rest of the base by rows; before it is left, what was missed is shown.
	for range 2 {
		row := value[string](b, taskNow)
		tap(`footer button:last-child`)
		b.waitFor(taskNow + ` !== ` + fmt.Sprintf("%q", row))
	}
	b.waitFor(stepNow + ` === "behind" && ` + says + `("1 was missed")`)
	look("what was missed")
	tap(`footer button[data-step]`)
	b.waitFor(says + `("Cornrow 3")`)
	time.Sleep(slip)
	tap(`footer button[data-step]`)
	b.waitFor(`!document.body.innerText.includes("Cornrow 3")`)

	// Somewhere else by a touch on the head, once it has turned.
	b.waitForRest(`document.querySelector("[data-still]").innerHTML`)
	// That which is seen most squarely, of those whose middle is theirs and not a neighbour's.
	other := `(() => { const box = document.querySelector("[data-still]").getBoundingClientRect();
		const off = (r) => Math.hypot(r.x + r.width / 2 - box.x - box.width / 2, r.y + r.height / 2 - box.y - box.height / 2);
		const own = ([e, r]) => document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2) === e;
		return [...document.querySelectorAll("[data-section]")].map((e) => [e, e.getBoundingClientRect()]).filter(own).sort(([, p], [, q]) => off(p) - off(q))[0]; })()`
	id := value[string](b, other+`[0].dataset.section`)
	xy := value[[]float64](b, `(() => { const r = `+other+`[1]; return [r.x + r.width / 2, r.y + r.height / 2]; })()`)
	b.touch([2]float64{xy[0], xy[1]})
	b.waitFor(taskNow + ` === ` + fmt.Sprintf("%q", "attach/"+id))
	for _, part := range []string{"Watch", "Check"} {
		b.press("radio", part)
		b.waitFor(`document.querySelector("main section")`)
		look(part)
	}
	b.visit(address+"/log", says+`("Finished installs")`)
	look("the log on a phone")
}

// wire is a connection of one device to the program that can be cut.
type wire struct {
	address string
	mu      sync.Mutex
	cut     bool
	open    map[net.Conn]bool
}

func newWire(t *testing.T, to string) *wire {
	t.Helper()
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	w := &wire{address: "http://" + listener.Addr().String(), open: map[net.Conn]bool{}}
	t.Cleanup(func() { listener.Close(); w.set(true) })
	go func() {
		for {
			near, err := listener.Accept()
			if err != nil {
				return
			}
			far, err := net.Dial("tcp", strings.TrimPrefix(to, "http://"))
			w.mu.Lock()
			if w.cut || err != nil {
				near.Close()
				if far != nil {
					far.Close()
				}
				w.mu.Unlock()
				continue
			}
			w.open[near], w.open[far] = true, true
			w.mu.Unlock()
			for _, way := range [][2]net.Conn{{near, far}, {far, near}} {
				go func() {
					_, _ = io.Copy(way[0], way[1])
					way[0].Close()
				}()
			}
		}
	}()
	return w
}

// set cuts the connection or mends it.
func (w *wire) set(cut bool) {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.cut = cut
	if cut {
		for c := range w.open {
			c.Close()
			delete(w.open, c)
		}
	}
}

// Two devices at one head, one of them without a connection for an hour, and opened again meanwhile: when
// it comes back nothing is lost and nothing is twice.
func TestTwoDevicesOneAway(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	away := newWire(t, address)
	tablet, phone := open(t, 820, 1180), open(t, 390, 844, keepsItself)
	tablet.enterDemo(address, "Tamsin Okoro-Vale stylist")
	tablet.follow("61")
	tablet.waitFor(stepNow + ` === "done"`)
	phone.enterDemo(away.address, "Ikaika Moreau apprentice")
	phone.follow("61")
	phone.press("button", "Begin") // the plan has no hand for them: they help
	phone.waitFor(stepNow + ` === "done"`)
	// The application is on the device once its worker is.
	phone.waitFor(`navigator.serviceWorker.controller`)
	phone.waitFor(sending + ` === "sent"`)

	away.set(true)
	phone.waitFor(sending + ` === "away"`)
	value[bool](phone, `(() => { const now = Date.now; Date.now = () => now() + 3_600_000; return true; })()`)
	mine := map[string]bool{}
	row := func(b tab, name string) { // somewhere else than the other one is
		b.press("button", "More: something else")
		b.press("button", "Go to a row Any order will do")
		b.waitFor(`[...document.querySelectorAll("button strong")].some((e) => e.innerText === ` + fmt.Sprintf("%q", name) + `)`)
		value[bool](b, `([...document.querySelectorAll("button strong")].find((e) => e.innerText === `+fmt.Sprintf("%q", name)+`).closest("button").click(), true)`)
		b.waitFor(`[...document.querySelectorAll("[role=dialog]")].every((e) => !e.checkVisibility()) && document.querySelector("[data-task]").innerText.includes(` + fmt.Sprintf("%q", name) + `)`)
	}
	row(phone, "Hairline, left")
	for range 3 {

		mine[phone.done(" ")] = true
		tablet.done(" ")
	}
	phone.do(chromedp.Reload())
	phone.waitFor(stepNow + ` === "done"`)
	phone.waitFor(unsent + ` === 3`)
	row(phone, "Along the part, left")
	for range 3 {

		mine[phone.done(" ")] = true
		tablet.done(" ")
	}
	phone.waitFor(unsent + ` === 6`)
	tablet.waitFor(unsent + ` === 0`)
	apart := value[string](tablet, `document.querySelector("header p").innerText`)

	away.set(false)
	phone.waitFor(unsent + ` === 0 && ` + sending + ` === "sent"`)
	tablet.waitFor(`document.querySelector("header p").innerText !== ` + fmt.Sprintf("%q", apart))
	pieces := `document.querySelector("header p").innerText.split(" ")[0]`
	phone.waitFor(pieces + ` === "59"`) // 47, and six each
	tablet.waitFor(pieces + ` === "59"`)
	type event struct {
		ID, Kind string
		Tasks    []string
	}
	count := map[string]int{}
	ids := map[string]bool{}
	events, err := chromedp.Run(tablet.ctx, chromedp.Evaluate[[]event](told, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	for _, e := range events {
		assert.False(t, ids[e.ID])
		ids[e.ID] = true
		if e.Kind == "done" {
			for _, task := range e.Tasks {
				count[task]++
			}
		}
	}
	for task := range mine {
		assert.Equal(t, 1, count[task], task)
	}
}

// Browser and server are killed again and again while somebody taps: whatever the page went on from is
// there in the end, once.
func TestKilledWhileTapping(t *testing.T) {
	t.Parallel()
	db, profile := demoFile(t), filepath.Join(t.TempDir(), "profile")
	program := startAt(t, "127.0.0.1:0", "demo", "-db", db)
	b := openWith(t, profile, 820, 1180, keepsItself)
	b.mayComplain()
	b.signInDemo(program.address, "")
	b.openPlan(program.address, "The coxswain, grown-in, before the regatta", "day")
	b.part("On the calendar")
	b.press("button", "To the chair")
	b.waitFor(stepNow + ` === "begin"`)
	at := value[string](b, "location.href")
	b.waitFor(`navigator.serviceWorker.controller`)
	b.do(chromedp.KeyEvent(" "))
	b.waitFor(stepNow + ` === "done"`)
	// Chromium writes its cookies down every half minute; who is signed in is no matter of this test.
	signedIn := b.cookies()
	var tapped []string
	for n := range *kills {
		for range 2 + n%2 {
			if value[string](b, stepNow) != "done" {
				break
			}
			tapped = append(tapped, b.done(kb.PageDown))
		}
		b.do(chromedp.KeyEvent(kb.PageDown)) // nobody sees what comes of this one
		if n%2 == 0 {
			program.kill(t)
			tapped = append(tapped, b.tapOffline())
			program = program.again(t, "demo", "-db", db)
			continue
		}
		require.NoError(t, chromedp.FromContext(b.ctx).Browser.Process().Kill())
		_ = chromedp.Cancel(b.ctx)
		if n%4 == 3 { // both at once
			program.kill(t)
		}
		b = openWith(t, profile, 820, 1180, keepsItself)
		b.mayComplain()
		b.setCookies(signedIn)
		b.visit(at, stepNow)
		if n%4 == 3 {
			tapped = append(tapped, b.tapOffline())
			program = program.again(t, "demo", "-db", db)
		}
	}
	b.waitFor(unsent + ` === 0 && ` + sending + ` === "sent"`)
	type event struct {
		ID, Kind string
		Tasks    []string
	}
	events, err := chromedp.Run(b.ctx, chromedp.Evaluate[[]event](told, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	count, ids := map[string]int{}, map[string]bool{}
	for _, e := range events {
		assert.False(t, ids[e.ID], "twice")
		ids[e.ID] = true
		if e.Kind == "done" {
			for _, task := range e.Tasks {
				count[task]++
			}
		}
	}
	for _, task := range tapped {
		assert.Equal(t, 1, count[task], task)
	}
	t.Logf("%d kills, %d taps", *kills, len(tapped))
}

// cookies are those of the browser for the page it shows.
func (b tab) cookies() []*network.CookieParam {
	b.t.Helper()
	have, err := chromedp.Call(b.ctx, network.GetCookies, network.GetCookiesParams{})
	require.NoError(b.t, err)
	var out []*network.CookieParam
	for _, c := range have.Cookies {
		out = append(out, &network.CookieParam{Name: c.Name, Value: c.Value, Domain: c.Domain, Path: c.Path, HTTPOnly: c.HTTPOnly, Secure: c.Secure, SameSite: c.SameSite})
	}
	require.NotEmpty(b.t, out)
	return out
}

func (b tab) setCookies(all []*network.CookieParam) {
	b.t.Helper()
	_, err := chromedp.Call(b.ctx, network.SetCookies, network.SetCookiesParams{Cookies: all})
	require.NoError(b.t, err)
}

// tapOffline taps once more where there is a next step, and returns what was done.
func (b tab) tapOffline() string {
	b.t.Helper()
	b.waitFor(stepNow + ` === "done"`)
	return b.done(kb.PageDown)
}
