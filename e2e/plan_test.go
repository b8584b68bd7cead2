package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A newcomer measures a head, tries both patterns, changes a size and finds it
// all again after a reload.
func TestFirstPlan(t *testing.T) {
	t.Parallel()
	b := open(t, 1280, 800)
	address := start(t, "serve", "-db", filepath.Join(t.TempDir(), "studio.db"))
	b.claim(address)
	b.press("button", "Make first plan")
	b.waitFor(drawn + " > 40")
	average := b.tally("sections")

	// Three tapes, written the way a stylist writes them.
	b.part("Three tapes")
	b.write("Around the head", "23 1/4")
	b.write("Front to nape", "14¾")
	b.write("Ear to ear", "13.25")
	b.waitFor(`document.querySelector('[data-tally=sections] dd span').innerText !== "` + average + `"`)
	b.waitFor(isSaved)
	b.waitFor(`/\/plans\/[0-9a-f-]{36}\/head$/.test(location.pathname)`)

	// Grid to brick: the picture changes, straight channels are gone, and the count follows
	// the area as before.
	b.step("2 Parting")
	b.part("Sizes")
	b.press("radio", "Grid")
	b.part("Read")
	b.waitFor(says + `("Straight channels")`)
	b.waitFor(resting)
	grid, gridPicture := b.tally("sections"), value[string](b, outlines)
	b.part("Sizes")
	b.press("radio", "Brick")
	b.part("Read")
	b.waitFor(`!` + says + `("Straight channels")`)
	b.waitFor(resting)
	brick := b.tally("sections")
	assert.NotEqual(t, gridPicture, value[string](b, outlines))
	count := func(tally string) float64 {
		n, err := strconv.Atoi(tally)
		require.NoError(t, err)
		return float64(n)
	}
	assert.InEpsilon(t, count(grid), count(brick), 0.04)

	// A smaller front: the tally shows by how much the plan grew.
	b.part("Sizes")
	b.write("Section size", "3/4")
	// Not what is shown while only a part of the size is typed.
	b.waitFor(`Number(document.querySelector('[data-tally=sections] dd span').innerText) > ` + brick)
	small := b.tally("sections")
	difference(t, b, brick, small)
	assert.Regexp(t, `^\+`, b.tallyChange("minutes"))

	// Undo and redo.
	b.do(chromedp.Click(chromedp.CSS(`[aria-label="Undo"]`)))
	b.waitFor(`document.querySelector('[data-tally=sections] dd span').innerText === "` + brick + `"`)
	b.do(chromedp.Click(chromedp.CSS(`[aria-label="Redo"]`)))
	b.waitFor(`document.querySelector('[data-tally=sections] dd span').innerText === "` + small + `"`)

	// Another family brings the hair it takes.
	b.step("4 Attach")
	b.press("button", "None of these")
	b.part("Methods")
	locs := b.tally("costMinor")
	b.take("Method A", "Fold and twist")
	b.part("Steps")
	b.waitFor(`document.body.innerText.includes("Take one strand. For a fuller twist lay two together")`)
	b.waitFor(`document.querySelector('[data-tally="costMinor"] dd span').innerText !== ` + strconv.Quote(locs))
	b.waitFor(isSaved)
	before := value[string](b, `document.querySelector("[aria-label=Tally]").innerText`)

	// After a reload it is all there, but for what the last change did.
	b.do(chromedp.Reload())
	b.waitFor(drawn + " > 40")
	assert.Equal(t, small, b.tally("sections"))
	for _, figure := range []string{"pieces", "packs", "costMinor"} {
		assert.Contains(t, before, b.tally(figure), figure)
	}
	b.part("Steps")
	b.waitFor(`document.body.innerText.includes("Take one strand. For a fuller twist lay two together")`)
	b.step("1 Head")
	b.part("Three tapes")
	b.waitFor(`[...document.querySelectorAll("input")].some((i) => i.value === "23¼")`)

	// And it stands in the list, with its picture.
	b.press("link", "Plans")
	b.waitFor(`document.querySelector("img[src*=picture]")?.naturalWidth > 0`)
	assert.Contains(t, value[string](b, "document.body.innerText"), small)
}

// difference checks the tally's difference in sections against the two counts.
func difference(t *testing.T, b tab, before, after string) {
	t.Helper()
	from, err := strconv.Atoi(before)
	require.NoError(t, err)
	to, err := strconv.Atoi(after)
	require.NoError(t, err)
	require.NotEqual(t, from, to)
	want := fmt.Sprintf("+%d", to-from)
	if to < from {
		want = fmt.Sprintf("−%d", from-to)
	}
	assert.Equal(t, want, b.tallyChange("sections"))
}

// A tape that cannot be is refused at its field; what was there stays, and
// nothing is saved until it is put right.
func TestImpossibleTape(t *testing.T) {
	t.Parallel()
	b := open(t, 820, 1180)
	address := start(t, "serve", "-db", filepath.Join(t.TempDir(), "studio.db"))
	b.claim(address)
	b.visit(address+"/plans/new/head", drawn+" > 40")
	sections := b.tally("sections")
	b.part("Three tapes")
	b.write("Ear to ear", "10")
	b.waitFor(`document.body.innerText.includes("would agree. Take both again.")`)
	b.waitFor(`document.querySelector("[data-save=refused]")`)
	assert.Equal(t, sections, b.tally("sections"))
	b.write("Ear to ear", "12")
	b.waitFor(isSaved)
	b.waitFor(`!document.body.innerText.includes("would fit")`)
}

// A set of pieces is in hand: the sizes are fitted to it, states are pinned and
// compared, and one is chosen; all of it is saved.
func TestFittingAHeadToTheHairInHand(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The lighthouse technician, long thick hair", 1280, 800)
	before := b.tally("sections")
	sections := func(n string) string {
		return `document.querySelector('[data-tally=sections] dd span')?.innerText === "` + n + `"`
	}
	fit := func(total string) {
		b.waitFor(`document.querySelector("[aria-label='Sections wished for']")`) // it loads when it is opened
		value[bool](b, `(document.querySelector("[aria-label='Sections wished for']").focus(), document.activeElement.select(), true)`)
		b.do(chromedp.KeyEvent(total))
		b.press("button", "Match the count")
	}
	b.part("Compare")
	b.press("button", "Pin this state")
	b.part("Count")
	fit("100")
	b.waitFor(sections("100"))
	fit("61")
	b.waitFor(`document.body.innerText.includes("No sizes make exactly 61")`)
	b.press("button", "Use 62 sections")
	b.waitFor(sections("62"))
	fit("9000")
	b.waitFor(`/Between \d+ and \d+ sections can be had/.test(document.body.innerText)`)

	b.press("radio", "Size")
	b.waitFor(`document.body.innerText.includes("As wished, within a quarter")`)

	// Where the parts go, and the other way round in a mirror.
	b.part("Read")
	b.press("button", "Row guide")
	b.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("From the middle part, along the scalp")`)
	start := `document.querySelector("[role=dialog] circle").getAttribute("cx")`
	direct := value[string](b, start)
	value[bool](b, `(document.querySelector("[role=dialog] [role=switch]").click(), true)`) // it may still be growing
	b.waitFor(start + ` !== "` + direct + `"`)
	b.do(chromedp.KeyEvent(kb.Escape))
	b.waitFor(`!document.querySelector("[role=dialog]")?.checkVisibility()`)

	b.part("Compare")
	b.press("button", "Side by side")
	b.waitFor(`[...document.querySelectorAll("[role=dialog]")].some((d) => d.innerText.includes("Front section width"))`)
	b.press("button", "Choose this one")
	b.waitFor(sections(before))
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.waitFor(sections(before))
	b.part("Compare")
	b.waitFor(`document.querySelector("[aria-label='Name of variant 1']")?.value === "Brick, ` + before + ` sections"`)
}

// The head is turned and read with keys alone.
func TestHeadByKeyboard(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The cellist, a hairline that shows", 1280, 800)
	seen := value[string](b, outlines)
	b.do(chromedp.KeyEvent("2"))
	b.waitFor(outlines + ` !== ` + strconv.Quote(seen))
	b.waitFor(`document.querySelector('[data-section="BR2.1"]')`)

	value[bool](b, `(document.querySelector('[data-section][tabindex="0"]').focus(), true)`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.waitFor(`document.querySelector("aside")?.innerText.includes("from the middle part")`)
	first := value[string](b, `document.querySelector("aside").innerText`)
	b.do(chromedp.KeyEvent(kb.ArrowUp))
	b.waitFor(`document.querySelector("aside")?.innerText !== ` + strconv.Quote(first))
	assert.Contains(t, value[string](b, `document.querySelector("aside").innerText`), "row 2 from below")
	b.do(chromedp.KeyEvent(kb.Escape))
	b.waitFor(`!document.querySelector("aside")`)
}

// An accessibility engine finds no serious fault on any screen.
func TestAccessibility(t *testing.T) {
	t.Parallel()
	// Without motion, so that no colour is caught half-way.
	b := open(t, 1280, 800)
	address := start(t, "demo", "-db", demoFile(t))
	const pictures = `document.querySelector("img[src*=picture]")`
	b.visit(address, `document.body.innerText.includes("Open demo studio")`)
	b.judge("door")
	b.press("button", "Open demo studio")
	b.waitFor(pictures) // leaving sooner would leave the door half open
	b.visit(address, pictures)
	b.judge("today")
	b.visit(address+"/clients", `document.querySelectorAll("main li").length === 6`)
	b.judge("clients")
	b.follow("Maren Tolliver-Oduya")
	b.waitFor(drawn + " > 40")
	b.waitFor(pictures)
	b.judge("client")
	b.visit(address+"/clients/new", `document.body.innerText.includes("not measured yet")`)
	b.judge("new client")
	b.visit(address+"/house", `document.querySelectorAll("main li").length === 3`)
	b.judge("house rules")
	b.press("button", "Add a person")
	b.waitFor(`document.body.innerText.includes("First password")`)
	b.judge("add a person")
	assert.Equal(t, "hidden", value[string](b, `getComputedStyle(document.body).overflowY`), "the page behind a dialog stays where it is")
	b.visit(address+"/plans", pictures)
	b.judge("plans")
	plan := value[string](b, `document.querySelector("main a").pathname.split("/")[2]`)
	for _, step := range []string{"head", "hair", "attach", "parting"} {
		b.visit(address+"/plans/"+plan+"/"+step, drawn+" > 40")
		titles := partsOf("main")
		b.waitFor(titles + ".length > 0")
		b.judge(step)
		for _, title := range value[[]string](b, titles) {
			b.part(title)
			b.judgeBy(step+", "+title, part(title), `{}`)
		}
	}
	b.press("radio", "Sections")
	value[bool](b, `(document.querySelector("[data-section]").dispatchEvent(new MouseEvent("click", {bubbles: true})), true)`)
	b.waitFor(`document.body.innerText.includes("1 picked")`)
	b.judge("sections")
	b.press("radio", "Leave out")
	b.judge("leave out")
	b.press("radio", "Hairline")
	b.judge("hairline")
	b.part("Compare")
	b.press("button", "Pin this state")
	b.press("button", "Side by side")
	b.waitFor(`document.querySelectorAll("[role=dialog] h3").length > 1`)
	b.judge("compare")
	b.do(chromedp.KeyEvent(kb.Escape))
	b.part("Read")
	b.press("button", "Row guide")
	b.waitFor(`document.body.innerText.includes("As seen in a mirror")`)
	b.judge("row guide")
	b.do(chromedp.KeyEvent(kb.Escape))
	b.press("radio", "Row")
	b.judge("rows")
	b.do(chromedp.KeyEvent("h"))
	b.waitFor(`document.body.innerText.includes("The oldest that is kept")`)
	b.judge("history")
	b.visit(address+"/plans/"+plan+"/head", drawn+" > 40")
	b.do(chromedp.KeyEvent("?"))
	b.waitFor(`document.body.innerText.includes("This list")`)
	b.judge("keys")
}

// engine is the accessibility engine, as a script.
var engine = sync.OnceValues(func() (string, error) {
	script, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	return string(script), err
})

// part is where a part of a step stands.
func part(title string) string { return "section[aria-label='" + title + "']" }

// partsOf are, as JavaScript, the titles of the parts that a place of the page shows.
func partsOf(place string) string {
	return "[...document.querySelectorAll(" + strconv.Quote(place+" section[aria-label] > h2") + `)].map((e) => e.parentElement.getAttribute("aria-label"))`
}

// judge lets an accessibility engine look at the page; serious faults fail the test.
func (b tab) judge(page string) {
	b.t.Helper()
	b.judgeBy(page, "html", `{}`)
}

// judgeBy is [tab.judge] of one place of the page by some of its rules.
func (b tab) judgeBy(page, place, options string) {
	b.t.Helper()
	// Colours on their way to others are judged once they are there, and what opens once it is open.
	b.waitFor(`document.getAnimations().every((a) => a.playState !== "running" || a.effect.getTiming().iterations === Infinity)`)
	if !value[bool](b, `"axe" in window`) {
		script, err := engine()
		require.NoError(b.t, err)
		_, err = chromedp.Run(b.ctx, chromedp.Evaluate[any](script+"; 0"))
		require.NoError(b.t, err)
	}
	faults, err := chromedp.Run(b.ctx, chromedp.Evaluate[[]string](`axe.run(`+strconv.Quote(place)+`, { preload: false, resultTypes: ["violations"], ...`+options+` }).then((r) => r.violations
		.filter((v) => v.impact === "serious" || v.impact === "critical")
		.flatMap((v) => v.nodes.map((n) => v.id + ": " + n.html.slice(0, 160) + " " + (n.any[0]?.message ?? ""))))`, chromedp.EvalAwaitPromise))
	require.NoError(b.t, err)
	assert.Empty(b.t, faults, page)
}

// The same on a phone, and in the dim colours on a tablet, where nothing is wider than the screen either.
func TestAccessibilityOnAPhone(t *testing.T) {
	t.Parallel()
	judgeSmaller(t, 390, 844, false, `{}`)
}

// What a page says and how it is walked does not change with its colours and with a width between the two.
func TestAccessibilityInDimOnATablet(t *testing.T) {
	t.Parallel()
	judgeSmaller(t, 820, 1180, true, `{ runOnly: ["target-size", "scrollable-region-focusable", "color-contrast"] }`)
}

// judgeSmaller walks through the whole of the program on a smaller screen.
func judgeSmaller(t *testing.T, width, height int, dim bool, rules string) {
	address := start(t, "demo", "-db", demoFile(t))
	b := open(t, width, height)
	lookAt := func(page, place string) {
		b.judgeBy(fmt.Sprintf("%s at %d", page, width), place, rules)
		assert.LessOrEqual(t, value[int](b, `document.scrollingElement.scrollWidth`), width, "%s is wider than %d", page, width)
	}
	look := func(page string) { lookAt(page, "html") }
	b.visit(address, says+`("Tidewheel Loft")`)
	if dim {
		value[bool](b, `(localStorage.setItem("kladotex.preferences", JSON.stringify({ state: { dim: true }, version: 0 })), true)`)
		b.visit(address, says+`("Tidewheel Loft")`)
		assert.Less(t, value[float64](b, `getComputedStyle(document.body).backgroundColor.match(/\d+/g).slice(0, 3).reduce((sum, c) => sum + Number(c), 0)`), 384.0, "it is dim")
	}
	look("door")
	b.enterDemo(address, "")
	look("today")
	for path, ready := range map[string]string{
		"/clients": `document.querySelectorAll("main li").length === 6`, "/house": `document.querySelectorAll("main li").length === 3`,
		"/calendar": `document.querySelectorAll("[data-day]").length >= 28`,
		"/plans":    `document.querySelector("img[src*=picture]")`, "/clients/new": says + `("not measured yet")`,
	} {
		b.visit(address+path, ready)
		look(path)
	}
	if !dim {
		b.press("button", "Menu")
		b.waitFor(says + `("Unit of length")`)
		look("menu")
	}
	b.visit(address+"/clients", `document.querySelectorAll("main li").length === 6`)
	b.follow("Maren Tolliver-Oduya")
	b.waitFor(drawn + " > 40")
	look("client")
	b.openPlan(address, "The lighthouse technician, horseshoe", "head")
	for _, step := range []string{"1 Head", "2 Parting", "3 Hair", "4 Attach", "5 Day"} {
		b.step(step)
		look(step)
		for _, title := range value[[]string](b, partsOf("main section[aria-label="+step[2:]+"]")) {
			b.part(title)
			lookAt(step+", "+title, part(title))
		}
	}
	for _, title := range []string{"Sittings", "Length and breaks", "Working order", "Before it", "On the calendar", "Papers", "Messages"} {
		b.part(title)
		lookAt("5 Day, "+title, part(title))
	}
	b.step("4 Attach")
	b.press("radio", "Assign")
	look("assign")
	b.press("radio", "Turn")
	b.step("2 Parting")
	for _, tool := range []string{"Sections", "Leave out", "Hairline"} {
		b.press("radio", tool)
		look(tool)
	}
	b.press("radio", "Turn")
	b.part("Read")
	b.press("button", "Row guide")
	b.waitFor(`document.body.innerText.includes("As seen in a mirror")`)
	look("row guide")
	b.do(chromedp.KeyEvent(kb.Escape))
	b.part("Compare")
	b.press("button", "Pin this state")
	b.press("button", "Side by side")
	b.waitFor(`document.querySelectorAll("[role=dialog] h3").length > 1`)
	look("compare")
}

// How long a size slider takes to repaint the head, and a frame of turning it;
// printed for docs/performance.md, not judged.
func TestPrintRepaintTimes(t *testing.T) {
	if !*bars {
		t.Skip("it is printed by make bars")
	}
	b := open(t, 1280, 800)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
	b.visit(address+"/plans/new/parting", drawn+" > 40")
	b.part("Sizes")
	// From 1 in down to 3/8 in in brick, then up to 1 3/4 in in grid, an eighth of an
	// inch at a time: every layout is new, none is remembered.
	watch := `(window.repainted = new Promise((done, fail) => {
		const handle = document.querySelector("input[type=range]");
		handle.focus();
		handle.addEventListener("keydown", () => {
			const start = performance.now();
			// The head is painted anew once what is painted is cleared away; the frame after
			// that is the one that shows it.
			const clear = CanvasRenderingContext2D.prototype.clearRect;
			CanvasRenderingContext2D.prototype.clearRect = function (...at) {
				CanvasRenderingContext2D.prototype.clearRect = clear;
				requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)));
				return clear.apply(this, at);
			};
		}, { once: true, capture: true });
		setTimeout(() => fail(new Error("the head did not change")), 5000);
	}), true)`
	var slides []float64
	for i := range 16 {
		key := kb.ArrowLeft
		if i >= 5 {
			key = kb.ArrowRight
		}
		if i == 5 {
			b.press("radio", "Grid")
			b.part("Read")
			b.waitFor(says + `("Straight channels")`)
			b.part("Sizes")
		}
		value[bool](b, watch)
		b.do(chromedp.KeyEvent(key))
		ms, err := chromedp.Run(b.ctx, chromedp.Evaluate[float64](`window.repainted`, chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		slides = append(slides, ms)
		time.Sleep(500 * time.Millisecond)
	}
	slices.Sort(slides)
	frame, err := chromedp.Run(b.ctx, chromedp.Evaluate[float64](`new Promise((done) => {
		const head = document.querySelector("[data-head]");
		const send = (type, x) => head.dispatchEvent(new PointerEvent(type, { clientX: x, clientY: 300, bubbles: true, pointerId: 1, button: 0 }));
		head.setPointerCapture = () => {};
		send("pointerdown", 300);
		const start = performance.now();
		let n = 0;
		const step = () => {
			if (n++ === 60) { send("pointerup", 300); done((performance.now() - start) / 60); return; }
			send("pointermove", 300 + 4 * n);
			requestAnimationFrame(step);
		};
		requestAnimationFrame(step);
	})`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	fmt.Printf("slider to repainted head: median %.0f ms, worst %.0f ms of %d; a frame of turning: %.1f ms (%s sections)\n",
		slides[len(slides)/2], slides[len(slides)-1], len(slides), frame, b.tally("sections"))
}
