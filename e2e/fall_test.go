package e2e

import (
	"bytes"
	"fmt"
	"strconv"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// showing are the things that show, as they are listed.
const showing = `[...document.querySelectorAll("section[aria-label='What shows'] li")]`

// A stylist finds a cornrow that shows, fills it, sees it covered, looks at the fit and where it
// lands, and gives a quote that is accepted.
func TestFromAShowingCornrowToAnAcceptedQuote(t *testing.T) {
	t.Parallel()
	b := open(t, 1280, 800)
	files := t.TempDir()
	b.downloadsTo(files)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
	b.openPlan(address, "The cellist, a ring to tie up", "hair")

	b.part("Drape and cover")
	b.waitFor(`document.querySelector("[aria-label='Worn']")`)
	b.waitFor(showing + `.length > 0`)
	b.judge("drape and cover")
	pieces := func() int {
		n, err := strconv.Atoi(b.tally("pieces"))
		require.NoError(t, err)
		return n
	}
	before := pieces()
	first := value[string](b, showing+`[0].innerText.split("\n")[0]`)
	shows := func() bool {
		return value[bool](b, showing+`.some((li) => li.innerText.startsWith(`+"`"+first+"`"+`))`)
	}
	const fill = `[...document.querySelectorAll("section[aria-label='What shows'] li button")].find((e) => e.innerText.trim().startsWith("Fill here"))`
	for range 6 { // what is left of it is filled once more
		if !shows() {
			break
		}
		list := value[string](b, `document.querySelector("section[aria-label='What shows']").innerText`)
		value[bool](b, `(`+fill+`.click(), true)`)
		b.waitFor(`document.querySelector("section[aria-label='What shows']").innerText.replace(/\d+ pieces? fills?.*/, "") !== ` + "`" + list + "`")
		b.waitFor(isSaved)
	}
	assert.False(t, shows(), "%s still shows", first)
	b.waitFor(fmt.Sprintf(`parseInt(document.querySelector("[data-tally=pieces] dd span").innerText) > %d`, before)) // what fills is counted
	// Up bares what down hides.
	down := value[int](b, showing+`.length`)
	b.press("radio", "Tied back")
	b.waitFor(`document.body.innerText.includes("bare with the hair tied back")`)
	assert.NotEqual(t, down, -1)
	b.press("radio", "Down")

	// Every piece is judged, with a word and a mark on the head.
	b.part("Fit and load")
	b.waitFor(`document.body.innerText.includes("No safe limit is published")`)
	b.press("radio", "Load on the head")
	b.waitFor(`[...document.querySelectorAll("ul[aria-label='Colours of load'] li")].length > 1`)
	b.judge("fit and load")

	b.part("Where it lands")
	b.waitFor(`document.querySelector("svg[aria-label^='Where the ends land']")`)
	b.press("radio", "Blunt")
	b.waitFor(`document.body.innerText.includes("Cut list")`)
	b.judge("where it lands")

	b.part("Price and quote")
	b.waitFor(`document.body.innerText.includes("Left to pay on the day")`)
	b.press("button", "Add an extra")
	b.waitFor(`document.querySelector("section[aria-label='Price and quote'] table").innerText.includes("Wash and dry")`)
	total := value[string](b, `document.querySelector("tfoot td").innerText`)
	b.press("button", "Give a quote")
	b.waitFor(`document.querySelector("a[href^='/quotes/']")`)
	b.judge("price and quote")
	value[bool](b, `(document.querySelector("a[href^='/quotes/']").click(), true)`)
	b.waitFor(`document.body.innerText.includes("In the weeks after")`)
	b.waitFor(`document.querySelectorAll("section[aria-label=Pictures] img").length === 2 && [...document.querySelectorAll("section[aria-label=Pictures] img")].every((i) => i.naturalWidth > 0)`)
	b.judge("a quote")
	b.press("button", "It was accepted")
	b.waitFor(`document.querySelector("[role=status]").innerText.includes("Accepted")`)
	b.press("button", "Quote as PDF")
	assert.True(t, bytes.HasPrefix(downloaded(t, files, ".pdf"), []byte("%PDF-")))

	// The plan becomes dearer; the quote does not.
	b.openPlan(address, "The cellist, a ring to tie up", "hair")
	b.part("Price and quote")
	b.waitFor(`document.querySelector("[aria-label='Take extra 1 away']")`)
	b.write("Amount of extra 1, below zero to take off", "90")
	b.waitFor(`document.querySelector("tfoot td").innerText !== ` + "`" + total + "`")
	b.waitFor(isSaved)
	value[bool](b, `(document.querySelector("a[href^='/quotes/']").click(), true)`)
	b.waitFor(`document.body.innerText.includes("In the weeks after")`)
	assert.Equal(t, total, value[string](b, `document.querySelector("tfoot td").innerText`))
}

// On a phone, by keys, on a browser without a graphics processor: the drape turns, is worn up,
// and what weighs too much is put right with one press.
func TestTheDrapeOnAPhoneByKeys(t *testing.T) {
	t.Parallel()
	b := open(t, 390, 844)
	require.False(t, value[bool](b, `!!document.createElement("canvas").getContext("webgl2")`))
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
	b.openPlan(address, "The ferry pilot, a design on the left", "hair")
	b.part("Drape and cover")
	b.waitFor(`document.querySelector("[aria-label='Worn']")`)
	value[bool](b, `(document.querySelector("[data-head]").focus(), true)`)
	// The big picture is the first; this browser has no WebGL, so it is painted.
	b.waitFor(`(() => { const c = document.querySelector("[aria-label='Head map'] canvas"); return c && !c.dataset.drape && c.width > 300; })()`)
	b.waitFor(resting)
	const picture = `document.querySelector("[aria-label='Head map'] canvas").toDataURL()`
	value[bool](b, `(window.was = `+picture+`, true)`)
	b.do(chromedp.KeyEvent(kb.ArrowLeft))
	b.do(chromedp.KeyEvent(kb.ArrowLeft))
	b.waitFor(picture + ` !== window.was`)
	b.waitFor(resting)
	assert.True(t, value[bool](b, `document.documentElement.scrollWidth <= innerWidth`), "nothing runs off the side")

	b.part("Fit and load")
	b.waitFor(`document.body.innerText.includes("No safe limit is published")`)
	const remedy = `document.querySelector("section[aria-label='Fit and load'] [data-severity] button")`
	if value[bool](b, `!!`+remedy) {
		says := value[string](b, remedy+`.innerText`)
		value[bool](b, `(`+remedy+`.focus(), true)`)
		b.do(chromedp.KeyEvent(kb.Enter))
		b.waitFor(`document.querySelector("section[aria-label='Fit and load'] [data-severity] button")?.innerText !== ` + "`" + says + "`")
		b.waitFor(isSaved)
	}
	assert.True(t, value[bool](b, `[...document.querySelectorAll("section[aria-label='Fit and load'] button")].every((x) => x.getBoundingClientRect().height >= 40)`))
}

// Where the browser has WebGL the drape is drawn by it, under the page's strict policy, and
// without a complaint; turned and worn up it is another picture.
func TestTheDrapeByWebGL(t *testing.T) {
	t.Parallel()
	b := open(t, 1280, 800, webGL)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
	b.openPlan(address, "The coxswain, linked plaits under the cap", "hair")
	b.part("Drape and cover")
	b.waitFor(`document.querySelector("canvas[data-drape=true]")`)
	b.waitFor(showing)
	seen := func() string {
		png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		return string(png)
	}
	b.waitFor(resting)
	before := seen()
	b.do(chromedp.KeyEvent("5"))
	front := before
	for range 20 { // it turns
		if front = seen(); front != before {
			break
		}
	}
	assert.NotEqual(t, before, front)
	b.waitFor(resting)
	front = seen()
	b.press("radio", "Half up")
	b.waitFor(`document.body.innerText.includes("bare with the hair half up")`)
	assert.NotEqual(t, front, seen())
	assert.True(t, value[bool](b, `!!document.querySelector("canvas[data-drape=true]")`), "it is still drawn by it")
}
