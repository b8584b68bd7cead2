package e2e
import ("testing";"os";"path/filepath";"time";"github.com/chromedp/chromedp";"github.com/chromedp/chromedp/kb")
func TestZZ(t *testing.T){
 address := start(t, "demo", "-db", filepath.Join(t.TempDir(), "demo.db"))
 b, c := open(t, 1280, 800), open(t, 1280, 800)
 shot := func(b browser, n string){ time.Sleep(900*time.Millisecond); png,_ := chromedp.Run(b.ctx, chromedp.CaptureScreenshot()); os.WriteFile("../shots/"+n+".png", png, 0o644)}
 b.enterDemo(address,""); shot(b,"today")
 b.visit(address+"/clients", `document.querySelectorAll("main li").length === 6`); b.press("strong","Juno Pellwether"); b.waitFor(drawn+" > 40"); shot(b,"client")
 c.visit(address, `document.body.innerText.includes("Tidewheel")`); shot(c,"door"); value[bool](c, `([...document.querySelectorAll("button")].find(b=>b.innerText.includes("Tamsin")).click(), true)`); c.waitFor(`document.querySelectorAll("img[src*=picture]").length === 3`)
 title := "The cellist, a hairline that shows"
 b.openPlan(address,title,"parting"); c.openPlan(address,title,"parting")
 c.write("Front","5/8"); c.waitFor(isSaved); time.Sleep(1500*time.Millisecond)
 b.write("Back","1 1/4"); b.waitFor(`document.body.innerText.includes("saved this plan too")`); shot(b,"stale")
 b.press("button","Go on with that one"); b.waitFor(isSaved); time.Sleep(500*time.Millisecond)
 value[bool](b,`(document.activeElement.blur(),true)`)
 b.do(chromedp.KeyEvent("?")); shot(b,"keys"); b.do(chromedp.KeyEvent(kb.Escape)); time.Sleep(500*time.Millisecond)
 b.do(chromedp.KeyEvent("h")); b.waitFor(`document.querySelectorAll(".ant-drawer li").length > 1`); shot(b,"history")
 b.press("button","Look at it"); time.Sleep(500*time.Millisecond); shot(b,"lookback")
}
