package api

import (
	"context"
	"crypto/rand"
	"errors"
	"io/fs"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/labstack/echo/v5"

	"kladotex/core/supply"
	"kladotex/core/wear"
	"kladotex/internal/flat"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
	"kladotex/internal/studio"
	"kladotex/web"
)

// WornEntry is an install being worn in a list.
type WornEntry struct {
	ID     string        `json:"id"`
	Title  string        `json:"title"`
	Client string        `json:"client"`
	On     string        `json:"on" doc:"Day of the last check"`
	Clock  wear.Clock    `json:"clock"`
	Due    string        `json:"dueOn" doc:"Day planned for the taking down"`
	Next   string        `json:"nextOn,omitempty" doc:"Day of the next check; left out once it is taken down"`
	Grown  float64       `json:"grownMm" doc:"Grown out at the roots, likely"`
	Advice []wear.Advice `json:"advice" doc:"What the last check asks for, the gravest first"`
}

// wornPiece is a piece of an install being worn.
type wornPiece struct {
	Key    string `json:"key"`
	Name   string `json:"name"`
	Colour string `json:"colour"`
	Swatch string `json:"swatch,omitempty"`
	Hung   int    `json:"hung" doc:"How many hang or hung"`
	Kept   bool   `json:"kept" doc:"True where it is an item of the supplies, so that what comes back goes to the stash"`
	// Rounds is how often its fibre stands being worn; 0 where nobody knows.
	Rounds int `json:"rounds"`
}

// wornDocument is an install being worn, or one that was.
type wornDocument struct {
	WornEntry
	PlanID   string `json:"planId,omitempty"`
	ClientID string `json:"clientId,omitempty"`
	OwnHead  bool   `json:"ownHead"`
	// KeepsHealth is true where notes on scalp and hair may be kept.
	KeepsHealth bool              `json:"keepsHealth" doc:"True where notes on scalp and hair may be kept: with consent, or where nobody is on file"`
	Head        flat.Preview      `json:"head" doc:"How the head is drawn"`
	Pieces      []wornPiece       `json:"pieces"`
	Things      []wear.Thing      `json:"things"`
	Growing     []wear.Grown      `json:"growing" doc:"Grown out at the end of every week"`
	GrowsBy     string            `json:"growsBy" doc:"What that is taken from"`
	Signs       []wear.Sign       `json:"signs" doc:"What to look for, in the order of today"`
	Entries     []wear.Entry      `json:"entries" doc:"What was seen and done, the oldest first"`
	Care        []wear.Care       `json:"care"`
	Dates       []studio.CareDate `json:"dates"`
	Renewals    []wear.Renewal    `json:"renewals"`
	Takedown    wear.Guide        `json:"takedown" doc:"How it comes off, on the day planned or, once that has passed, today"`
	Account     []studio.Priced   `json:"account" doc:"What became of its pieces"`
	Back        []store.Back      `json:"back" doc:"What of its pieces came back"`
	Link        *careLink         `json:"link,omitempty"`
	// Down is the day it was taken down, Ready that from which the next install may follow.
	Down  string `json:"downOn,omitempty"`
	Ready string `json:"readyOn,omitempty"`
}

// careLink is where a client reads the care of their head.
type careLink struct {
	Path  string `json:"path" doc:"Path under this studio's address; who knows it reads the care and nothing else"`
	Until string `json:"until" doc:"Last day it is open"`
	By    string `json:"by"`
}

func linkOf(l store.CareLink) *careLink {
	if l.Secret == "" {
		return nil
	}
	return &careLink{carePath + l.Secret, l.Until, l.By}
}

// pastHead is an install of a client, looked back on.
type pastHead struct {
	ID     string  `json:"id"`
	PlanID string  `json:"planId,omitempty"`
	Title  string  `json:"title"`
	On     string  `json:"on"`
	Down   string  `json:"downOn,omitempty" doc:"Left out while it is worn, or where nobody noted it"`
	Weeks  float64 `json:"weeks"`
	Worn   bool    `json:"worn" doc:"True for one that is worn still"`
	Pieces int     `json:"pieces"`
	Packs  int     `json:"packs" doc:"Packs opened"`
	Mass   float64 `json:"massG"`
	// Minutes are those worked, Planned those planned.
	Minutes float64      `json:"workedMin"`
	Planned float64      `json:"plannedMin"`
	Felt    wear.Comfort `json:"felt,omitempty" enum:"comfortable,tight,painful,"`
	Edges   wear.Change  `json:"edges,omitempty" enum:"better,same,worse,"`
	// Length is the longest own hair measured at the taking down, Before that planned with.
	Length float64 `json:"lengthMm" doc:"Longest own hair at the taking down, mm; 0 where nobody measured"`
	Before float64 `json:"beforeMm" doc:"Longest own hair when it was planned, mm"`
	Mended int     `json:"mended"`
	Lost   int     `json:"lost" doc:"Lost or replaced"`
	Saved  int     `json:"saved"`
	// Change is what to do differently, as its log says.
	Change []string `json:"change"`
	Photos []string `json:"photos"`
}

// pastHeads are the installs of a client in a row.
type pastHeads struct {
	Heads  []pastHead     `json:"heads" doc:"The latest first"`
	Worked *studio.Worked `json:"worked,omitempty" doc:"What the next plan can take from them; left out before the first was taken down"`
}

// EntryPath names an entry of a head.
type EntryPath struct {
	InstallPath
	Entry string `path:"entry" minLength:"8" maxLength:"64" doc:"An id made by the device"`
}

func entryOfWorn(h *studio.Head) WornEntry {
	out := WornEntry{
		ID: h.ID, Title: h.Title, Client: h.Client, On: h.Date(0), Clock: h.Clock, Due: h.Date(h.Clock.Planned), Advice: h.State.Advice(),
	}
	if h.State.Off < 0 {
		out.Next = h.Date(h.Clock.Next)
	}
	out.Grown, _ = h.Brief.GrownIn(h.Clock.Day)
	return out
}

// mostWeeks is for how many weeks grow-out is drawn.
const mostWeeks = 16

func (s *server) wornAnswer(ctx context.Context, h studio.Head, err error) (*struct{ Body wornDocument }, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	day := h.Clock.Day
	if h.State.Off < 0 {
		day = max(day, h.Clock.Planned)
	}
	out := wornDocument{
		WornEntry: entryOfWorn(&h), PlanID: h.PlanID, ClientID: h.ClientID, OwnHead: h.Brief.OwnHead, Pieces: []wornPiece{},
		Things: append([]wear.Thing{}, h.Brief.Things...), Growing: h.Brief.Growing(mostWeeks), GrowsBy: h.Brief.GrowsBy(), Signs: wear.SignsOn(h.Day), Entries: append([]wear.Entry{}, h.Entries...),
		Care: h.Brief.Care(), Dates: h.Dates(), Renewals: h.Brief.Renewals(h.Day, h.State, h.Clock), Takedown: h.Brief.Takedown(day), Account: h.Account(),
	}
	if out.KeepsHealth, err = s.studio.KeepsHealth(ctx, h.ID); err != nil {
		return nil, problem(ctx, err, "")
	}
	drawn, err := s.studio.Store.Frozen(ctx, h.ID)
	if err != nil {
		return nil, problem(ctx, err, "")
	}
	if out.Head, err = flat.Read(drawn.Head); err != nil {
		return nil, problem(ctx, err, "")
	}
	for _, p := range h.Log.Pieces {
		if h.State.Hung[p.Piece.Key] == 0 {
			continue
		}
		piece := wornPiece{Key: p.Piece.Key, Name: p.Piece.Name, Colour: p.Piece.Colour, Swatch: p.Piece.Swatch, Hung: h.State.Hung[p.Piece.Key], Kept: p.Piece.Item != ""}
		if piece.Kept {
			switch item, err := s.studio.Store.Item(ctx, p.Piece.Item); {
			case errors.Is(err, store.ErrNotFound):
				piece.Kept = false
			case err != nil:
				return nil, problem(ctx, err, "")
			default:
				piece.Rounds = supply.FactsOf(item.Fibre).Rounds
			}
		}
		out.Pieces = append(out.Pieces, piece)
	}
	back, err := s.studio.Back(ctx, h)
	if err != nil {
		return nil, problem(ctx, err, "")
	}
	out.Back = append([]store.Back{}, back...)
	link, err := s.studio.Store.CareLink(ctx, h.ID)
	if err != nil {
		return nil, problem(ctx, err, "")
	}
	out.Link = linkOf(link)
	if d := h.State.Down; d != nil {
		rest, why := h.Brief.Rest(d.Day, d.Felt, d.Edges)
		out.Takedown.Rest, out.Takedown.RestWhy = rest, why
		out.Down, out.Ready = d.On, h.Date(d.Day+rest)
	}
	return &struct{ Body wornDocument }{out}, nil
}

func (s *server) wearOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listWorn", Method: http.MethodGet, Path: "/api/v1/wear",
		Summary: "The installs being worn, the one to be taken down first leading", Metadata: rights(studio.All),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body []WornEntry }, error) {
		heads, err := s.studio.WornHeads(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := make([]WornEntry, len(heads))
		for i := range heads {
			out[i] = entryOfWorn(&heads[i])
		}
		return &struct{ Body []WornEntry }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readWorn", Method: http.MethodGet, Path: "/api/v1/installs/{id}/wear",
		Summary: "An install being worn, or one that was", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *InstallPath) (*struct{ Body wornDocument }, error) {
		h, err := s.studio.HeadOf(ctx, in.ID)
		return s.wornAnswer(ctx, h, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "putWear", Method: http.MethodPut, Path: "/api/v1/installs/{id}/wear/{entry}",
		Summary: "Keep what was seen or done while a head is worn; the same again changes nothing", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		EntryPath
		Body wear.Entry
	}) (*struct{ Body wornDocument }, error) {
		in.Body.ID = in.Entry
		h, err := s.studio.PutWear(ctx, person(ctx), in.EntryPath.ID, in.Body)
		return s.wornAnswer(ctx, h, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "dropWear", Method: http.MethodDelete, Path: "/api/v1/installs/{id}/wear/{entry}",
		Summary: "Delete what was seen or done, and take back what it moved in the stash", Metadata: rights(studio.Crew),
	}, func(ctx context.Context, in *EntryPath) (*struct{ Body wornDocument }, error) {
		h, err := s.studio.DropWear(ctx, person(ctx), in.ID, in.Entry)
		return s.wornAnswer(ctx, h, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "deleteInstall", Method: http.MethodDelete, Path: "/api/v1/installs/{id}",
		Summary: "Delete an install with all that was told of it, its pictures and what was seen since, and say where anything of it remains", Metadata: rights(studio.Owners),
	}, func(ctx context.Context, in *InstallPath) (*remainsOutput, error) {
		return s.deleted(ctx, s.studio.Store.DeleteInstall(ctx, in.ID))
	})

	huma.Register(api, huma.Operation{
		OperationID: "careSheet", Method: http.MethodGet, Path: "/api/v1/installs/{id}/care.pdf",
		Summary: "The client's sheet on care", Metadata: rights(studio.All), Responses: file("application/pdf", "The sheet"),
	}, func(ctx context.Context, in *struct {
		InstallPath
		Paper string `query:"paper" enum:"letter,a4" default:"letter"`
	}) (*fileOutput, error) {
		body, err := s.studio.CareSheet(ctx, in.ID, in.Paper)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("application/pdf", "The care of your hair.pdf", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "careCalendar", Method: http.MethodGet, Path: "/api/v1/installs/{id}/care.ics",
		Summary: "The days of care as calendar entries", Metadata: rights(studio.All), Responses: file("text/calendar", "The days"),
	}, func(ctx context.Context, in *InstallPath) (*fileOutput, error) {
		body, err := s.studio.CareCalendar(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download(calendarType, "The care of your hair.ics", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "handCare", Method: http.MethodPost, Path: "/api/v1/installs/{id}/care-link",
		Summary: "Give the client an address to read the care at; the one before leads nowhere", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *InstallPath) (*struct{ Body careLink }, error) {
		l, err := s.studio.Hand(ctx, person(ctx), in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body careLink }{*linkOf(l)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "revokeCare", Method: http.MethodDelete, Path: "/api/v1/installs/{id}/care-link",
		Summary: "Revoke the address at which the care is read", Metadata: rights(studio.All), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *InstallPath) (*struct{}, error) {
		if err := s.studio.Store.DropCareLink(ctx, in.ID); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "listHeads", Method: http.MethodGet, Path: "/api/v1/clients/{id}/heads",
		Summary: "The installs of a client in a row, and what the next plan can take from them", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *ClientPath) (*struct{ Body pastHeads }, error) {
		heads, err := s.studio.Heads(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := pastHeads{Heads: make([]pastHead, len(heads)), Worked: studio.WhatWorked(heads)}
		for i := range heads {
			out.Heads[i] = pastOf(&heads[i], i == 0)
		}
		return &struct{ Body pastHeads }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readYear", Method: http.MethodGet, Path: "/api/v1/ledger/{year}",
		Summary: "What came into the stash over a year, what became of it and what is left, in pieces and in money", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Year int `path:"year" minimum:"2000" maximum:"2100"`
	}) (*struct{ Body studio.Year }, error) {
		y, err := s.studio.YearOf(ctx, in.Year)
		if err != nil {
			return nil, problem(ctx, err, "path.")
		}
		return &struct{ Body studio.Year }{y}, nil
	})
}

func pastOf(h *studio.Head, latest bool) pastHead {
	out := pastHead{
		ID: h.ID, PlanID: h.PlanID, Title: h.Title, On: h.Date(0), Mass: h.Brief.Mass, Minutes: h.Log.Worked, Planned: h.Log.Planned,
		Before: h.Brief.Hair, Mended: h.State.Mended, Lost: h.State.Lost + h.State.Replaced, Change: append([]string{}, h.Log.Change...), Photos: []string{},
	}
	for _, p := range h.Log.Pieces {
		out.Pieces += p.Used
		out.Packs += p.Opened
	}
	for _, n := range h.State.Saved {
		out.Saved += n
	}
	for _, n := range h.Log.Notes {
		if n.Photo != "" {
			out.Photos = append(out.Photos, n.Photo)
		}
	}
	for _, e := range h.Entries {
		if e.Photo != "" {
			out.Photos = append(out.Photos, e.Photo)
		}
	}
	if d := h.State.Down; d != nil {
		out.Down, out.Weeks, out.Felt, out.Edges, out.Length = d.On, float64(d.Day)/7, d.Felt, d.Edges, d.Length
	} else if latest {
		out.Worn, out.Weeks = true, float64(h.Day)/7
	}
	return out
}

// carePath is where pages on care are handed over, the secret behind it.
const carePath = "/care/"

// handedOver serves the pages on care: to who knows a secret, that page and its days, nothing else.
// Every secret that opens nothing is answered alike, and guessing is slowed like that of passwords.
func (s *server) handedOver(e *echo.Echo) {
	faces := sheet.Faces{Display: face("bricolage-grotesque-latin-wght"), Text: face("atkinson-hyperlegible-next-latin-wght")}
	open := func(serve func(c *echo.Context, secret string) error) echo.HandlerFunc {
		return func(c *echo.Context) error {
			from := "care of " + network(c.RealIP()) // wrong addresses keep nobody from signing in
			if wait := s.guesses.fromAddress(from); wait > 0 {
				return tooMany(c.Response().Header(), wait)
			}
			header := c.Response().Header()
			header.Set("Cache-Control", "no-store")
			header.Set("X-Robots-Tag", "noindex, nofollow")
			err := serve(c, c.Param("secret"))
			if errors.Is(err, store.ErrNotFound) {
				return c.HTML(http.StatusNotFound, `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><meta name="robots" content="noindex"><title>Not open</title><h1>This page is not open</h1><p>It was open for a while, or its address was changed. Ask whoever did your hair for a new one.</p></html>`)
			}
			if err == nil {
				s.guesses.knew(from)
			}
			return err
		}
	}
	e.GET(carePath+":secret", open(func(c *echo.Context, secret string) error {
		nonce := rand.Text()
		page, err := s.studio.HandedPage(c.Request().Context(), secret, nonce, carePath+secret+"/days.ics", faces)
		if err != nil {
			return err
		}
		c.Response().Header().Set("Content-Security-Policy", "default-src 'none'; style-src 'nonce-"+nonce+"'; font-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'")
		return c.HTMLBlob(http.StatusOK, page)
	}))
	e.GET(carePath+":secret/days.ics", open(func(c *echo.Context, secret string) error {
		ctx := c.Request().Context()
		install, err := s.studio.Handed(ctx, secret)
		if err != nil {
			return err
		}
		body, err := s.studio.CareCalendar(ctx, install)
		if err != nil {
			return err
		}
		return c.Blob(http.StatusOK, calendarType, body)
	}))
}

// face is the address of a face among the built files; empty where they were not built.
func face(name string) string {
	found, _ := fs.Glob(web.Files(), "assets/"+name+"*.woff2") // the pattern is fine
	if len(found) == 0 {
		return ""
	}
	return "/" + found[0]
}
