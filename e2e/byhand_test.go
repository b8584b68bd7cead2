package e2e

import (
	"fmt"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// drag moves the mouse through points with its button down.
func (b tab) drag(points ...[2]float64) {
	b.t.Helper()
	first, last := points[0], points[len(points)-1]
	b.do(chromedp.MouseEvent(chromedp.MousePressed, first[0], first[1], chromedp.ButtonLeft))
	for i := 1; i < len(points); i++ {
		from, to := points[i-1], points[i]
		const steps = 6
		for k := 1; k <= steps; k++ {
			f := float64(k) / steps
			b.do(chromedp.MouseEvent(chromedp.MouseMoved, from[0]+f*(to[0]-from[0]), from[1]+f*(to[1]-from[1]), chromedp.ButtonLeft))
		}
	}
	b.do(chromedp.MouseEvent(chromedp.MouseReleased, last[0], last[1], chromedp.ButtonLeft))
}

// touch moves a finger through points of the window.
func (b tab) touch(points ...[2]float64) {
	b.t.Helper()
	send := func(kind input.DispatchTouchEventType, at ...*input.TouchPoint) {
		_, err := chromedp.Call(b.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: at})
		require.NoError(b.t, err)
	}
	first := points[0]
	send("touchStart", &input.TouchPoint{X: first[0], Y: first[1]})
	for i := 1; i < len(points); i++ {
		from, to := points[i-1], points[i]
		const steps = 6
		for k := 1; k <= steps; k++ {
			f := float64(k) / steps
			send("touchMove", &input.TouchPoint{X: from[0] + f*(to[0]-from[0]), Y: from[1] + f*(to[1]-from[1])})
		}
	}
	send("touchEnd")
}

// A head is changed by hand: joined, dragged, painted and locked; the changes are kept,
// hold when the size changes, and are reported when they do not.
func TestWorkingByHand(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The lighthouse technician, long thick hair", 1280, 800)
	n := b.sections()
	b.part("By hand")
	b.press("radio", "Sections")

	// Two sections joined, on both sides.
	b.pick("BL3.2")
	b.pick("BL3.3")
	b.waitFor(says + `("2 picked")`)
	b.press("button", "Join")
	b.waitForSections(n - 2)
	b.waitFor(notes + `.includes("Sections joined")`)
	b.press("button", "Clear selection")

	// The line above the third row dragged up, by mouse and by key.
	row := `g[aria-label="Back left: line above row 3"]`
	x, y := b.place(row)
	b.drag([2]float64{x, y}, [2]float64{x, y - 14})
	b.waitFor(notes + `.includes("Part line moved")`)
	b.waitFor(isSaved)
	_, moved := b.place(row)
	assert.InDelta(t, y-14, moved, 9, "the line follows the mouse")
	value[bool](b, `(document.querySelector('`+row+`').focus(), true)`)
	b.do(chromedp.KeyEvent(kb.ArrowDown))
	b.waitFor(fmt.Sprintf(`(() => { const r = document.querySelector('%s').getBoundingClientRect(); return r.y + r.height / 2 > %v })()`, row, moved+0.5))

	// Several picked by drawing round them, then locked: they stay.
	x, y = b.place(`[data-section="BL5.2"]`)
	b.drag([2]float64{x - 50, y - 45}, [2]float64{x + 50, y - 45}, [2]float64{x + 50, y + 40}, [2]float64{x - 50, y + 40}, [2]float64{x - 50, y - 40})
	b.waitFor(`/[1-9]\d* picked/.test(document.body.innerText)`)
	b.press("button", "Lock")
	b.waitFor(notes + `.includes("Locked")`)
	b.press("button", "Leave out")
	b.waitFor(says + `("is locked; unlock it first")`)
	b.do(chromedp.Click(chromedp.CSS(`[aria-label="Undo"]`)))
	b.waitFor(`!` + says + `("is locked; unlock it first")`)

	// By key: the section in focus picked, split.
	value[bool](b, `(document.querySelector('[data-section="BL2.2"]').focus(), true)`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.waitFor(says + `("1 picked")`)
	b.do(chromedp.KeyEvent("s"))
	b.waitForSections(n)
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.waitForSections(n)
	b.part("By hand")
	b.waitFor(notes + `.includes("Section split")`)

	// A spot painted out, on one side.
	b.press("radio", "Leave out")
	b.waitFor(says + `("Other side too")`)
	x, y = b.place(`[data-section="BL4.2"]`)
	b.drag([2]float64{x, y}, [2]float64{x + 12, y}, [2]float64{x + 12, y + 14}, [2]float64{x - 14, y + 14}, [2]float64{x - 14, y - 14}, [2]float64{x + 12, y - 14})
	b.waitFor(`/[1-9]\d* sections? (is|are) left out/.test(document.body.innerText)`)
	assert.Less(t, b.sections(), n)
	b.waitFor(notes + `.includes("Spot left out")`)

	// Larger sections keep the changes; with cornrows behind, what no longer fits is told,
	// with a choice.
	b.part("Sizes")
	b.write("Back section size", "1 3/8")
	b.waitFor(isSaved)
	b.part("By hand")
	assert.Contains(t, value[string](b, notes), "Part line moved")
	b.choose("ear-to-ear")
	b.part("By hand")
	b.waitFor(notes + `.includes("No section lies here any more")`)
	value[bool](b, `([...document.querySelectorAll("button")].find((e) => /^Take (it|them) out$/.test(e.innerText)).click(), true)`)
	b.waitFor(`!/changes? no longer fits?/.test(document.body.innerText)`)
	b.choose("all")
	b.part("By hand")
	b.press("button", "Take all back")
	b.waitFor(notes + `.includes("Nothing yet")`)

	// The hairline lifted at the front centre: another scalp under hair.
	b.part("Read")
	scalp := `[...document.querySelectorAll("dt")].find((e) => e.innerText === "Scalp in sections").nextSibling.innerText`
	before := value[string](b, scalp)
	b.press("radio", "Hairline")
	b.press("button", "Front 5")
	b.waitFor(resting)
	x, y = b.place(`g[aria-label="Front centre"]`)
	b.drag([2]float64{x, y}, [2]float64{x, y - 25})
	b.waitFor(scalp + ` !== "` + before + `"`)
	b.part("By hand")
	b.waitFor(says + `("The hairline is drawn as it was dragged")`)
	b.waitFor(isSaved)
}

// The same without a mouse, on a tablet with its keyboard: the tool taken, sections
// found, picked, joined, left out, locked, lines and hairline moved, and all undone.
func TestWorkingByHandWithKeysAlone(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The lighthouse technician, long thick hair", 820, 1180)
	n := b.sections()
	keys := func(list ...string) {
		for _, key := range list {
			b.do(chromedp.KeyEvent(key))
		}
	}
	in := func(selector string) { b.waitFor(`document.activeElement.matches('` + selector + `')`) }
	walk := b.walk
	back := chromedp.KeyModifiers(chromedp.ModifierShift)
	b.part("By hand")
	const tool = `[aria-label="What a finger on the head does"] input`
	walk(tool)
	keys(kb.ArrowRight)
	b.waitFor(says + `("Other side too")`)
	walk("[data-head]")
	keys("2")
	walk("[data-section]")

	// To the third row, where a section and its neighbour are joined.
	here := func() string { return value[string](b, `document.activeElement.dataset.section ?? ""`) }
	first := here()
	keys(kb.ArrowUp, kb.ArrowUp)
	b.waitFor(`document.activeElement.dataset.section !== ` + strconv.Quote(first))
	picked := here()
	keys(kb.Enter)
	b.waitFor(says + `("1 picked")`)
	keys(kb.ArrowLeft) // away from the middle
	b.waitFor(`document.activeElement.dataset.section !== ` + strconv.Quote(picked))
	keys(kb.Enter)
	b.waitFor(says + `("2 picked")`)
	keys("j")
	b.waitForSections(n - 2)
	b.waitFor(notes + `.includes("Sections joined")`)

	// A whole row locked: what is locked is not left out.
	b.waitFor(resting)
	in("[data-section]")
	keys("r")
	b.waitFor(`/[2-9] picked/.test(document.body.innerText)`)
	keys("l")
	b.waitFor(notes + `.includes("Locked")`)
	keys("o")
	b.waitFor(says + `("is locked; unlock it first")`)
	assert.Equal(t, n-2, b.sections())
	for range 3 { // the refused, the lock and the join
		undo := value[string](b, notes)
		b.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
		b.waitFor(notes + ` !== ` + strconv.Quote(undo) + ` || ` + notes + `.includes("Nothing yet")`)
	}
	b.waitForSections(n)
	b.waitFor(notes + `.includes("Nothing yet")`)

	// A row line, by its dot.
	walk("[data-section]")
	keys(kb.Enter)
	walk(`[data-handle="row"]`)
	keys(kb.ArrowUp, kb.ArrowUp)
	b.waitFor(notes + `.includes("Part line moved")`)
	b.waitFor(isSaved)

	// The hairline at the front.
	walk(tool, back)
	keys(kb.ArrowRight, kb.ArrowRight)
	walk("[data-head]")
	keys("5")
	b.waitFor(`document.querySelector('g[aria-label="Front centre"]')`)
	walk(`g[aria-label="Front centre"]`)
	keys(kb.ArrowUp, kb.ArrowUp)
	b.waitFor(says + `("The hairline is drawn as it was dragged")`)
	b.waitFor(isSaved)
}

// At the chair, with a finger on a tablet: the head is turned, sections are picked and
// joined, a line is dragged, a sore spot is painted out.
func TestWorkingByHandWithAFinger(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The lighthouse technician, long thick hair", 820, 1180, "touch-events")
	_, err := chromedp.Call(b.ctx, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true})
	require.NoError(t, err)
	n := b.sections()
	at := func(selector string) [2]float64 {
		x, y := b.place(selector)
		return [2]float64{x, y}
	}
	section := func(id string) [2]float64 { return at(`[data-section="` + id + `"]`) }

	// Turned under the finger; the page does not scroll with it.
	before := section("BL4.2")
	b.touch(before, [2]float64{before[0] - 60, before[1] + 30})
	b.waitFor(fmt.Sprintf(`document.querySelector('[data-section="BL4.2"]').getBoundingClientRect().x < %v`, before[0]-60))
	assert.Zero(t, value[float64](b, `window.scrollY + [...document.querySelectorAll("*")].reduce((sum, e) => sum + e.scrollTop, 0)`))
	b.press("button", "Back 2")

	b.part("By hand")
	b.press("radio", "Sections")
	b.waitFor(says + `("Other side too")`)
	b.waitFor(`document.querySelector("[data-handle]")`)
	b.waitFor(resting)
	still := section("BL3.3")
	b.touch(section("BL3.2"))
	b.waitFor(says + `("1 picked")`)
	b.waitFor(`document.querySelector("[data-handle=part]")`)
	assert.Equal(t, still, section("BL3.3"), "the head stays where it is under the finger")
	b.touch(section("BL3.3"))
	b.waitFor(says + `("2 picked")`)
	for _, name := range []string{"Join", "Leave out", "Lock", "Whole row"} {
		size := value[[]float64](b, `(() => { const r = [...document.querySelectorAll("[role=toolbar] button")].find((e) => e.innerText === "`+name+`").getBoundingClientRect(); return [r.width, r.height] })()`)
		assert.GreaterOrEqual(t, min(size[0], size[1]), 44.0, "%s is as large as a fingertip", name)
	}
	b.press("button", "Join")
	b.waitForSections(n - 2)
	b.waitFor(resting)

	line := at(`g[aria-label="Back left: line above row 3"]`)
	b.touch(line, [2]float64{line[0], line[1] - 14})
	b.waitFor(notes + `.includes("Part line moved")`)

	b.press("radio", "Leave out")
	b.waitFor(says + `("Paint what stays loose")`)
	spot := section("BL5.2")
	b.touch(spot, [2]float64{spot[0] + 12, spot[1]}, [2]float64{spot[0] - 12, spot[1] + 10}, [2]float64{spot[0] - 12, spot[1] - 10}, [2]float64{spot[0] + 12, spot[1] - 10})
	b.waitFor(`/[1-9]\d* sections? (is|are) left out/.test(document.body.innerText)`)
	assert.Less(t, b.sections(), n-2)
	b.waitFor(isSaved)
}

// The client's own hairline: a high forehead and receding temples are set on the head, the nape
// with its tape, fragile edges left out; all of it is kept, and taken back.
func TestHairlineOfTheClient(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The cellist, a hairline that shows", 1280, 800)
	const scalp = `[...document.querySelectorAll("dt")].find((e) => e.innerText === "Scalp in sections").nextSibling.innerText`
	area := func() float64 {
		v, err := strconv.ParseFloat(strings.Fields(value[string](b, scalp))[0], 64)
		require.NoError(t, err)
		return v
	}
	smaller := func(than float64) {
		t.Helper()
		b.waitFor(fmt.Sprintf(`parseFloat(%s) < %v`, scalp, than))
	}
	drag := func(label string, dx, dy float64) {
		t.Helper()
		x, y := b.place(`g[aria-label^="` + label + `"]`)
		b.drag([2]float64{x, y}, [2]float64{x + dx, y + dy})
	}
	told := func(label string) string {
		return value[string](b, `document.querySelector('g[aria-label^="`+label+`"]').getAttribute("aria-valuetext")`)
	}
	b.part("Read")
	before := area()
	b.press("button", "Front 5")
	b.press("radio", "Hairline")
	b.waitFor(`document.querySelector('g[aria-label="Front centre"]')`)
	b.waitFor(resting)
	assert.Contains(t, told("Front centre"), "as usual")
	drag("Front centre", 0, -14)
	b.waitFor(fmt.Sprintf(`parseFloat(%s) !== %v`, scalp, before)) // the tape runs from it still, so the nape moves too
	assert.Regexp(t, `^Front centre: .* in higher$`, told("Front centre"))
	high := area()
	drag("Temple corner, left", -4, -12)
	smaller(high)
	b.waitFor(resting)
	b.waitFor(isSaved)
	left, right := told("Temple corner, left"), told("Temple corner, right")
	assert.Contains(t, left, "higher")
	assert.Equal(t, strings.ReplaceAll(left, "left", ""), strings.ReplaceAll(right, "right", ""), "both sides move")

	// The nape goes with the tape.
	b.press("button", "Back 2")
	b.waitFor(`document.querySelector('g[aria-label="Nape centre"]')`)
	b.waitFor(resting)
	tape := told("Nape centre")
	drag("Nape centre", 0, 10)
	b.waitFor(`document.querySelector('g[aria-label="Nape centre"]').getAttribute("aria-valuetext") !== ` + strconv.Quote(tape))

	// Fragile edges stay out all round.
	last := area()
	b.part("By hand")
	b.waitFor(`document.querySelector("[aria-label='Edges left out all round']")`) // it loads when it is opened
	value[bool](b, `(document.querySelector("[aria-label='Edges left out all round']").focus(), true)`)
	b.do(chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight))
	b.waitFor(says + `("of edges left out all round")`)
	b.part("Read")
	smaller(last)
	edged := area()
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.part("By hand")
	b.waitFor(says + `("The hairline is drawn as it was dragged")`)
	b.part("Read")
	assert.InDelta(t, edged, area(), 0.011)
	b.part("By hand")
	b.press("button", "Usual hairline")
	b.waitFor(says + `("The usual hairline.")`)
	b.part("Read")
	b.waitFor(fmt.Sprintf(`parseFloat(%s) !== %v`, scalp, edged))
	b.waitFor(isSaved)
}
