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
	take := func(b browser, name string) {
		time.Sleep(700 * time.Millisecond) // strands and small views follow a still head
		png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(*pictures, name+".png"), png, 0o644))
	}
	desk.visit(address, `document.querySelectorAll("img[src*=picture]").length === 3`)
	take(desk, "plans")
	for _, step := range []struct{ name, title string }{
		{"look", "The cellist, a hairline that shows"},
		{"parting", "The lighthouse technician, long thick hair"},
		{"hair", "The lighthouse technician, long thick hair"},
		{"attach", "The baker, four evenings at home"},
	} {
		for _, b := range []browser{desk, tablet} {
			b.visit(address, `document.querySelectorAll("img[src*=picture]").length === 3`)
			b.press("h2", step.title)
			b.waitFor(drawn + " > 40")
			b.visit(value[string](b, "location.origin + location.pathname.replace(/[a-z]+$/, '"+step.name+"')"), drawn+" > 40")
			if b == desk {
				take(b, step.name)
			} else if step.name == "parting" {
				take(b, step.name+"-tablet")
			}
		}
	}
}
