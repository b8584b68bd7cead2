package e2e

import (
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// count is how many places the legend of the head gives a class.
func (b tab) count(class string) int {
	b.t.Helper()
	text := value[string](b, `[...document.querySelectorAll("ul[aria-label^=Colours] li")].find((e) => e.innerText.includes("`+class+`"))?.querySelector("small").innerText ?? "0"`)
	n, err := strconv.Atoi(text)
	require.NoError(b.t, err)
	return n
}

// legendHas waits until the legend gives a class some places.
func (b tab) legendHas(class string) {
	b.t.Helper()
	b.waitFor(`[...document.querySelectorAll("ul[aria-label^=Colours] li")].some((e) => e.innerText.includes("` + class + `"))`)
}

const packs = `document.querySelector('[data-tally=packs] dd span').innerText`

// By pointer: a plan of one piece gets a second behind and another method where it shows,
// in a handful of clicks; order decides, and all of it is kept.
func TestTwoPiecesAndTwoMethodsByPointer(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The coxswain, grown-in, before the regatta", 1280, 800)
	n := b.sections()
	b.step("3 Hair")
	b.part("What goes where")
	before := value[string](b, packs)
	b.take("Another exception", "Behind")
	b.take("Piece behind", "Driftline soft loc, 18 in")
	b.waitFor(packs + ` !== "` + before + `"`)
	b.legendHas("Driftline soft loc, 18 in") // the head shows it at once
	behind := b.count("Driftline soft loc, 18 in")
	assert.Equal(t, n, behind+b.count("Saltspun twist, 14 in"))
	b.part("Pieces")
	b.waitFor(says + `("Driftline soft loc, 18 in")`)
	b.part("To buy")
	b.waitFor(`(document.querySelector("section[aria-label='To buy']").innerText.match(/spare =/g) ?? []).length === 2`)

	// Another method where the edge shows; collar and wrap takes locs, which is said.
	b.step("4 Attach")
	b.part("What goes where")
	b.take("Another exception", "Along the hairline")
	b.take("Method along the hairline", "Collar and wrap")
	b.legendHas("Collar and wrap")
	value[bool](b, `(document.querySelector("[data-tally=notices]").click(), true)`)
	b.waitFor(says + `("Piece and method do not suit")`)
	b.do(chromedp.KeyEvent(kb.Escape))
	b.take("Piece along the hairline", "Driftline soft loc, 18 in")
	b.part("Steps")
	b.press("button", "B Collar and wrap on the plaits, Driftline soft loc, 18 in")
	b.waitFor(says + `("Slide the piece over the plait like a collar")`)

	// The hairline has locs; said before it, that behind wins where both hold.
	b.step("3 Hair")
	b.legendHas("Driftline soft loc, 18 in")
	locs := b.count("Driftline soft loc, 18 in")
	assert.Greater(t, locs, behind)
	b.part("What goes where")
	b.take("Piece behind", "Saltspun twist, 14 in")
	b.waitFor(isSaved)
	few := b.count("Driftline soft loc, 18 in")
	b.press("button", "Earlier: Along the hairline")
	b.waitFor(`(() => { const c = [...document.querySelectorAll("ul[aria-label^=Colours] li")].find((e) => e.innerText.includes("Driftline")); return Number(c?.querySelector("small").innerText ?? 0) < ` + strconv.Itoa(few) + ` })()`)
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.part("What goes where")
	b.waitFor(says + `("Along the hairline")`)
	b.press("button", "Take away: Behind")
	b.waitFor(`!` + says + `("Take away: Behind")`)
	b.waitFor(isSaved)
}

// By finger, on the phone: two sections are picked on the head and get a loc and another
// way; the tally opens and tells it.
func TestTwoPiecesAndTwoMethodsByFinger(t *testing.T) {
	t.Parallel()
	b := open(t, 390, 844, "touch-events")
	address := start(t, "demo", "-db", demoFile(t))
	_, err := chromedp.Call(b.ctx, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true})
	require.NoError(t, err)
	b.signInDemo(address, "")
	b.openPlan(address, "The coxswain, grown-in, before the regatta", "hair")
	b.press("radio", "Assign")
	b.waitFor(resting)
	// A section well on the left of the head, and the next that is a fingertip away.
	ids := value[[]string](b, `(() => {
		const head = document.querySelector("[data-head]").getBoundingClientRect();
		const far = (e) => { const r = e.getBoundingClientRect(); return Math.hypot(r.x + r.width / 2 - head.x - head.width / 2 + 30, r.y + r.height / 2 - head.y - head.height / 2) };
		const inside = (e) => { const r = e.getBoundingClientRect(); return document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2) === e };
		const [first, ...others] = [...document.querySelectorAll("[data-section]")].filter(inside).sort((a, b) => far(a) - far(b));
		const apart = (e) => { const [r, s] = [e.getBoundingClientRect(), first.getBoundingClientRect()]; return Math.hypot(r.x + r.width / 2 - s.x - s.width / 2, r.y + r.height / 2 - s.y - s.height / 2) };
		return [first, others.find((e) => apart(e) >= 44)].map((e) => e.dataset.section) })()`)
	for i, id := range ids {
		x, y := b.place(`[data-section="` + id + `"]`)
		b.touch([2]float64{x, y})
		b.waitFor(says + `("` + strconv.Itoa(i+1) + ` picked")`)
	}
	b.take("Piece of what is picked", "Driftline soft loc, 18 in")
	b.take("Method of what is picked", "Collar and wrap")
	b.press("button", "Apply")
	b.waitFor(says + `("None picked")`)
	b.legendHas("Driftline soft loc, 18 in")
	assert.Equal(t, 4, b.count("Driftline soft loc, 18 in"), "two and their like on the other side")
	b.waitFor(isSaved)
	b.press("radio", "Turn")
	b.do(chromedp.Click(chromedp.CSS("footer[aria-label=Tally] [aria-expanded=false]")))
	b.waitFor(`document.querySelector('[data-tally=weightG]')`)
	b.step("4 Attach")
	b.part("Steps")
	b.waitFor(says + `("Collar and wrap on the plaits, Driftline soft loc, 18 in")`)
	// Nothing on a phone is wider than it.
	assert.LessOrEqual(t, value[int](b, `document.scrollingElement.scrollWidth`), 390)
}

// By keys alone: the tool taken, a row picked, a piece and a method chosen and given.
func TestTwoPiecesAndTwoMethodsByKeys(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The coxswain, grown-in, before the regatta", 1280, 800)
	b.step("4 Attach")
	walk := b.walk
	keys := func(list ...string) {
		for _, key := range list {
			b.do(chromedp.KeyEvent(key))
		}
	}
	walk(`[aria-label="What a finger on the head does"] input`)
	keys(kb.ArrowRight)
	b.waitFor(says + `("Other side too")`)
	walk("[data-head]")
	walk("[data-section]")
	keys(kb.Enter)
	b.waitFor(says + `("1 picked")`)
	keys("r")
	b.waitFor(`/([2-9]|\d\d) picked/.test(document.body.innerText)`)
	picked, _, _ := strings.Cut(value[string](b, `document.body.innerText.match(/\d+ picked/)[0]`), " ")
	// Back to what they get: the list opens, and is gone down, with arrow keys.
	walk(`[aria-label="Piece of what is picked"]`, chromedp.KeyModifiers(chromedp.ModifierShift))
	choose := func(name string) {
		keys(kb.ArrowDown)
		for range 12 {
			keys(kb.ArrowDown)
			if value[bool](b, `document.getElementById(document.activeElement.getAttribute("aria-activedescendant"))?.innerText.trim() === "`+name+`"`) {
				keys(kb.Enter)
				return
			}
		}
		t.Fatalf("arrow keys do not lead to %s", name)
	}
	choose("Driftline soft loc, 18 in")
	walk(`[aria-label="Method of what is picked"]`)
	choose("Collar and wrap")
	walk(`[aria-label="Apply"], button`)
	for range 8 {
		if value[string](b, `document.activeElement.innerText`) == "Apply" {
			break
		}
		keys(kb.Tab)
	}
	keys(kb.Enter)
	b.waitFor(says + `("None picked")`)
	b.legendHas("Collar and wrap")
	n, err := strconv.Atoi(picked)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, b.count("Collar and wrap"), n)
	b.waitFor(isSaved)
	b.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	b.waitFor(`![...document.querySelectorAll("ul[aria-label^=Colours] li")].some((e) => e.innerText.includes("Collar and wrap"))`)
}

// By advice, with keys alone: what is wanted is said, the ranking follows with its reasons, and
// the method that leads along the hairline is taken.
func TestChoosingAMethodByAdvice(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The coxswain, grown-in, before the regatta", 1280, 800)
	b.step("4 Attach")
	b.part("Which method")
	b.waitFor(says + `("Light on a tender scalp.")`)
	b.walk(`summary`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.walk(`[aria-label="One more: Weeks of wear"]`)
	for range 5 {
		b.do(chromedp.KeyEvent(kb.Enter))
	}
	b.waitFor(says + `("Worn 4 to 6 weeks, as wished.")`)
	b.waitFor(`[...document.querySelectorAll("em")].some((e) => e.innerText === "new")`) // why it moved
	b.walk(`[aria-label="The part of the head"] input`)
	for _, part := range []string{"In front:", "Behind:", "Along the hairline:"} {
		b.do(chromedp.KeyEvent(kb.ArrowRight))
		b.waitFor(says + `("` + part + `")`)
	}
	b.waitFor(says + `("Roots are seen here")`)
	first := value[string](b, `document.querySelector("ol li[data-verdict] strong").innerText`)
	b.walk(`[aria-label="Use it here: ` + first + `, along the hairline"]`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.waitFor(says + `("In use here")`)
	b.part("What goes where")
	b.waitFor(says + `("Along the hairline")`)
	b.part("Steps")
	b.waitFor(says + `("` + first + ` on the plaits")`)
	b.waitFor(says + `("To take it off")`)
	b.waitFor(isSaved)
}

// A house that plaits snug: its new plans do too, earlier ones say that they depart, and are
// brought back to it.
func TestTheHouseTakesASide(t *testing.T) {
	t.Parallel()
	b := open(t, 1280, 800)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
	b.visit(address+"/house", `document.querySelectorAll("main li").length === 3`)
	b.take("Plaits at the scalp", "Snug")
	b.waitFor(says + `("Tidy, and it holds a hitch")`)
	b.visit(address+"/plans/new/attach", drawn+" > 40")
	b.part("Methods")
	b.waitFor(says + `("hitched by its loop")`)
	b.openPlan(address, "The lighthouse technician, long thick hair", "attach")
	b.waitFor(says + `("The house: snug.")`)
	b.press("button", "Follow house rules: Plaits at the scalp")
	b.waitFor("!" + says + `("The house: snug.")`)
	b.waitFor(isSaved)
	// The new plan, made meanwhile, never departed.
	b.visit(address+"/plans/new/attach", drawn+" > 40")
	b.waitFor(says + `("hitched by its loop")`)
	assert.False(t, value[bool](b, says+`("The house: snug.")`))
}

// Before anything is attached it is asked what no card answers, and a child's caution is read, once; whose
// name stands by it. A stored caution a colleague read is not asked again.
func TestACautionIsReadBeforeGoingOn(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The sail-school pupil, a part and no more", 390, 844)
	b.press("link", "4 Attach")
	b.waitFor(says + `("Which method")`)
	b.waitFor(says + `("Read by Ikaika Moreau")`)

	b.press("link", "Plans")
	b.press("button", "New plan")
	b.waitFor(drawn + " > 40")
	b.part("Whose head")
	b.press("switch", "A child lighter, fewer, looser: a child’s head bears about two thirds")
	b.waitFor(isSaved)
	b.waitFor(`/\/plans\/[0-9a-f-]{36}\/head$/.test(location.pathname)`)
	b.press("link", "4 Attach")
	b.waitFor(says + `("Before you go on")`)
	assert.False(t, value[bool](b, says+`("Which method")`), "nothing else until it was asked and read")
	b.press("button", "None of these")
	b.waitFor(`!` + says + `("About this head")`)
	b.waitFor(`[...document.querySelectorAll("button")].some((e) => e.innerText === "Read and understood")`)
	value[bool](b, `([...document.querySelectorAll("button")].find((e) => e.innerText === "Read and understood").click(), true)`)
	b.waitFor(says + `("Which method")`)
	b.waitFor(says + `("Read by Odalys Brandt")`)
	b.do(chromedp.Reload())
	b.waitFor(says + `("Read by Odalys Brandt")`)
	assert.False(t, value[bool](b, says+`("Before you go on")`))
}
