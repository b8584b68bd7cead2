package e2e

import (
	"net/http"
	"net/http/httptest"
	"net/http/httputil"
	"net/url"
	"strings"
	"sync/atomic"
	"testing"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// losing stands before the program and, while told to, loses the answer to every save:
// the program has done it, the page never hears.
type losing struct {
	address string
	lose    atomic.Bool
	lost    atomic.Int32
}

func loseAnswers(t *testing.T, address string) *losing {
	t.Helper()
	to, _ := url.Parse(address)
	l := &losing{}
	proxy := httputil.NewSingleHostReverseProxy(to)
	proxy.ModifyResponse = func(res *http.Response) error {
		if l.lose.Load() && res.Request.Method != http.MethodGet && strings.HasPrefix(res.Request.URL.Path, "/api/v1/plans") {
			l.lost.Add(1)
			return http.ErrAbortHandler
		}
		return nil
	}
	proxy.ErrorHandler = func(http.ResponseWriter, *http.Request, error) { panic(http.ErrAbortHandler) }
	server := httptest.NewServer(proxy)
	t.Cleanup(server.Close)
	l.address = server.URL
	return l
}

// The answer to a save is lost, first of a new plan, then of one that is there: one plan
// is made, all of what was typed is kept, and nobody is told that they themselves saved
// meanwhile.
func TestALostAnswer(t *testing.T) {
	t.Parallel()
	l := loseAnswers(t, start(t, "demo", "-db", demoFile(t)))
	b := open(t, 1280, 800)
	b.signInDemo(l.address, "")
	b.visit(l.address+"/plans/new/head", drawn+" > 40")
	l.lose.Store(true)
	b.part("Three tapes")
	b.write("Around the head", "22 1/2")
	b.waitFor(`document.querySelector("[data-save=offline]")`)
	b.write("Around the head", "22 3/4")
	l.lose.Store(false)
	b.waitFor(isSaved)
	b.waitFor(`/\/plans\/[0-9a-f-]{36}\/head$/.test(location.href)`)
	assert.Positive(t, l.lost.Load())

	l.lose.Store(true)
	b.part("The client’s hair")
	b.write("In front", "9")
	b.waitFor(`document.querySelector("[data-save=offline]")`)
	l.lose.Store(false)
	b.write("In front", "9 1/2")
	// What was typed last is what is stored; 9½ in are 241.3 mm.
	b.waitFor(`(fetch("/api/v1" + location.pathname.replace("/head", "")).then((r) => r.json()).then((p) => { window.stored = p.input.hair.frontMm }), Math.abs(window.stored - 241.3) < 0.01)`)
	b.waitFor(isSaved)
	assert.False(t, value[bool](b, `document.body.innerText.includes("saved this plan too")`))
	b.do(chromedp.Reload())
	for part, text := range map[string]string{"Three tapes": "22¾", "The client’s hair": "9½"} {
		b.part(part)
		b.waitFor(`[...document.querySelectorAll("input")].some((i) => i.value === "` + text + `")`)
	}
	b.visit(l.address+"/plans", `document.querySelectorAll("img[src*=picture]").length >= 25`)
	assert.Equal(t, 25, value[int](b, `document.querySelectorAll("img[src*=picture]").length`), "one plan more than the demo has")
}

// Two new plans do not share a draft; what was begun without a connection is found again
// by who began it, and by no one else on the same tablet.
func TestDraftsOfOnePersonAndOnePlan(t *testing.T) {
	t.Parallel()
	db := demoFile(t)
	program := startAt(t, "127.0.0.1:0", "demo", "-db", db)
	b := open(t, 820, 1180)
	b.signInDemo(program.address, "")
	b.visit(program.address+"/plans/new/head", drawn+" > 40")
	first := value[string](b, "location.pathname.split('/')[2]")
	program.kill(t)
	b.part("Three tapes")
	b.write("Around the head", "23 3/4")
	b.waitFor(`document.querySelector("[data-save=offline]")`)
	b.closeRegardless()
	program = program.again(t, "demo", "-db", db)

	typed := `[...document.querySelectorAll("input")].some((i) => i.value === "23¾")`
	b.visit(program.address+"/plans/new/head", drawn+" > 40")
	assert.NotEqual(t, first, value[string](b, "location.pathname.split('/')[2]"))
	b.part("Three tapes")
	b.waitFor(`document.querySelector("section[aria-label='Three tapes'] input")`)
	assert.False(t, value[bool](b, typed), "another new plan begins afresh")

	leave := func() {
		b.do(chromedp.Click(chromedp.CSS(`[aria-label^="Signed in as"]`)))
		b.press("menuitem", "Sign out")
		b.waitFor(`document.body.innerText.includes("Tidewheel Loft")`)
	}
	leave()
	b.press("button", "Tamsin Okoro-Vale stylist")
	b.waitFor(`document.querySelector("img[src*=picture]")`)
	b.visit(program.address+"/plans", `document.querySelectorAll("img[src*=picture]").length >= 24`)
	assert.False(t, value[bool](b, `document.body.innerText.includes("not saved yet")`), "it is not Tamsin's")
	leave()
	b.press("button", "Open demo studio")
	b.waitFor(`document.querySelector("img[src*=picture]")`)
	b.visit(program.address+"/plans", `document.body.innerText.includes("Begun on this device, not saved yet")`)
	b.press("link", "New plan")
	b.part("Three tapes")
	b.waitFor(typed)
	b.waitFor(isSaved)
	b.visit(program.address+"/plans", `document.querySelectorAll("img[src*=picture]").length === 25`)
	assert.False(t, value[bool](b, `document.body.innerText.includes("not saved yet")`))
}

// A third save comes in while two are held against each other: it is not overwritten
// unseen.
func TestAThirdSaveInBetween(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	const title = "The cellist, a hairline that shows"
	odalys, tamsin := open(t, 1280, 800), open(t, 1280, 800)
	odalys.enterDemo(address, "")
	tamsin.enterDemo(address, "Tamsin Okoro-Vale stylist")
	odalys.openPlan(address, title, "head")
	tamsin.openPlan(address, title, "head")
	tamsin.part("The client’s hair")
	odalys.part("The client’s hair")
	tamsin.write("In front", "8")
	tamsin.waitFor(`document.querySelector("[data-save]").dataset.save !== "saved"`)
	tamsin.waitFor(isSaved)
	odalys.write("In front", "10")
	odalys.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("8 in")`)
	tamsin.write("In front", "9")
	tamsin.waitFor(`document.querySelector("[data-save]").dataset.save !== "saved"`)
	tamsin.waitFor(isSaved)
	odalys.press("button", "Keep mine")
	odalys.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("9 in")`)
	odalys.press("button", "Keep mine")
	odalys.waitFor(isSaved)
	tamsin.do(chromedp.Reload())
	tamsin.part("The client’s hair")
	tamsin.waitFor(`[...document.querySelectorAll("input")].some((i) => i.value === "10")`)
}

// A part of the program that is not there any more, and a browser store that is broken,
// leave a page that says so, not a blank one.
func TestAPageNeverGoesBlank(t *testing.T) {
	t.Parallel()
	db := demoFile(t)
	program := startAt(t, "127.0.0.1:0", "demo", "-db", db)
	b := open(t, 820, 1180)
	// On a device that keeps nothing of the application.
	_, err := chromedp.Call(b.ctx, network.SetBypassServiceWorker, network.SetBypassServiceWorkerParams{Bypass: true})
	require.NoError(t, err)
	_, err = chromedp.Call(b.ctx, network.SetCacheDisabled, network.SetCacheDisabledParams{CacheDisabled: true})
	require.NoError(t, err)
	b.enterDemo(program.address, "")
	value[bool](b, `(localStorage.setItem("kladotex.preferences", "{half"), true)`)
	b.visit(program.address, `document.querySelector("img[src*=picture]")`)
	value[bool](b, `(Object.defineProperty(window, "localStorage", { get() { throw new DOMException("no store"); } }), true)`)
	b.press("link", "Plans")
	b.waitFor(`document.querySelectorAll("img[src*=picture]").length >= 24`)

	b.visit(program.address, `document.querySelector("img[src*=picture]")`)
	program.kill(t)
	b.mayComplain()
	b.press("link", "House rules")
	b.waitFor(`document.body.innerText.includes("Reload")`)
	_ = program.again(t, "demo", "-db", db)
	b.press("button", "Reload")
	b.waitFor(`document.body.innerText.includes("Your sign-in")`)
}
