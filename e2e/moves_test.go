package e2e

import (
	"fmt"
	"strconv"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

const (
	shownMove  = `document.querySelector("[role=dialog] svg[role=img]")`
	moveStands = shownMove + `?.dataset.stands === "true"`
)

// picture waits until a walk stands at a picture.
func (b tab) picture(n, of int) {
	b.t.Helper()
	b.waitFor(says + fmt.Sprintf(`("picture %d of %d")`, n, of))
	b.waitFor(moveStands)
}

// With keys alone: a method is walked through Show the pictures, forward and back, played,
// and taken off again; every step is said and every picture has its words.
func TestWalkingAMethodByKeysAlone(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The lighthouse technician, long thick hair", 1280, 800, inMotion)
	b.step("4 Attach")
	b.part("Steps")
	const open = `[...document.querySelectorAll("button")].find((e) => e.innerText.includes("Show the pictures"))`
	b.waitFor(open)
	value[bool](b, `(`+open+`.id = "show", document.querySelector("section[aria-label=Steps] h2 button").focus(), true)`)
	b.walk("#show")
	b.do(chromedp.KeyEvent(kb.Enter))
	b.picture(1, 10)
	assert.Contains(t, value[string](b, shownMove+`.ariaLabel`), "like a collar")
	seen := map[string]bool{}
	moved := false
	for n := 2; n <= 10; n++ {
		b.do(chromedp.KeyEvent(kb.ArrowRight))
		moved = moved || value[bool](b, shownMove+`?.dataset.stands === "false"`)
		b.picture(n, 10)
		seen[value[string](b, shownMove+`.ariaLabel`)] = true
	}
	assert.True(t, moved, "it moves from picture to picture")
	assert.Len(t, seen, 8, "the collar is drawn in eight pictures")
	b.waitFor(says + `("Step 8 of 8")`)
	b.waitFor(named("button", "From the start"))
	b.do(chromedp.KeyEvent(kb.ArrowLeft))
	b.picture(9, 10)
	b.waitFor(moveStands)
	b.judge("walk")
	// It plays by itself to the end.
	b.do(chromedp.KeyEvent(kb.Home))
	b.picture(1, 10)
	b.do(chromedp.KeyEvent("p"))
	b.waitFor(says + `("picture 3 of 10")`)
	b.do(chromedp.KeyEvent("p"))
	// The mistake, and how it comes off: backward, without the hook.
	b.walk(`[aria-label="What is shown"] input`, chromedp.KeyModifiers(8))
	b.do(chromedp.KeyEvent(kb.ArrowRight))
	b.waitFor(says + `("Fix:")`)
	b.picture(1, 1)
	b.do(chromedp.KeyEvent(kb.ArrowRight))
	b.waitFor(says + `("loosen it backward")`)
	b.walk(`[role=dialog] [data-onward]`)
	b.do(chromedp.KeyEvent(kb.PageDown), chromedp.KeyEvent(kb.PageDown))
	b.waitFor(says + `("back over its root")`)
	b.waitFor(moveStands)
	b.do(chromedp.KeyEvent(kb.Escape))
	b.waitFor(`!document.querySelector("[role=dialog]")`)
}

// By finger on the phone: a wipe turns the picture, a tap shows it again, a large button is
// under the thumb, and where product is on the fingers the next one comes by itself. The left
// hand has its own drawings.
func TestWalkingAMethodByFinger(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The lighthouse technician, long thick hair", 390, 844, inMotion, "touch-events")
	b.step("4 Attach")
	b.part("Steps")
	b.press("button", "Show the pictures")
	b.picture(1, 10)
	b.waitForRest(`JSON.stringify(` + named("button", "Next") + `.getBoundingClientRect())`)
	next := value[[4]float64](b, `(([r]) => [r.x, r.y, r.width, r.height])([`+named("button", "Next")+`.getBoundingClientRect()])`)
	assert.Greater(t, next[3], 44.0, "a large target")
	assert.LessOrEqual(t, next[1]+next[3], 844.0, "in sight without scrolling")
	b.do(chromedp.MouseClickXY(next[0]+next[2]/2, next[1]+next[3]/2))
	b.picture(2, 10)
	middle := value[[2]float64](b, `(([r]) => [r.x + r.width / 2, r.y + r.height / 2])([`+shownMove+`.getBoundingClientRect()])`)
	wipe := func(by float64) { b.touch(middle, [2]float64{middle[0] + by, middle[1]}) }
	wipe(-120)
	b.picture(3, 10)
	wipe(-120)
	b.picture(4, 10)
	b.touch(middle)
	b.waitFor(shownMove + `?.dataset.stands === "false"`)
	b.picture(4, 10)
	wipe(120)
	b.picture(3, 10)
	// With the left hand the whole method is walked: every picture has its mirror image, and says the same.
	stood := func() (says, drawn string) {
		return value[string](b, shownMove+`.ariaLabel`), value[string](b, shownMove+`.innerHTML`)
	}
	says, drawn := map[int]string{}, map[int]string{}
	for n := 3; n <= 10; n++ {
		b.picture(n, 10)
		says[n], drawn[n] = stood()
		if n < 10 {
			wipe(-120)
		}
	}
	b.press("switch", "Left-handed")
	b.waitFor(moveStands + ` && ` + shownMove + `.innerHTML !== ` + strconv.Quote(drawn[10]))
	for n := 10; n >= 3; n-- {
		b.picture(n, 10)
		told, mirrored := stood()
		assert.Equal(t, says[n], told, "picture %d", n)
		assert.NotEqual(t, drawn[n], mirrored, "picture %d", n)
		if n > 3 {
			wipe(120)
		}
	}
	b.take("Goes on", "after 5 s")
	b.picture(4, 10) // by itself
}

// What is done before and after is read and done otherwise here: the words follow, the plan
// says that it departs, and is brought back. A house that hooks dry is followed by new plans.
func TestBeforeAndAfter(t *testing.T) {
	t.Parallel()
	b := open(t, 390, 844)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
	b.openPlan(address, "The lighthouse technician, long thick hair", "attach")
	b.part("Before and after")
	b.waitFor(says + `("dry it overnight")`)
	b.waitFor(says + `("After the last one")`)
	value[bool](b, `(document.querySelector("section[aria-label='Before and after'] summary").click(), true)`)
	b.take("New hair", "Used as it comes")
	b.waitFor(says + `("lay a strand behind an ear for a day")`)
	b.waitFor("!" + says + `("dry it overnight")`)
	b.waitFor(isSaved)
	b.part("Methods")
	b.waitFor(says + `("The house: rinsed, dried overnight.")`)
	b.press("button", "Follow house rules: New hair")
	b.waitFor("!" + says + `("The house: rinsed")`)
	b.part("Before and after")
	b.waitFor(says + `("dry it overnight")`)
	b.waitFor(isSaved)

	b.visit(address+"/house", `document.querySelectorAll("main li").length === 3`)
	b.take("While hooking", "Dry")
	b.waitFor(says + `("Water undoes what is twined")`)
	b.visit(address+"/plans/new/attach", drawn+" > 40")
	b.part("Steps")
	b.waitFor(says + `("keep plait and piece dry")`)
	b.part("Methods")
	b.waitFor(says + `("hitched by its loop")`)
	assert.False(t, value[bool](b, says+`("The house: dry.")`), "a plan begun here never departed")
}
