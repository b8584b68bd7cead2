package e2e

import (
	"flag"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"
)

var pictures = flag.String("pictures", "", "`directory` to put a picture of each main view in (make pictures)")

// The pictures of docs/screenshots, made from the demo studio.
func TestPictures(t *testing.T) {
	if *pictures == "" {
		t.Skip("no -pictures directory given")
	}
	address := start(t, "demo", "-db", demoFile(t))
	desk, phone := open(t, 1280, 800), open(t, 390, 844)
	take := func(b tab, name string) {
		time.Sleep(700 * time.Millisecond) // strands and small views follow a still head
		png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(*pictures, name+".png"), png, 0o644))
	}
	desk.enterDemo(address, "")
	take(desk, "today")
	desk.visit(address+"/plans", `document.querySelectorAll("img[src*=picture]").length >= 24`)
	take(desk, "plans")
	desk.visit(address+"/clients", `document.querySelectorAll("main li").length === 6`)
	desk.follow("Ysolde Abarinwe")
	desk.waitFor(drawn + " > 40")
	take(desk, "client")
	desk.visit(address+"/supplies/stash", says+`("Driftline soft loc, 24 in")`)
	take(desk, "supplies")
	const cellist, technician = "The cellist, a hairline that shows", "The lighthouse technician, long thick hair"
	const horseshoe = "The lighthouse technician, horseshoe"
	desk.visit(address+"/plans/new/head", drawn+" > 40")
	for _, answer := range []string{"look][value=locs", "to][value=armpit", "full][value=usual"} {
		desk.waitFor(`document.querySelector("input[name=wish-` + answer + `]")`)
		value[bool](desk, `(document.querySelector("input[name=wish-`+answer+`]").click(), true)`)
	}
	desk.waitFor(isSaved)
	take(desk, "head")
	desk.press("button", "Show proposals")
	desk.press("button", "None of these")
	desk.waitFor(`document.querySelectorAll("[data-proposal] canvas").length === 2 * document.querySelectorAll("[data-proposal]").length && document.querySelector("[data-proposal]")`)
	take(desk, "proposals")
	desk.press("button", "Choose this one")
	desk.openPlan(address, horseshoe, "hair")
	desk.part("What goes where")
	take(desk, "hair")
	desk.openPlan(address, cellist, "attach")
	desk.part("Steps")
	desk.press("button", "Show the pictures")
	desk.picture(1, 13)
	for n := 2; n <= 5; n++ {
		desk.do(chromedp.KeyEvent(kb.ArrowRight))
		desk.picture(n, 13)
	}
	time.Sleep(400 * time.Millisecond) // it grows
	take(desk, "attach-steps")
	desk.do(chromedp.KeyEvent(kb.Escape))
	desk.part("Which method")
	desk.waitFor(`document.querySelector("ol li[data-verdict]")`)
	take(desk, "advice")
	desk.openPlan(address, technician, "parting")
	take(desk, "parting")
	desk.openPlan(address, horseshoe, "parting")
	take(desk, "structures")
	desk.openPlan(address, cellist, "parting")
	desk.part("By hand")
	desk.press("radio", "Sections")
	desk.pick("BL4.2")
	take(desk, "by-hand")
	desk.openPlan(address, "The coxswain, linked plaits under the cap", "day")
	desk.part("Working order")
	desk.waitFor(`document.querySelectorAll("ul[aria-label='Colours of order'] li").length > 1`)
	desk.part("Sittings")
	desk.waitFor(sittings + `.length > 0`)
	desk.press("radio", "Order")
	take(desk, "day")
	desk.visit(address+"/log", says+`("Finished installs")`)
	take(desk, "log")
	tablet := open(t, 820, 1180)
	for _, at := range []struct {
		b    tab
		name string
	}{{tablet, "chair-tablet"}, {phone, "chair-phone"}} {
		at.b.enterDemo(address, "Tamsin Okoro-Vale stylist")
		at.b.follow("61")
		at.b.waitFor(stepNow + ` === "done"`)
		if at.name == "chair-phone" {
			at.b.press("button", "Fine")
		}
		take(at.b, at.name)
	}
	phone.openPlan(address, technician, "parting")
	phone.part("Read")
	phone.press("button", "Row guide")
	phone.waitFor(`document.body.innerText.includes("As seen in a mirror")`)
	phone.press("button", "Row above")
	take(phone, "row-guide-phone")
	desk.visit(address+"/wear", says+`("The baker, a quick front")`)
	desk.follow("5")
	desk.waitFor(`document.querySelector("svg[aria-label*='grown out after 5 weeks']")`)
	take(desk, "wear")
	// Hair as a graphics processor draws it.
	drawn := open(t, 1280, 800, webGL)
	drawn.signInDemo(address, "")
	drawn.openPlan(address, technician, "hair")
	drawn.part("Where it lands")
	drawn.waitFor(`document.querySelector("svg[aria-label^='Where the ends land']")`)
	take(drawn, "landing")
}
