package e2e

import (
	"flag"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

var pictures = flag.String("pictures", "", "`directory` to put a picture of each main view in (make pictures)")

// The pictures of docs/screenshots, made from the demo studio.
func TestPictures(t *testing.T) {
	if *pictures == "" {
		t.Skip("no -pictures directory given")
	}
	address := start(t, "demo", "-db", filepath.Join(t.TempDir(), "demo.db"))
	desk, tablet := open(t, 1280, 800), open(t, 820, 1180)
	take := func(b tab, name string) {
		time.Sleep(700 * time.Millisecond) // strands and small views follow a still head
		png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(*pictures, name+".png"), png, 0o644))
	}
	desk.visit(address, `document.body.innerText.includes("Tidewheel Loft")`)
	take(desk, "door")
	desk.enterDemo(address, "")
	take(desk, "today")
	desk.visit(address+"/plans", `document.querySelectorAll("img[src*=picture]").length === 11`)
	take(desk, "plans")
	desk.visit(address+"/clients", `document.querySelectorAll("main li").length === 6`)
	take(desk, "clients")
	desk.follow("Ysolde Abarinwe")
	desk.waitFor(drawn + " > 40")
	take(desk, "client")
	desk.visit(address+"/house", `document.querySelectorAll("main li").length === 3`)
	take(desk, "house-rules")
	const cellist, technician, baker = "The cellist, a hairline that shows", "The lighthouse technician, long thick hair", "The baker, four evenings at home"
	desk.openPlan(address, cellist, "look")
	take(desk, "look")
	desk.openPlan(address, technician, "hair")
	take(desk, "hair")
	desk.openPlan(address, baker, "attach")
	take(desk, "attach")
	desk.openPlan(address, technician, "parting")
	take(desk, "parting")
	desk.press("radio", "Size")
	take(desk, "parting-size")
	desk.press("button", "Pin this state")
	desk.press("radio", "Triangle")
	desk.press("button", "Side by side")
	desk.waitFor(`document.querySelectorAll("[role=dialog] h3").length > 1`)
	take(desk, "variants")
	desk.openPlan(address, "The lighthouse technician, horseshoe", "parting")
	take(desk, "structures")
	desk.openPlan(address, cellist, "parting")
	desk.press("radio", "Sections")
	desk.pick("BL4.2")
	take(desk, "by-hand")
	desk.openPlan(address, "The coxswain, grown-in, before the regatta", "parting")
	desk.press("radio", "Stagger")
	take(desk, "levels-stagger")
	tablet.enterDemo(address, "")
	tablet.openPlan(address, technician, "parting")
	tablet.press("button", "At the mirror: row guide")
	tablet.do(chromedp.Click(chromedp.CSS(`[aria-label="Row above"]`)))
	take(tablet, "row-guide-tablet")
	tablet.openPlan(address, technician, "parting")
	take(tablet, "parting-tablet")
	tablet.press("radio", "Sections")
	tablet.pick("BL3.2")
	tablet.pick("BL3.3")
	take(tablet, "by-hand-tablet")
}
