package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An order comes a piece short, a plan holds what lies there, buys the rest and is prepared: at the desk, the
// preparation by keys and then on the phone.
func TestSupplyingAHead(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	b := open(t, 1280, 800)
	b.enterDemo(address, "")
	judge := func(page string) { b.judge(page) }

	// Arrival check: two packs, counted, one piece missing.
	b.visit(address+"/supplies/orders", says+`("Under way")`)
	judge("orders")
	b.press("button", "Check arrival")
	b.press("radio", "Counted")
	b.press("button", "One less: Pieces in all of them")
	b.waitFor(says + `("1 piece is missing")`)
	judge("arrival")
	b.press("button", "Into the stash")
	b.waitFor(says + `("2 of 2 packs came, counted; 1 missing in them")`)
	b.visit(address+"/supplies/suppliers", says+`("1 piece missing in 2 packs")`)
	judge("suppliers")

	// The stash: the packs are there, and a move is written down.
	b.visit(address+"/supplies/stash", says+`("Driftline soft loc, 18 in")`)
	judge("stash")
	lot := `document.querySelector("li[aria-label='Driftline soft loc, 18 in, Tar'] strong + *, li[aria-label='Driftline soft loc, 18 in, Tar']")`
	b.waitFor(lot)
	b.press("button", "What happened to Driftline soft loc, 18 in, Tar")
	b.press("button", "Spoilt")
	b.press("button", "One more: Loose pieces")
	b.press("button", "Write it down")
	b.waitFor(`document.querySelector("ol li")?.innerText.includes("Spoilt −1 loose")`)
	judge("moves")
	b.do(chromedp.KeyEvent(kb.Escape))
	b.waitFor(`document.querySelector("li[aria-label='Driftline soft loc, 18 in, Tar']").innerText.includes("39 pieces")`)

	// A plan holds its share, and what it lacks goes on the order list.
	const cellist = "The cellist, a hairline that shows"
	b.openPlan(address, cellist, "hair")
	b.part("To buy")
	b.waitFor(says + `("none in the stash")`)
	before := value[string](b, `document.querySelector("section[aria-label='To buy']").innerText`)
	b.press("radio", "Safe")
	b.waitFor(says + `("enough in 95 of 100 installs")`)
	assert.NotEqual(t, before, value[string](b, `document.querySelector("section[aria-label='To buy']").innerText`))
	b.part("Stash and orders")
	b.waitFor(`document.querySelector("section[aria-label='Stash and orders']").innerText.includes("rinse it on")`)
	b.waitFor(isSaved)
	value[bool](b, `(document.querySelector("section[aria-label='Stash and orders'] [role=switch]").click(), true)`)
	b.waitFor(`document.querySelector("section[aria-label='Stash and orders'] [role=switch]").ariaChecked === "true"`)
	b.press("button", "Add to orders")
	b.waitFor(says + `("for this plan: to be ordered")`)
	judge("stash and orders")

	// By keys: a pack is pointed at, and the head shows how far it goes.
	b.part("How far packs go")
	b.waitFor(says + `("pack reaches")`)
	value[bool](b, `(document.querySelector("section[aria-label='How far packs go'] h2 button").focus(), true)`)
	b.walk("ol button[aria-pressed]")
	b.legendHas("Reached")
	first := b.count("Reached")
	b.do(chromedp.KeyEvent(kb.Tab))
	b.waitFor(fmt.Sprintf(`Number([...document.querySelectorAll("ul[aria-label^=Colours] li")].find((e) => e.innerText.includes("Reached"))?.querySelector("small").innerText) > %d`, first))
	judge("reach")

	// Ticked off by keys, and still ticked after the page was gone.
	b.part("Prepare at home")
	b.waitFor(says + `("Rinse the new hair")`)
	value[bool](b, `(document.querySelector("section[aria-label='Prepare at home'] h2 button").focus(), true)`)
	b.walk("input[type=checkbox]")
	b.do(chromedp.KeyEvent(" "))
	const ticked = `document.querySelector("section[aria-label='Prepare at home'] li[data-done=true]")`
	b.waitFor(ticked)
	b.waitFor(`document.querySelector("section[aria-label='Prepare at home']").innerText.includes("Odalys Brandt")`)
	judge("prepare")

	// The same on the phone: ordered, arrived and looked into, held at once; a running count goes on there.
	phone := open(t, 390, 844)
	phone.signInDemo(address, "Tamsin Okoro-Vale stylist")
	phone.visit(address+"/supplies/orders", says+`("Ordered today")`)
	phone.press("button", "Ordered today")
	phone.press("button", "Check arrival")
	phone.press("radio", "Counted")
	phone.judge("arrival, phone")
	phone.press("button", "Into the stash")
	phone.waitFor(`!document.querySelector("[role=dialog]")`)
	assert.LessOrEqual(t, value[float64](phone, "document.documentElement.scrollWidth"), 390.0)
	phone.openPlan(address, cellist, "hair")
	phone.part("To buy")
	phone.waitFor(`/\d+ from the stash/.test(document.querySelector("section[aria-label='To buy']").innerText)`)
	phone.waitFor(says + `("Nothing to buy")`)
	phone.part("Stash and orders")
	phone.waitFor(`/\d\d+ pieces are kept for this plan/.test(document.body.innerText)`)
	phone.part("Prepare at home")
	phone.waitFor(ticked)
	phone.openPlan(address, "The baker, four evenings at home", "hair")
	phone.part("Prepare at home")
	phone.press("button", "One more: Done of Cut and split Quayside Wave bulk, 20 in folded, peat")
	phone.press("button", "One more: Done of Cut and split Quayside Wave bulk, 20 in folded, peat")
	phone.waitFor(`document.querySelector("progress")?.value === 2`)
	phone.waitFor(`document.querySelector("section[aria-label='Prepare at home']").innerText.includes("Tamsin Okoro-Vale")`)
	phone.judge("prepare, phone")
	wide := value[float64](phone, "document.documentElement.scrollWidth")
	assert.LessOrEqual(t, wide, 390.0)
	phone.visit(address+"/supplies/stash", says+`("Driftline soft loc")`)
	assert.LessOrEqual(t, value[float64](phone, "document.documentElement.scrollWidth"), 390.0)
}

// A piece is put on file, weighed, changed by a table that is looked at first, and used in a plan.
func TestAPieceFromTheScaleToTheHead(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	b := open(t, 1280, 800)
	b.signInDemo(address, "")
	b.visit(address+"/supplies/items", says+`("Saltspun twist, 22 in")`)
	b.judge("pieces")
	b.press("button", "New piece or thing")
	b.waitFor(`document.querySelector("[aria-label='What it is called']")`)
	b.do(chromedp.SendKeys(`[aria-label="What it is called"]`, "Gull grey loc, 16 in"))
	b.write("Hanging length", "16")
	b.press("button", "Add a colour")
	b.do(chromedp.SendKeys(`[aria-label="Name of colour 1"]`, "Gull"))
	b.press("button", "Weigh it")
	b.waitFor(`[...document.querySelectorAll("button")].some((e) => e.innerText.includes("Use "))`)
	grams := value[string](b, `[...document.querySelectorAll("button")].find((e) => e.innerText.includes("Use ")).innerText`)
	value[bool](b, `([...document.querySelectorAll("button")].find((e) => e.innerText.includes("Use ")).click(), true)`)
	weighed, err := strconv.ParseFloat(strings.Fields(grams)[1], 64)
	require.NoError(t, err)
	assert.InDelta(t, 4, weighed, 0.2)
	b.waitFor(isSaved)
	b.judge("a piece")

	// A table with a wrong line is refused as a whole; mended it is looked at, then read in.
	b.visit(address+"/supplies/files", says+`("Choose a file")`)
	b.judge("files")
	read := func(text string) {
		path := filepath.Join(t.TempDir(), "pieces.csv")
		require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
		b.do(chromedp.SetUploadFiles(`input[type=file]`, []string{path}))
	}
	const table = "Name;Kind;Length (in);Thickness (mm);Weight of one (g);In a pack;Colours;Price\nGull grey loc, 16 in;Soft loc;16;9;4,1;%s;Gull #8d8a84;11,50\n"
	read(fmt.Sprintf(table, "none"))
	b.waitFor(says + `("A number belongs here")`)
	b.waitFor(says + `("nothing was changed")`)
	read(fmt.Sprintf(table, "24"))
	b.waitFor(says + `("This would be 0 new, 1 changed")`)
	b.press("button", "Read 1 line in")
	b.waitFor(says + `("Done: 0 new, 1 changed")`)

	// It hangs on a head, in its colour.
	b.openPlan(address, "The lighthouse technician, long thick hair", "hair")
	b.part("Pieces")
	b.take("Piece A, from the supplies", "Gull grey loc, 16 in")
	b.waitFor(says + `("24 pieces from a pack")`)
	b.waitFor(`document.querySelector("[aria-label='Colour of piece A'] button[aria-pressed=true]").innerText.includes("Gull")`)
	b.waitFor(isSaved)
	b.visit(address+"/supplies/items", says+`("Gull grey loc")`)
	b.follow("Gull grey loc")
	b.press("button", "Delete it")
	b.press("button", "Delete")
	b.waitFor(says + `("archived instead")`)
}

// Two colours are mixed along the ring, and a cuff is put on what is picked: the head, the need and the stash follow.
func TestMixedColoursAndACuffByHand(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The cellist, a ring to tie up", 1280, 800)
	b.step("3 Hair")
	b.part("What goes where")
	alone := b.count("Saltspun twist, 14 in")
	b.take("Piece everywhere", "Several, mixed evenly")
	b.waitFor(says + `("67 % · 33 %, evenly")`)
	b.waitFor(fmt.Sprintf(`Number([...document.querySelectorAll("ul[aria-label^=Colours] li")].find((e) => e.innerText.includes("Saltspun twist, 14 in"))?.querySelector("small").innerText) < %d`, alone))
	first := b.count("Saltspun twist, 14 in")
	second := b.count("Saltspun twist, 22 in")
	assert.Positive(t, first)
	b.press("button", "One more: Parts of piece 1 everywhere")
	b.waitFor(says + `("75 % · 25 %, evenly")`)
	b.waitFor(fmt.Sprintf(`Number([...document.querySelectorAll("ul[aria-label^=Colours] li")].find((e) => e.innerText.includes("Saltspun twist, 14 in"))?.querySelector("small").innerText) > %d`, first))
	assert.Less(t, b.count("Saltspun twist, 22 in"), second)

	b.press("radio", "Assign")
	b.waitFor(says + `("None picked")`)
	b.waitFor(resting)
	b.pick("H1.3")
	b.waitFor(says + `("1 picked")`)
	b.take("An accent for what is picked", "Lantern cuffs, brass, 12")
	b.part("Accents")
	b.waitFor(`document.querySelector("section[aria-label=Accents] li[aria-label='Lantern cuffs, brass, 12']")`)
	b.press("radio", "Accents")
	b.legendHas("Lantern cuffs")
	assert.Equal(t, 2, b.count("Lantern cuffs"), "on both sides")
	b.part("To buy")
	b.waitFor(says + `("2 on the head = 2")`)
	b.waitFor(says + `("2 from the stash")`)
	b.waitFor(isSaved)
}
