// Package e2e drives the real program in headless Chromium as a stylist would.
// The tests need the built program (make bin/kladotex) and Debian's Chromium.
package e2e

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/cdproto/log"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const program = "../bin/kladotex"

// running is the program at work.
type running struct {
	address string // such as http://127.0.0.1:40001
	cmd     *exec.Cmd
}

// start runs the program with args on a free port until the test ends and returns
// its address.
func start(t *testing.T, args ...string) string {
	t.Helper()
	return startAt(t, "127.0.0.1:0", args...).address
}

// furnished is the demo studio's file as it is when it is first opened; making it takes longer
// than copying it.
var furnished = sync.OnceValues(func() ([]byte, error) {
	dir, err := os.MkdirTemp("", "kladotex-demo")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(dir)
	file := filepath.Join(dir, "demo.db")
	cmd := exec.Command(program, "demo", "-db", file, "-addr", "127.0.0.1:0")
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	if _, err := bufio.NewReader(out).ReadString('\n'); err != nil { // it is ready
		return nil, err
	}
	if err := cmd.Process.Signal(os.Interrupt); err != nil {
		return nil, err
	}
	if err := cmd.Wait(); err != nil {
		return nil, err
	}
	return os.ReadFile(file)
})

// demoFile is a demo studio of a test's own.
func demoFile(t *testing.T) string {
	t.Helper()
	studio, err := furnished()
	require.NoError(t, err, "make bin/kladotex builds the program")
	file := filepath.Join(t.TempDir(), "demo.db")
	require.NoError(t, os.WriteFile(file, studio, 0o600))
	return file
}

// startAt runs the program at a host and port.
func startAt(t *testing.T, at string, args ...string) running {
	t.Helper()
	cmd := exec.CommandContext(t.Context(), program, append(args, "-addr", at)...)
	cmd.Cancel = func() error { return cmd.Process.Signal(os.Interrupt) }
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start(), "make bin/kladotex builds the program")
	t.Cleanup(func() { _ = cmd.Wait() })
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	address := strings.Index(line, "http://")
	require.GreaterOrEqual(t, address, 0, line)
	return running{strings.TrimRight(line[address:], "/\n"), cmd}
}

// kill ends the program at once, as a power cut would.
func (r running) kill(t *testing.T) {
	t.Helper()
	require.NoError(t, r.cmd.Process.Kill())
	_ = r.cmd.Wait()
}

// again runs it at the same address.
func (r running) again(t *testing.T, args ...string) running {
	t.Helper()
	return startAt(t, strings.TrimPrefix(r.address, "http://"), args...)
}

// tab is one tab of a browser of its own.
type tab struct {
	t   *testing.T
	ctx context.Context
	// deaf is true from when complaints are what the test is about.
	deaf *atomic.Bool
}

// mayComplain is said before a page is made to fail on purpose.
func (b tab) mayComplain() { b.deaf.Store(true) }

// patience bounds every wait for something to appear.
const patience = 25 * time.Second

// webGL has a browser draw by WebGL, in software. Without it a browser has none: what a test sees must not
// hang on what the machine happens to have.
const (
	webGL   = "enable-unsafe-swiftshader"
	noWebGL = "disable-3d-apis"
)

// keepsItself lets the application be kept on the device; elsewhere a browser has no workers, so that
// a test of something else does not wait for all of its files.
const keepsItself = "keeps-itself"

// inMotion has a browser move what moves; elsewhere its person asked for little motion, so that nothing is looked
// at on its way.
const inMotion = "in-motion"

// calm is the browser's own word for it.
const calm = "force-prefers-reduced-motion"

// open starts Chromium with a fresh profile and a window of the given size.
func open(t *testing.T, width, height int, flags ...string) tab {
	t.Helper()
	return openWith(t, filepath.Join(t.TempDir(), "profile"), width, height, flags...)
}

// openWith starts Chromium with a profile of its own, which may have been used before.
func openWith(t *testing.T, profile string, width, height int, flags ...string) tab {
	t.Helper()
	options := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(headless(t)), chromedp.NoSandbox, chromedp.UserDataDir(profile), chromedp.WindowSize(width, height))
	if !slices.Contains(flags, webGL) {
		flags = append(flags, noWebGL)
	}
	if !slices.Contains(flags, inMotion) {
		flags = append(flags, calm)
	}
	keeps := slices.Contains(flags, keepsItself)
	flags = slices.DeleteFunc(flags, func(f string) bool { return f == keepsItself || f == inMotion })
	for _, flag := range append(flags, "disable-gpu", "disable-quic", "no-first-run", "disable-background-networking", "disable-component-update", "disable-sync") {
		options = append(options, chromedp.Flag(flag, true))
	}
	ctx, cancel := context.WithTimeout(t.Context(), 6*time.Minute)
	t.Cleanup(cancel)
	ctx, cancel = chromedp.NewExecAllocator(ctx, options...)
	t.Cleanup(cancel)
	ctx, cancel = chromedp.NewContext(ctx)
	t.Cleanup(cancel)
	b := tab{t, ctx, new(atomic.Bool)}
	b.do(chromedp.EmulateViewport(int64(width), int64(height)))
	if !keeps {
		_, err := chromedp.Call(ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: "delete Navigator.prototype.serviceWorker"})
		require.NoError(t, err)
	}
	b.hear()
	return b
}

// headless is Debian's Chromium without a window: it draws nothing but the page, where the whole browser
// draws its own bars too.
func headless(t *testing.T) string {
	t.Helper()
	path, err := exec.LookPath("chromium-headless-shell")
	require.NoError(t, err, "sh scripts/test-tools.sh installs it")
	return path
}

// hear makes the test fail when a page breaks the content policy, throws, or writes an
// error to the console, on whatever screen. Refusals and lost connections are what many
// tests are about; the browser's own lines on those do not count.
func (b tab) hear() {
	b.t.Helper()
	var lock sync.Mutex
	var heard []string
	note := func(text string) {
		if b.deaf.Load() {
			return
		}
		lock.Lock()
		defer lock.Unlock()
		heard = append(heard, text)
	}
	require.NoError(b.t, chromedp.Listen(b.ctx, func(event any) {
		switch e := event.(type) {
		case *runtime.EventConsoleAPICalled:
			if e.Type == runtime.ConsoleAPICalledTypeError {
				text := "console:"
				for _, a := range e.Args {
					text += " " + string(a.Value) + a.Description
				}
				note(text)
			}
		case *runtime.EventExceptionThrown:
			note("thrown: " + e.ExceptionDetails.Text + " " + e.ExceptionDetails.Exception.Description)
		case *log.EventEntryAdded:
			if e.Entry.Level == log.EntryLevelError && e.Entry.Source != log.EntrySourceNetwork {
				note("log: " + e.Entry.Text)
			}
		}
	}))
	b.t.Cleanup(func() {
		lock.Lock()
		defer lock.Unlock()
		assert.Empty(b.t, heard, "what the pages complained of")
	})
}

func (b tab) do(steps ...chromedp.Action[chromedp.Void]) {
	b.t.Helper()
	require.NoError(b.t, chromedp.Do(b.ctx, steps...))
}

// value evaluates a JavaScript expression.
func value[T any](b tab, expression string) T {
	b.t.Helper()
	v, err := chromedp.Run(b.ctx, chromedp.Evaluate[T](expression))
	require.NoError(b.t, err, expression)
	return v
}

// waitFor waits until a JavaScript expression is true. While one page gives way to another
// there is nothing to ask: what fails then is asked again. What takes long is asked for less often: the page
// is measured for every question, and has more to do than to answer.
func (b tab) waitFor(expression string) {
	b.t.Helper()
	pause := 15 * time.Millisecond
	for deadline := time.Now().Add(patience); ; time.Sleep(pause) {
		pause = min(pause*3/2, 150*time.Millisecond)
		is, err := chromedp.Run(b.ctx, chromedp.Evaluate[bool]("Boolean("+expression+")"))
		if is && err == nil {
			return
		}
		if time.Now().After(deadline) {
			b.t.Fatalf("waited %v for %s (%v); the page says:\n%s", patience, expression, err, value[string](b, "document.body.innerText"))
		}
	}
}

// waitForRest waits until what an expression gives stays the same for as long as a frame takes to follow,
// five times over.
func (b tab) waitForRest(expression string) {
	b.t.Helper()
	value[bool](b, "(window.seen = [], true)")
	b.waitFor(`(() => { const now = ` + expression + `; window.seen = window.seen[0] === now ? [now, ...window.seen] : [now]; return window.seen.length > 5; })()`)
}

// visit opens an address and waits for its page.
func (b tab) visit(address, ready string) {
	b.t.Helper()
	b.do(chromedp.Navigate(address))
	b.waitFor(ready)
}

// roles are where the elements of a role are found.
var roles = map[string]string{
	"button": "button, [role=button]", "link": "a[href]", "radio": "input[type=radio]",
	"menuitem": "[role=menuitem]", "checkbox": "input[type=checkbox]", "option": "[role=option]", "switch": "[role=switch]", "combobox": "[role=combobox]",
	"slider": "input[type=range]", "spinbutton": "[role=spinbutton]", "heading": "h1, h2, h3",
}

// named finds, as JavaScript, the first element of a role that is seen under a name: what
// it says, or what those who listen hear.
func named(role, name string) string {
	return `[...document.querySelectorAll(` + strconv.Quote(roles[role]) + `)].find((e) => {
		if (!(e.labels?.[0] ?? e).checkVisibility()) return false;
		const names = [e.getAttribute("aria-label"), e.innerText, ...[...(e.labels ?? [])].map((l) => l.innerText)];
		return names.some((n) => n?.trim().replace(/\s+/g, " ") === ` + strconv.Quote(name) + `);
	})`
}

// press clicks the element of a role under a name.
func (b tab) press(role, name string) {
	b.t.Helper()
	require.Contains(b.t, roles, role)
	find := named(role, name)
	b.waitFor(find)
	value[bool](b, "("+find+".click(), true)")
}

// follow goes where the link leads whose text begins so.
func (b tab) follow(text string) {
	b.t.Helper()
	find := `[...document.querySelectorAll("a[href]")].find((e) => e.innerText.trim().startsWith(` + strconv.Quote(text) + `))`
	b.waitFor(find)
	value[bool](b, "("+find+".click(), true)")
}

// step opens a numbered step of a plan, and waits for its panel.
func (b tab) step(step string) {
	b.t.Helper()
	b.press("link", step)
	b.waitFor(`document.querySelector("main > section[aria-label=` + step[2:] + `] section[aria-label] > h2")`)
}

// part opens a part of a step, unless it is open.
func (b tab) part(title string) {
	b.t.Helper()
	find := `document.querySelector("section[aria-label=` + "'" + title + "'" + `] h2 button")`
	// A step of many parts has them in chapters: the one it stands in is turned to.
	b.waitFor(`(() => { if (` + find + `) return true;
		const chapters = [...document.querySelectorAll("[aria-label='Chapters of this step'] input")];
		const at = chapters.findIndex((c) => c.checked);
		chapters[(at + 1) % chapters.length]?.click();
		return false; })()`)
	value[bool](b, "("+find+".ariaExpanded === 'true' || "+find+".click(), true)")
	b.waitFor(find + ".ariaExpanded === 'true'")
}

// walk goes on with Tab, or with Shift back, until it stands on what selector finds.
func (b tab) walk(selector string, held ...chromedp.KeyOption) {
	b.t.Helper()
	for range 60 {
		if value[bool](b, `document.activeElement.matches('`+selector+`')`) {
			return
		}
		b.do(chromedp.KeyEvent(kb.Tab, held...))
	}
	b.t.Fatalf("Tab does not lead to %s", selector)
}

// take chooses an option of the list under a name.
func (b tab) take(list, option string) {
	b.t.Helper()
	b.waitFor(named("combobox", list))
	value[bool](b, `(`+named("combobox", list)+`.focus(), true)`)
	b.do(chromedp.KeyEvent(kb.ArrowDown))
	b.press("option", option)
}

// write replaces what stands in the field with the given label.
func (b tab) write(label, text string) {
	b.t.Helper()
	at := `//label[normalize-space()="` + label + `"]`
	field := `(` + at + `//input | ` + at + `/following::input)[1]` // in the label or behind it
	b.waitFor(`document.evaluate(` + strconv.Quote(field) + `, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE).singleNodeValue`)
	b.do(chromedp.Focus(field))
	value[bool](b, "(document.activeElement.select(), true)")
	// With pauses in which the page answers, which must not change what is typed.
	for _, part := range strings.SplitAfter(text, "/") {
		b.do(chromedp.SendKeys(field, part))
		time.Sleep(100 * time.Millisecond)
	}
}

// The owner of a new studio in these tests.
const (
	owner    = "Odalys Brandt"
	password = "lantern regatta"
)

// claim opens a new studio as its owner.
func (b tab) claim(address string) {
	b.t.Helper()
	b.visit(address, `document.body.innerText.includes("Whose studio is this?")`)
	b.write("Your name", owner)
	b.write("Password", password)
	b.press("button", "Open the studio")
	b.waitFor(`document.body.innerText.includes("Start with a tape measure")`)
}

// enterDemo walks into the demo studio as one of its people; "" is the owner.
func (b tab) enterDemo(address, as string) {
	b.t.Helper()
	b.visit(address, `document.body.innerText.includes("Tidewheel Loft")`)
	if as == "" {
		b.press("button", "Open demo studio")
	} else {
		b.press("button", as)
	}
	b.waitFor(`document.querySelectorAll("img[src*=picture]").length >= 5`)
}

// asked is what the server at an address answers the browser's person, as JSON.
func (b tab) asked(method, address, path string, body, into any) {
	b.t.Helper()
	raw, err := json.Marshal(body)
	require.NoError(b.t, err)
	req, err := http.NewRequestWithContext(b.ctx, method, address+path, bytes.NewReader(raw))
	require.NoError(b.t, err)
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Sec-Fetch-Site", "same-origin")
	have, err := chromedp.Call(b.ctx, network.GetCookies, network.GetCookiesParams{URLs: []string{address}})
	require.NoError(b.t, err)
	for _, c := range have.Cookies {
		req.AddCookie(&http.Cookie{Name: c.Name, Value: c.Value})
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(b.t, err)
	defer res.Body.Close()
	require.Less(b.t, res.StatusCode, 300, path)
	require.NoError(b.t, json.NewDecoder(res.Body).Decode(into))
	var put []*network.CookieParam
	for _, c := range res.Cookies() {
		put = append(put, &network.CookieParam{Name: c.Name, Value: c.Value, URL: address, Path: c.Path, HTTPOnly: c.HttpOnly, Secure: c.Secure, SameSite: network.CookieSameSiteLax})
	}
	if len(put) > 0 {
		b.setCookies(put)
	}
}

// signInDemo signs in to the demo studio as one of its people, "" being the owner, without opening
// a page.
func (b tab) signInDemo(address, as string) {
	b.t.Helper()
	var session struct {
		Demo []struct{ ID, Name, Role string }
	}
	b.asked(http.MethodGet, address, "/api/v1/studio", nil, &session)
	i := slices.IndexFunc(session.Demo, func(p struct{ ID, Name, Role string }) bool {
		return as == "" && p.Role == "owner" || as != "" && strings.HasPrefix(as, p.Name)
	})
	require.GreaterOrEqual(b.t, i, 0, as)
	var me any
	b.asked(http.MethodPost, address, "/api/v1/session/demo", map[string]string{"id": session.Demo[i].ID}, &me)
}

// openPlan opens a plan by its title at a step.
func (b tab) openPlan(address, title, step string) {
	b.t.Helper()
	for after := ""; ; {
		var page struct {
			Items []struct{ ID, Title string }
			Next  string
		}
		b.asked(http.MethodGet, address, "/api/v1/plans?after="+url.QueryEscape(after), nil, &page)
		for _, p := range page.Items {
			if strings.HasPrefix(p.Title, title) {
				b.visit(address+"/plans/"+p.ID+"/"+step, drawn+" > 5")
				return
			}
		}
		require.NotEmpty(b.t, page.Next, "there is no plan %q", title)
		after = page.Next
	}
}

// tally is a figure of the tally strip, and tallyChange what the last change did
// to it.
func (b tab) tally(name string) string {
	b.t.Helper()
	b.waitFor(`document.querySelector('[data-tally="` + name + `"]')`)
	return value[string](b, `document.querySelector('[data-tally="`+name+`"] dd span').innerText`)
}

func (b tab) tallyChange(name string) string {
	b.t.Helper()
	return value[string](b, `document.querySelector('[data-tally="`+name+`"] [data-difference]')?.innerText ?? ""`)
}

// The big head's drawn sections, and their outlines.
const (
	drawn    = `document.querySelectorAll("[data-section]").length`
	outlines = `[...document.querySelectorAll("[data-section]")].map((p) => p.getAttribute("d")).join()`
	resting  = `document.querySelector("[data-head][data-still=true]")`
	isSaved  = `document.querySelector("[data-save=saved]")`
)

// closeRegardless closes the page although it warns that something is unsaved.
func (b tab) closeRegardless() {
	value[bool](b, `(BeforeUnloadEvent.prototype.preventDefault = () => {}, true)`)
	b.do(chromedp.Navigate("about:blank"))
}
