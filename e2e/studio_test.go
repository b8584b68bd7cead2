package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/browser"
	"github.com/chromedp/chromedp"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// downloadsTo keeps what the browser downloads.
func (b tab) downloadsTo(dir string) {
	b.t.Helper()
	_, err := chromedp.CallBrowser(b.ctx, browser.SetDownloadBehavior, browser.SetDownloadBehaviorParams{
		Behavior: browser.SetDownloadBehaviorBehaviorAllow, DownloadPath: dir,
	})
	require.NoError(b.t, err)
}

// downloaded waits for a file to be there whole: the browser holds its name with
// an empty file until the whole one takes its place.
func downloaded(t *testing.T, dir, suffix string) []byte {
	t.Helper()
	deadline := time.Now().Add(patience)
	for time.Now().Before(deadline) {
		files, err := filepath.Glob(filepath.Join(dir, "*"+suffix))
		require.NoError(t, err)
		if len(files) > 0 {
			raw, err := os.ReadFile(files[0])
			require.NoError(t, err)
			if len(raw) > 0 {
				return raw
			}
		}
		time.Sleep(50 * time.Millisecond)
	}
	t.Fatalf("no file *%s was downloaded", suffix)
	return nil
}

// An owner opens a studio, puts a client on file, plans the head, takes the
// sheet and the file along and brings the file back in.
func TestFromTheFirstStartToAnImportedPlan(t *testing.T) {
	t.Parallel()
	b := open(t, 1280, 800)
	files := t.TempDir()
	b.downloadsTo(files)
	address := start(t, "serve", "-db", filepath.Join(t.TempDir(), "studio.db"))
	b.claim(address)

	b.press("button", "Add a client")
	b.waitFor(`document.querySelector("[aria-label='Name of the client']")`)
	b.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="Name of the client"]`), "Hesper Dunmorrow"))
	b.press("button", "Enter the tapes")
	b.waitFor(drawn + " > 40")
	b.write("Around the head", "21 3/4")
	b.write("At the nape", "3 1/2")
	b.press("radio", "Fragile")
	b.waitFor(isSaved)
	b.waitFor(`document.body.innerText.includes("Fragile edges: leave the tender ones out")`)

	// The plan begins with the client's tapes.
	b.press("button", "New plan")
	b.waitFor(drawn + " > 40")
	b.waitFor(`document.body.innerText.includes("Fragile edges: leave the tender ones out")`)
	b.part("Three tapes")
	b.waitFor(`[...document.querySelectorAll("input")].some((i) => i.value === "21¾")`)
	b.step("2 Parting")
	b.part("Sizes")
	b.write("Section size", "1 1/4")
	b.waitFor(isSaved)
	b.waitFor(`/\/plans\/[0-9a-f-]{36}\//.test(location.pathname)`)
	sections := b.tally("sections")

	value[bool](b, `(document.activeElement.blur(), true)`)
	b.do(chromedp.KeyEvent("p"))
	assert.True(t, bytes.HasPrefix(downloaded(t, files, ".pdf"), []byte("%PDF-")))
	b.do(chromedp.Click(chromedp.CSS(`[aria-label="Take along"]`)))
	b.press("menuitem", "The plan as a file, to import elsewhere")
	var file struct{ Title string }
	require.NoError(t, json.Unmarshal(downloaded(t, files, ".kladotex.json"), &file))
	assert.Equal(t, "Hesper Dunmorrow", file.Title)

	b.press("link", "Plans")
	b.waitFor(`document.querySelectorAll("img[src*=picture]").length === 1`)
	kept, err := filepath.Glob(filepath.Join(files, "*.kladotex.json"))
	require.NoError(t, err)
	b.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), kept, chromedp.NodeReady))
	b.waitFor(drawn + " > 40")
	assert.Equal(t, sections, b.tally("sections"))

	// A file that is no plan is refused by name.
	bad := filepath.Join(files, "bad.json")
	require.NoError(t, os.WriteFile(bad, []byte(`{"format":"kladotex-plan","title":"x","plan":{"schema":1,"sparkle":true}}`), 0o600))
	b.press("link", "Plans")
	b.waitFor(`document.querySelectorAll("img[src*=picture]").length === 2`)
	b.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{bad}, chromedp.NodeReady))
	b.waitFor(`document.body.innerText.includes("plan.sparkle")`)

	// Out through the door.
	b.visit(address, `document.body.innerText.includes("Go on where you were")`)
	b.do(chromedp.Click(chromedp.CSS(`[aria-label^="Signed in as"]`)))
	b.press("menuitem", "Sign out")
	b.waitFor(`document.body.innerText.includes("Sign in")`)
	b.visit(address+"/plans", `document.body.innerText.includes("Your name")`)
}

// Two people change one plan: the second is told who changed what, and chooses;
// the first one's state stays in the history and can be brought back.
func TestTwoPeopleOnOnePlan(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	const title = "The cellist, a hairline that shows"
	odalys, tamsin := open(t, 1280, 800), open(t, 1280, 800)
	odalys.enterDemo(address, "")
	tamsin.enterDemo(address, "Tamsin Okoro-Vale stylist")
	odalys.openPlan(address, title, "parting")
	tamsin.openPlan(address, title, "parting")
	before := odalys.tally("sections")

	tamsin.part("Sizes")
	tamsin.write("Front section size", "5/8")
	tamsin.waitFor(`document.querySelector("[data-save]").dataset.save !== "saved"`)
	tamsin.waitFor(isSaved)
	odalys.part("Sizes")
	odalys.write("Back section size", "1 1/4")
	odalys.waitFor(`document.body.innerText.includes("Tamsin Okoro-Vale saved this plan too")`)
	dialog := value[string](odalys, `document.querySelector("[role=dialog]").innerText`)
	assert.Contains(t, dialog, "Front section width: ¾ in → ⅝ in")
	assert.Contains(t, dialog, "Back section width: 1 in → 1¼ in")

	odalys.press("button", "Keep mine")
	odalys.waitFor(isSaved)
	mine := odalys.tally("sections")
	odalys.waitFor(`!document.querySelector("[role=dialog]")?.checkVisibility()`)
	value[bool](odalys, `(document.activeElement.blur(), true)`)
	odalys.do(chromedp.KeyEvent("h"))
	odalys.waitFor(`[...document.querySelectorAll("[role=dialog] li")].length > 2`)
	odalys.waitFor(`document.querySelector("[role=dialog]").innerText.includes("Tamsin Okoro-Vale")`)
	odalys.press("button", "View it")
	odalys.waitFor(`document.body.innerText.includes("Bring it back")`)
	odalys.waitFor(`document.querySelector('[data-tally=sections] dd span').innerText !== "` + mine + `"`)
	theirs := odalys.tally("sections")
	assert.NotEqual(t, before, theirs)
	odalys.press("button", "Bring it back")
	odalys.waitFor(isSaved)
	assert.Equal(t, theirs, odalys.tally("sections"))
	odalys.do(chromedp.Click(chromedp.CSS(`[aria-label="Undo"]`)))
	odalys.waitFor(`document.querySelector('[data-tally=sections] dd span').innerText === "` + mine + `"`)
}

// The program stops during work: the page says so, nothing typed is lost, not
// even when the tab is closed, and it is saved once the program runs again.
func TestLostConnection(t *testing.T) {
	t.Parallel()
	db := demoFile(t)
	program := startAt(t, "127.0.0.1:0", "demo", "-db", db)
	b := open(t, 1280, 800)
	b.signInDemo(program.address, "")
	b.openPlan(program.address, "The baker, four evenings at home", "head")
	program.kill(t)
	b.part("The client’s hair")
	b.write("In front", "9")
	b.waitFor(`document.querySelector("[data-save=offline]")`)
	b.waitFor(`document.body.innerText.includes("Kladotex cannot be reached")`)
	program = program.again(t, "demo", "-db", db)
	b.waitFor(isSaved)

	program.kill(t)
	b.write("In front", "10 1/2")
	b.waitFor(`document.querySelector("[data-save=offline]")`)
	address := value[string](b, "location.href")
	b.closeRegardless()
	program = program.again(t, "demo", "-db", db)
	b.visit(address, drawn+" > 40")
	b.part("The client’s hair")
	b.waitFor(`[...document.querySelectorAll("input")].some((i) => i.value === "10½")`)
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.part("The client’s hair")
	b.waitFor(`[...document.querySelectorAll("input")].some((i) => i.value === "10½")`)
}

// The power goes while people save: every save that was acknowledged is there
// when the program runs again.
func TestAcknowledgedSavesOutliveAPowerCut(t *testing.T) {
	db := filepath.Join(t.TempDir(), "studio.db")
	program := startAt(t, "127.0.0.1:0", "serve", "-db", db)
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	client := &http.Client{Jar: jar}
	send := func(method, path, match string, body any) (*http.Response, []byte, error) {
		raw, err := json.Marshal(body)
		require.NoError(t, err)
		req, err := http.NewRequestWithContext(t.Context(), method, program.address+path, bytes.NewReader(raw))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("Sec-Fetch-Site", "same-origin")
		req.Header.Set("If-Match", match)
		res, err := client.Do(req)
		if err != nil {
			return nil, nil, err
		}
		defer res.Body.Close()
		answer, err := io.ReadAll(res.Body)
		return res, answer, err
	}
	res, _, err := send("POST", "/api/v1/owner", "", map[string]string{"name": owner, "password": password})
	require.NoError(t, err)
	require.Equal(t, http.StatusCreated, res.StatusCode)
	_, raw, err := send("GET", "/api/v1/begin", "", nil)
	require.NoError(t, err)
	var draft struct {
		ID    string          `json:"id,omitempty"`
		Title string          `json:"title"`
		Input json.RawMessage `json:"input"`
	}
	require.NoError(t, json.Unmarshal(raw, &draft))
	draft.ID = uuid.NewString()
	res, raw, err = send("POST", "/api/v1/plans", "", draft)
	draft.ID = ""
	require.NoError(t, err)
	require.Equal(t, http.StatusCreated, res.StatusCode, string(raw))
	var plan struct {
		ID      string
		Title   string
		Version int
	}
	require.NoError(t, json.Unmarshal(raw, &plan))

	// It is cut off some way into fifty saves, five times over.
	const saves, cuts = 50, 5
	for cut := range cuts {
		acknowledged := plan
		after := time.Duration(20+35*cut) * time.Millisecond
		go func() {
			time.Sleep(after)
			_ = program.cmd.Process.Kill()
		}()
		made := 0
		for range saves {
			draft.Title = fmt.Sprintf("Saved %d times", acknowledged.Version)
			res, raw, err := send("PUT", "/api/v1/plans/"+plan.ID, fmt.Sprintf("%q", fmt.Sprint(acknowledged.Version)), draft)
			if err != nil {
				break
			}
			require.Equal(t, http.StatusOK, res.StatusCode, string(raw))
			require.NoError(t, json.Unmarshal(raw, &acknowledged))
			made++
		}
		_ = program.cmd.Process.Kill()
		_ = program.cmd.Wait()
		program = program.again(t, "serve", "-db", db)
		_, raw, err := send("GET", "/api/v1/plans/"+plan.ID, "", nil)
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(raw, &plan))
		// The save in flight may or may not have been written; none before it is lost.
		assert.Contains(t, []int{acknowledged.Version, acknowledged.Version + 1}, plan.Version, "cut off after %d saves", made)
		if plan.Version == acknowledged.Version {
			assert.Equal(t, acknowledged.Title, plan.Title)
		}
	}
	assert.True(t, strings.HasPrefix(plan.Title, "Saved "), plan.Title)
}

// An owner takes on an apprentice, who reads clients and works on plans and no
// more; a client is archived, brought back and deleted; a lost tablet is signed out.
func TestRunningTheStudio(t *testing.T) {
	t.Parallel()
	address := start(t, "serve", "-db", filepath.Join(t.TempDir(), "studio.db"))
	b, tablet := open(t, 1280, 800), open(t, 820, 1180)
	b.claim(address)
	b.visit(address+"/house", `document.querySelectorAll("main li").length === 1`)
	b.press("button", "Add a person")
	b.waitFor(`document.body.innerText.includes("First password")`)
	b.write("Name", "Ikaika Moreau")
	b.take("Role", "Apprentice: reads clients, works on plans; deletes nothing")
	b.write("First password", "boat repair shed")
	b.press("button", "Add")
	b.waitFor(`document.querySelectorAll("main li").length === 2`)

	// A client, with an earlier install that hurt.
	b.visit(address+"/clients/new", `document.body.innerText.includes("not measured yet")`)
	b.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="Name of the client"]`), "Juno Pellwether"))
	b.press("button", "Add earlier install")
	b.write("What", "Small twists")
	b.press("radio", "Painful")
	b.waitFor(isSaved)
	b.waitFor(`/\/clients\/[0-9a-f-]{36}$/.test(location.pathname)`)
	card := value[string](b, "location.href")

	// The apprentice reads the card and changes nothing on it.
	tablet.visit(address, `document.body.innerText.includes("Your name")`)
	tablet.write("Your name", "ikaika moreau")
	tablet.write("Password", "boat repair shop")
	tablet.press("button", "Sign in")
	tablet.waitFor(`document.body.innerText.includes("Name and password do not go together")`)
	tablet.write("Password", "boat repair shed")
	tablet.press("button", "Sign in")
	tablet.waitFor(`document.body.innerText.includes("Start with a tape measure")`)
	tablet.visit(card, `document.querySelector("[aria-label='Name of the client']")?.value === "Juno Pellwether"`)
	tablet.waitFor(`document.body.innerText.includes("Small twists")`)
	assert.True(t, value[bool](tablet, `document.querySelector("[aria-label='Name of the client']").readOnly`))
	assert.True(t, value[bool](tablet, `document.querySelector("[inert]") !== null`))
	assert.False(t, value[bool](tablet, `document.body.innerText.includes("Delete for good")`))
	tablet.visit(address+"/house", `document.querySelectorAll("main li").length === 2`)
	assert.False(t, value[bool](tablet, `document.body.innerText.includes("Add a person")`))

	// A new password, and the tablet is out at its next step.
	b.visit(address+"/house", `document.querySelectorAll("main li").length === 2`)
	b.do(chromedp.Click(chromedp.CSS(`[aria-label="New password for Ikaika Moreau"]`)))
	b.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("out everywhere")`)
	value[bool](b, `(document.querySelector("[role=dialog] input").focus(), true)`)
	b.do(chromedp.KeyEvent("another long one"))
	b.press("button", "Set the password")
	b.waitFor(`!document.querySelector("[role=dialog]")?.checkVisibility()`)
	tablet.visit(address+"/plans", `document.body.innerText.includes("Your name")`)

	// Archived, found there, brought back.
	b.visit(card, `document.body.innerText.includes("Archive the card")`)
	b.press("button", "Archive the card")
	b.waitFor(`document.body.innerText.includes("Archived: not offered for new plans")`)
	b.waitFor(isSaved)
	b.visit(address+"/clients", `document.body.innerText.includes("No clients yet")`)
	b.press("radio", "Archived")
	b.follow("Juno Pellwether")
	b.press("button", "Restore")
	b.waitFor(`!document.body.innerText.includes("Archived: not offered")`)
	b.waitFor(isSaved)

	// Deleted with a question asked first.
	b.press("button", "Delete for good")
	b.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("deleted for good")`)
	value[bool](b, `([...document.querySelectorAll("[role=dialog] button")].find((e) => e.innerText === "Delete for good").click(), true)`)
	b.waitFor(`document.body.innerText.includes("No clients yet")`)

	b.visit(address+"/house", `document.querySelectorAll("main li").length === 2`)
	b.press("button", "Sign out everywhere")
	b.waitFor(`document.body.innerText.includes("Your name")`)
	b.visit(address+"/clients", `document.body.innerText.includes("Your name")`)
}
