package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const (
	proposals = `document.querySelectorAll("[data-proposal]").length`
	// chooses reads a figure off the first card.
	quickPacks  = `[...document.querySelectorAll("[data-proposal] dl > div")].find((d) => d.innerText.startsWith("Packs")).querySelector("dd").innerText`
	quickPieces = `[...document.querySelectorAll("[data-proposal] dl > div")].find((d) => d.innerText.startsWith("Pieces")).querySelector("dd").innerText.split(" ")[0]`
)

// From a wish to the shopping list on a phone: four questions, health first, three plans side by side, one chosen,
// and the wish stays beside what is changed later.
func TestFromAWishToTheShoppingList(t *testing.T) {
	t.Parallel()
	b := open(t, 390, 844)
	address := start(t, "demo", "-db", demoFile(t))
	b.enterDemo(address, "")
	b.visit(address+"/plans/new/head", drawn+" > 40")
	b.waitFor(says + `("Choose a look first")`)
	value[bool](b, `(document.querySelector("input[name=wish-look][value=locs]").click(), true)`)
	value[bool](b, `(document.querySelector("input[name=wish-to][value=armpit]").click(), true)`)
	value[bool](b, `(document.querySelector("input[name=wish-full][value=airy]").click(), true)`)
	b.write("Time there is, first comb to last check", "5")
	b.press("button", "Show proposals")
	b.waitFor(says + `("is any of this so on this head?")`)
	assert.Zero(t, value[int](b, proposals), "nothing before health was asked about")
	b.press("button", "None of these")
	b.waitFor(proposals + " >= 2")
	b.judgeBy("proposals at 390", "[role=dialog]", `{}`)
	assert.LessOrEqual(t, value[int](b, `document.scrollingElement.scrollWidth`), 390)
	assert.Contains(t, value[string](b, `document.querySelector("[role=dialog]").innerText`), "Buy nothing before the three tapes")
	packs, pieces := value[string](b, quickPacks), value[string](b, quickPieces)
	b.press("button", "Choose this one")
	b.waitFor(`!document.querySelector("[data-proposal]")`)
	b.waitFor(says + `("The plan as it is meets the wish")`)
	b.waitFor(isSaved)

	b.step("3 Hair")
	b.part("To buy")
	b.waitFor(`document.querySelector("section[aria-label='To buy']")?.innerText.includes("` + packs + ` pack")`)
	assert.Contains(t, value[string](b, `document.querySelector("section[aria-label='To buy']").innerText`), pieces)

	// A change later is held against the wish.
	b.step("2 Parting")
	b.part("Structure")
	value[bool](b, `(document.querySelector("input[name=structure][value=all]").click(), true)`)
	b.part("Sizes")
	b.write("Section size", "1/2")
	b.step("1 Head")
	b.part("The wish, and proposals")
	b.waitFor(says + `("longer than there is")`)
}

// The same at a desk by keys alone, and why something else was not proposed.
func TestFromAWishByKeysAlone(t *testing.T) {
	t.Parallel()
	b := open(t, 1280, 800)
	address := start(t, "demo", "-db", demoFile(t))
	b.enterDemo(address, "")
	b.visit(address+"/plans/new/head", drawn+" > 40")
	b.waitFor(says + `("Choose a look first")`)
	value[bool](b, `(document.querySelector("section[aria-label='The wish, and proposals'] h2 button").focus(), true)`)
	b.walk(`input[name="wish-look"]`)
	b.do(chromedp.KeyEvent(" "))
	b.walk(`input[name="wish-to"]`)
	for range 2 {
		b.do(chromedp.KeyEvent(kb.ArrowRight))
	}
	b.waitFor(`document.querySelector("input[name=wish-look][value=locs]").checked && document.querySelector("input[name=wish-to]:checked")`)
	b.walk(`button[aria-haspopup="dialog"].ant-btn-primary`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.waitFor(says + `("is any of this so on this head?")`)
	b.walk(`[role="dialog"] .ant-btn-primary`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.waitFor(proposals + " >= 2")
	b.judgeBy("proposals", "[role=dialog]", `{}`)

	b.take("Why not this structure", "Linked plaits")
	b.take("Why not this size", "½ in")
	b.press("button", "Ask")
	b.waitFor(`document.querySelector("section[aria-label='Why not something else'] [role=status]")?.innerText.length > 20`)
	why := value[string](b, `document.querySelector("section[aria-label='Why not something else'] [role=status]").innerText`)
	assert.True(t, strings.Contains(why, "Because") || strings.Contains(why, "It would do"), why)

	before := b.tally("pieces")
	value[bool](b, `(document.querySelector("[data-proposal=full] button").focus(), true)`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.waitFor(`!document.querySelector("[data-proposal]")`)
	b.waitFor(isSaved)
	b.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	require.Eventually(t, func() bool { return b.tally("pieces") == before }, patience, patience/50, "one choice is one step to undo")
}
