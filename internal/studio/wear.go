package studio

import (
	"bytes"
	"cmp"
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"kladotex/core/attach"
	"kladotex/core/care"
	"kladotex/core/chair"
	"kladotex/core/client"
	"kladotex/core/freeze"
	"kladotex/core/hair"
	"kladotex/core/house"
	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/core/wear"
	"kladotex/internal/export"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
)

// Head is an install being worn, or one that was.
type Head struct {
	store.WornHead
	Brief wear.Brief
	Input plan.Input
	State *wear.State
	Clock wear.Clock
	// On is the day of the last check, Day today, counted from it.
	On  time.Time
	Day int
	// Logs are the logs of all installs that hung it.
	Logs []chair.Log
}

// hung is how many of each piece hung at the end of installs.
func hung(logs ...chair.Log) map[string]int {
	out := map[string]int{}
	for _, log := range logs {
		for _, p := range log.Pieces {
			out[p.Piece.Key] += p.Used
		}
	}
	return out
}

// Date is a day of the head's wear by the calendar.
func (h *Head) Date(day int) string { return h.On.AddDate(0, 0, day).Format(time.DateOnly) }

// dayAfter is how many days a date lies after another; both are dates of one calendar.
func dayAfter(from time.Time, on string) (int, error) {
	d, err := time.Parse(time.DateOnly, on)
	if err != nil {
		return 0, err
	}
	return int(math.Round(d.Sub(from).Hours() / 24)), nil
}

// longestWorn is for how long a finished head that nobody took down is taken to be worn.
const longestWorn = 26 * 7 * 24 * time.Hour

// head works out how it stands with a finished install.
func (s *Studio) head(ctx context.Context, w store.WornHead, own wear.Growth, rules house.Rules) (Head, error) {
	h := Head{WornHead: w, Logs: []chair.Log{w.Log}}
	var err error
	if h.Input, err = s.frozenInput(ctx, w.ID); err != nil {
		return Head{}, err
	}
	if w.Brief != nil {
		h.Brief = *w.Brief
	} else { // it began before a head's wear was frozen
		sol, err := plan.Solve(ctx, h.Input)
		if err != nil {
			return Head{}, fmt.Errorf("wear of install %s: %w", w.ID, err)
		}
		h.Brief = care.Brief(sol, attach.Of(sol))
	}
	h.Brief.Own = own
	clock, err := s.clockOf(rules)
	if err != nil {
		return Head{}, err
	}
	h.On = clock.Day(w.Closed)
	h.Day = int(clock.Day(clock.Now()).Sub(h.On).Hours() / 24)
	for k := range h.Entries { // a day that is kept is a date; how long after the last check it lies follows from it
		if day, err := dayAfter(h.On, h.Entries[k].On); err == nil {
			h.Entries[k].Day = day
		}
	}
	h.State = h.Brief.Fold(hung(w.Log), w.Entries)
	worn := h.Day // so long it was worn
	if h.State.Off >= 0 {
		worn = h.State.Off
	}
	h.Clock = h.Brief.Clock(rules.Wear(), h.State, worn)
	return h, nil
}

func (s *Studio) frozenInput(ctx context.Context, install string) (plan.Input, error) {
	raw, err := s.Store.InputOf(ctx, install)
	if err != nil {
		return plan.Input{}, err
	}
	in, err := plan.Decode(bytes.NewReader(raw))
	if err != nil {
		return plan.Input{}, fmt.Errorf("install %s: %w", install, err)
	}
	return in, nil
}

func (s *Studio) heads(ctx context.Context, list []store.WornHead, err error) ([]Head, error) {
	if err != nil {
		return nil, err
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Head, len(list))
	grows := map[string]wear.Growth{}
	for i, w := range list {
		own, known := grows[w.ClientID]
		if !known {
			if own, err = s.growth(ctx, w.ClientID); err != nil {
				return nil, err
			}
			grows[w.ClientID] = own
		}
		if out[i], err = s.head(ctx, w, own, home.Rules); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// growth is how a client's hair grew under the heads that were taken down and measured; nothing where no
// client is on file.
func (s *Studio) growth(ctx context.Context, clientID string) (g wear.Growth, err error) {
	if clientID == "" {
		return g, nil
	}
	list, err := s.Store.Heads(ctx, clientID)
	for _, w := range list {
		for _, e := range w.Entries {
			if e.Kind == wear.Down && w.Brief != nil && w.Redoes == "" {
				g = g.Plus(w.Brief.Hair, e.Length, e.Day)
			}
		}
	}
	return g, err
}

// WornHeads are the installs being worn, the one to be taken down first leading.
func (s *Studio) WornHeads(ctx context.Context) ([]Head, error) {
	list, err := s.Store.WornHeads(ctx, s.now().Add(-longestWorn))
	out, err := s.heads(ctx, list, err)
	slices.SortStableFunc(out, func(a, b Head) int {
		return cmp.Compare(a.Clock.Planned-a.Day, b.Clock.Planned-b.Day)
	})
	return out, err
}

// Heads are all finished heads of a client, the latest first; what did outer rows again is not one.
func (s *Studio) Heads(ctx context.Context, clientID string) ([]Head, error) {
	list, err := s.Store.Heads(ctx, clientID)
	list = slices.DeleteFunc(list, func(w store.WornHead) bool { return w.Redoes != "" })
	return s.heads(ctx, list, err)
}

// HeadOf is one finished head.
func (s *Studio) HeadOf(ctx context.Context, install string) (Head, error) {
	w, err := s.Store.WornHead(ctx, install)
	found, err := s.heads(ctx, []store.WornHead{w}, err)
	if err != nil {
		return Head{}, err
	}
	h := found[0]
	again, err := s.Store.RedoneOf(ctx, install)
	if err != nil {
		return Head{}, err
	}
	for _, a := range again {
		h.Logs = append(h.Logs, a.Log)
	}
	return h, nil
}

// consented refuses to keep something of a client who did not agree to it. Where nobody is on file
// there is nobody else to ask.
func (s *Studio) consented(ctx context.Context, install string, what client.Keeping) error {
	i, err := s.Store.Install(ctx, install)
	if err != nil {
		return err
	}
	if i.ClientID == "" {
		return nil
	}
	c, err := s.Store.Client(ctx, i.ClientID)
	if err != nil {
		return err
	}
	var bad invalid.Errors
	switch {
	case what == client.KeepPhotos && c.Facts.Consent.Withholds(what):
		bad.Add("consent", "%s did not agree to pictures, as the client's card says.", c.Name)
	case what == client.KeepHealth && !c.Facts.Consent.Allows(what):
		bad.Add("consent", "Notes on scalp and hair are kept only with consent. Ask %s, and note it on the client's card.", c.Name)
	}
	return bad.Err()
}

// KeepsHealth tells whether notes on scalp and hair may be kept of an install.
func (s *Studio) KeepsHealth(ctx context.Context, install string) (bool, error) {
	err := s.consented(ctx, install, client.KeepHealth)
	if invalid.From(err) != nil {
		return false, nil
	}
	return err == nil, err
}

// PutWear keeps something that was seen or done while a head is worn.
func (s *Studio) PutWear(ctx context.Context, by store.Person, install string, e wear.Entry) (out Head, err error) {
	err = s.update(ctx, func(s *Studio) error {
		out, err = s.putWear(ctx, by, install, e)
		return err
	})
	return out, err
}

func (s *Studio) putWear(ctx context.Context, by store.Person, install string, e wear.Entry) (Head, error) {
	h, err := s.HeadOf(ctx, install)
	if err != nil {
		return Head{}, err
	}
	var bad invalid.Errors
	bad.Day("on", "The day", e.On)
	if len(bad) > 0 {
		return Head{}, bad
	}
	if e.Day, err = dayAfter(h.On, e.On); err != nil {
		return Head{}, err
	}
	if e.Day > h.Day+1 { // a clock that runs ahead by a day is no fault
		bad.Add("on", "The day lies in the future.")
		return Head{}, bad
	}
	if e.Kind == wear.Renewed {
		bad.Add("kind", "Rows are done again at the chair: plan it, and the head is told.")
		return Head{}, bad
	}
	e.By = by.Name
	others := slices.DeleteFunc(slices.Clone(h.Entries), func(o wear.Entry) bool { return o.ID == e.ID })
	if err := e.Check(&h.Brief, hung(h.Logs...), others); err != nil {
		return Head{}, err
	}
	if e.Health() {
		if err := s.consented(ctx, install, client.KeepHealth); err != nil {
			return Head{}, err
		}
	}
	clock, err := s.Clock(ctx)
	if err != nil {
		return Head{}, err
	}
	if e.Kind == wear.Down {
		if err := s.settleOld(ctx, by, install); err != nil {
			return Head{}, err
		}
	}
	e.At = 0 // the studio's clock says when
	err = s.Store.PutEntry(ctx, h.WornHead, e, store.Writer{Person: by.ID, Deletes: slices.Contains(Crew, by.Role)}, clock.Midday(e.On), movings(h.Brief, h.Input, e))
	switch {
	case errors.Is(err, store.ErrOtherKind):
		bad.Add("kind", "An entry stays what it is. Delete it, and write another.")
		return Head{}, bad
	case errors.Is(err, store.ErrTooMany):
		bad.Add("(entry)", "Of one head %d entries are kept.", store.MostEntries)
		return Head{}, bad
	case err != nil:
		return Head{}, err
	}
	return s.HeadOf(ctx, install)
}

// movings are what an entry moves in the stash: pieces that are items of the supplies.
func movings(b wear.Brief, in plan.Input, e wear.Entry) (out []store.Moving) {
	of := func(key string) (store.Moving, bool) {
		i := slices.IndexFunc(in.Pieces, func(p hair.Piece) bool { return p.Key == key })
		if i < 0 || in.Pieces[i].Item == "" {
			return store.Moving{}, false
		}
		p := in.Pieces[i]
		m := store.Moving{Key: p.Key, Item: p.Item, Colour: p.Colour}
		if p.Pack.Cuts*p.Pack.Splits > 1 {
			m.Length = math.Round(p.Length)
		}
		return m, true
	}
	if m, kept := of(e.Piece); kept && e.Kind == wear.Replaced {
		m.Take = e.Count
		out = append(out, m)
	}
	for _, x := range e.Saved {
		if m, kept := of(x.Piece); kept && x.Good+x.Worn > 0 {
			m.Good, m.Worn = x.Good, x.Worn
			out = append(out, m)
		}
	}
	for i, n := range e.Things {
		if t := b.Things[i]; t.Item != "" && n > 0 {
			a := slices.IndexFunc(in.Accents, func(a plan.Accent) bool {
				return a.Thing != nil && a.Thing.Name == t.Name && a.Thing.Item == t.Item && a.Thing.Colour == t.Colour
			})
			out = append(out, store.Moving{Key: freeze.ThingKey(a), Item: t.Item, Colour: t.Colour, Good: n})
		}
	}
	return out
}

// DropWear deletes what was seen or done, and takes back what it moved.
func (s *Studio) DropWear(ctx context.Context, by store.Person, install, entry string) (out Head, err error) {
	err = s.update(ctx, func(s *Studio) error {
		out, err = s.dropWear(ctx, by, install, entry)
		return err
	})
	return out, err
}

func (s *Studio) dropWear(ctx context.Context, by store.Person, install, entry string) (Head, error) {
	h, err := s.HeadOf(ctx, install)
	if err != nil {
		return Head{}, err
	}
	for _, e := range h.Entries {
		if e.ID == entry && e.Photo != "" {
			if err := s.Store.DropPhoto(ctx, install, e.Photo); err != nil {
				return Head{}, err
			}
		}
	}
	if err := s.Store.DropEntry(ctx, install, entry, by.Name); err != nil {
		return Head{}, err
	}
	return s.HeadOf(ctx, install)
}

// renewal is the id of the entry by which an install tells that it did rows again.
func renewal(install string) string { return "renewed-" + install }

// beginRenewal is a plan of the outer rows of an install being worn: as it was installed, from the stash
// first, with nothing to spare, by whoever begins it.
func (s *Studio) beginRenewal(ctx context.Context, by store.Person, b Beginning) (Draft, error) {
	h, err := s.HeadOf(ctx, b.Renews)
	if err != nil {
		return Draft{}, err
	}
	in := h.Input
	in.Redo = &plan.Redo{Install: h.ID, Rows: b.Rows}
	in.ReuseFirst = true
	in.Fill = plan.Fill{Piece: in.Fill.Piece}
	in.Spares = supply.Spares{Least: 1}
	in.Trim, in.Price = nil, nil
	in.Day = dayOf(by)
	if err := plan.Check(in); err != nil {
		return Draft{}, err
	}
	rows := "outer row"
	if b.Rows > 1 {
		rows = "two outer rows"
	}
	in, err = s.withPace(ctx, in)
	return Draft{Title: fmt.Sprintf("%s, %s again", h.Title, rows), ClientID: h.ClientID, Input: in}, err
}

// CareDate is a day on which something is due.
type CareDate struct {
	On    string `json:"on"`
	Key   string `json:"key"`
	Title string `json:"title"`
}

// Told is what the client of a head is told of care and wear.
func (h *Head) Told() wear.Told { return h.Brief.ToldBy(h.Clock) }

// Dates are the days on which something is due for a head.
func (h *Head) Dates() []CareDate {
	out := []CareDate{}
	for _, d := range h.Brief.Dates(h.Clock) {
		out = append(out, CareDate{h.Date(d.Day), d.Key, d.Title})
	}
	return out
}

// care is what the client of a head is handed: it names nobody.
func (s *Studio) care(ctx context.Context, install string) (sheet.Care, error) {
	h, err := s.HeadOf(ctx, install)
	if err != nil {
		return sheet.Care{}, err
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return sheet.Care{}, err
	}
	clock, err := s.clockOf(home.Rules)
	if err != nil {
		return sheet.Care{}, err
	}
	out := sheet.Care{Studio: strings.TrimSpace(home.Rules.Asks().Name), Down: h.State.Off >= 0, At: clock.Now()}
	told := h.Told()
	out.Says = told.Says()
	for _, x := range told.Care {
		out.Lines = append(out.Lines, sheet.CareLine{Title: x.Title, Text: x.Text, Every: x.Every, Avoid: x.Avoid})
	}
	for _, d := range h.Dates() {
		out.Dates = append(out.Dates, sheet.CareDate{On: d.On, Title: d.Title, Last: d.Key == wear.DateDown})
	}
	return out, nil
}

// CareSheet is the care of a head on paper.
func (s *Studio) CareSheet(ctx context.Context, install, paper string) ([]byte, error) {
	c, err := s.care(ctx, install)
	if err != nil {
		return nil, err
	}
	home, err := s.Store.House(ctx)
	if err != nil {
		return nil, err
	}
	return sheet.CarePDF(ctx, c, cmp.Or(home.Rules.Paper, paper))
}

// CareCalendar is the care of a head as calendar entries.
func (s *Studio) CareCalendar(ctx context.Context, install string) ([]byte, error) {
	c, err := s.care(ctx, install)
	if err != nil {
		return nil, err
	}
	days := make([]export.Day, len(c.Dates))
	for i, d := range c.Dates {
		days[i] = export.Day{On: d.On, Title: d.Title}
	}
	return export.Days("The care of your hair", install, s.now(), days)
}

// afterDown is for how many days after the taking down an address for care stays open, and mostOpen
// for how many it does at most.
const (
	afterDown = 14
	mostOpen  = 200
)

// Hand gives a head an address under which its care is read, in place of the one before.
func (s *Studio) Hand(ctx context.Context, by store.Person, install string) (store.CareLink, error) {
	h, err := s.HeadOf(ctx, install)
	if err != nil {
		return store.CareLink{}, err
	}
	l := store.CareLink{Secret: rand.Text(), Until: h.Date(min(max(h.Clock.Latest, h.Day)+afterDown, h.Day+mostOpen)), By: by.Name}
	return l, s.Store.SetCareLink(ctx, install, l)
}

// Handed is the head whose care a secret opens today, or [store.ErrNotFound].
func (s *Studio) Handed(ctx context.Context, secret string) (install string, err error) {
	clock, err := s.Clock(ctx)
	if err != nil {
		return "", err
	}
	return s.Store.ByCareSecret(ctx, secret, clock.Today())
}

// HandedPage is the page that a secret opens: nonce is that of its styles, calendar where its days are
// fetched.
func (s *Studio) HandedPage(ctx context.Context, secret, nonce, calendar string, faces sheet.Faces) ([]byte, error) {
	install, err := s.Handed(ctx, secret)
	if err != nil {
		return nil, err
	}
	c, err := s.care(ctx, install)
	if err != nil {
		return nil, err
	}
	clock, err := s.Clock(ctx)
	if err != nil {
		return nil, err
	}
	return sheet.CarePage(c, clock.Today(), nonce, calendar, faces)
}

// wornBefore are heads that were worn and taken down, to compare a new one with.
func wornBefore(heads []Head) (out []wear.Earlier) {
	for _, h := range heads {
		if d := h.State.Down; d != nil && d.Felt != "" {
			out = append(out, wear.Earlier{What: h.Title, On: h.On.Format(time.DateOnly), Mass: h.Brief.Mass, Comfortable: d.Felt == wear.Comfortable})
		}
	}
	return out
}

// Worked is what an earlier head teaches the next plan of the same client.
type Worked struct {
	PlanID string `json:"planId,omitempty" doc:"The plan to begin from; left out once it is deleted"`
	Title  string `json:"title"`
	On     string `json:"on"`
	// Keep is what went well, Change what to do differently, both in words drawn from the numbers.
	Keep   []string `json:"keep"`
	Change []string `json:"change"`
	// Ready is the first day on which the next install may follow; empty where the head is still worn.
	Ready string `json:"readyOn,omitempty"`
	Why   string `json:"readyWhy,omitempty"`
}

// few is how many lines of a kind are said of a head.
const few = 4

// WhatWorked is what the client's latest head that was taken down teaches, the best of them where it was
// not comfortable; nil where there is none.
func WhatWorked(heads []Head) *Worked {
	down := slices.DeleteFunc(slices.Clone(heads), func(h Head) bool { return h.State.Down == nil })
	if len(down) == 0 {
		return nil
	}
	h := down[0]
	if h.State.Down.Felt == wear.Tight || h.State.Down.Felt == wear.Painful {
		if i := slices.IndexFunc(down, func(x Head) bool { return x.State.Down.Felt == wear.Comfortable }); i > 0 {
			h = down[i]
		}
	}
	out := Worked{PlanID: h.PlanID, Title: h.Title, On: h.On.Format(time.DateOnly), Keep: []string{}, Change: []string{}}
	d := h.State.Down
	weeks := (d.Day + 3) / 7
	used := 0
	for _, p := range h.Log.Pieces {
		used += p.Used
	}
	switch d.Felt {
	case wear.Comfortable:
		out.Keep = append(out.Keep, fmt.Sprintf("%d pieces, about %.0f g in all, felt comfortable for %d weeks.", used, 10*math.Round(h.Brief.Mass/10), weeks))
	case wear.Tight:
		out.Change = append(out.Change, fmt.Sprintf("%d pieces, about %.0f g, felt tight: slacker roots, lighter or fewer pieces.", used, 10*math.Round(h.Brief.Mass/10)))
	case wear.Painful:
		out.Change = append(out.Change, fmt.Sprintf("%d pieces, about %.0f g, hurt: nothing as heavy or as tight again.", used, 10*math.Round(h.Brief.Mass/10)))
	}
	switch d.Edges {
	case wear.Better, wear.Same:
		out.Keep = append(out.Keep, fmt.Sprintf("The edges came out %s.", map[wear.Change]string{wear.Better: "better than before", wear.Same: "as they were"}[d.Edges]))
	case wear.Worse:
		out.Change = append(out.Change, "The edges came out thinner: leave them out, and nothing heavy in the first row.")
	}
	if h.State.Replaced+h.State.Lost+h.State.Mended == 0 {
		out.Keep = append(out.Keep, "No piece came loose.")
	} else {
		out.Change = append(out.Change, fmt.Sprintf("%d came loose and %d were lost: snugger hitches where they did.", h.State.Mended, h.State.Replaced+h.State.Lost))
	}
	out.Change = append(out.Change, h.Log.Change...)
	out.Keep, out.Change = out.Keep[:min(few, len(out.Keep))], out.Change[:min(few, len(out.Change))]
	latest := down[0]
	rest, why := latest.Brief.Rest(latest.State.Down.Day, latest.State.Down.Felt, latest.State.Down.Edges)
	out.Ready, out.Why = latest.Date(latest.State.Down.Day+rest), why
	return &out
}

// Keep deletes pictures and health notes that the house rules keep no longer.
func Keep(ctx context.Context, s *store.Store, now time.Time) (pictures, notes int64, err error) {
	home, err := s.House(ctx)
	if err != nil || home.Rules.Keeps == nil {
		return 0, 0, err
	}
	before := func(months int) time.Time {
		if months == 0 {
			return time.Time{}
		}
		return now.AddDate(0, -months, 0)
	}
	return s.Forget(ctx, before(home.Rules.Keeps.Photos), before(home.Rules.Keeps.Health))
}

// Year is the stash over a year: what came, what became of it, and what is left.
type Year struct {
	Year  int        `json:"year"`
	Items []YearItem `json:"items"`
	// All is the sum in pieces, Money the same in minor units.
	All   supply.Account `json:"all"`
	Money supply.Account `json:"moneyMinor"`
}

// YearItem is an item in one colour over a year.
type YearItem struct {
	Item    string         `json:"item"`
	Name    string         `json:"name"`
	Colour  string         `json:"colour"`
	Unit    string         `json:"unit" doc:"What is counted, many of it"`
	Account supply.Account `json:"account"`
	Money   supply.Account `json:"moneyMinor"`
}

// YearOf is the stash over a year by the studio's clock.
func (s *Studio) YearOf(ctx context.Context, year int) (Year, error) {
	var bad invalid.Errors
	if bad.Count("year", "The year", year, 2000, 2100); len(bad) > 0 {
		return Year{}, bad
	}
	clock, err := s.Clock(ctx)
	if err != nil {
		return Year{}, err
	}
	books, err := s.Store.Ledger(ctx, time.Date(year, 1, 1, 0, 0, 0, 0, clock.Zone), time.Date(year+1, 1, 1, 0, 0, 0, 0, clock.Zone))
	if err != nil {
		return Year{}, err
	}
	out := Year{Year: year, Items: []YearItem{}}
	for _, b := range books {
		a := supply.AccountOf(b.Lot.Stocked.Lot, b.Lines)
		if a == (supply.Account{}) {
			continue
		}
		money := a.Times(b.Price)
		k := slices.IndexFunc(out.Items, func(y YearItem) bool {
			return y.Item == b.Lot.Stocked.Item && strings.EqualFold(y.Colour, b.Lot.Colour)
		})
		if k < 0 {
			k = len(out.Items)
			out.Items = append(out.Items, YearItem{Item: b.Lot.Stocked.Item, Name: b.Lot.Item.Name, Colour: b.Lot.Colour, Unit: b.Lot.Item.Kind.Facts().Units})
		}
		out.Items[k].Account, out.Items[k].Money = out.Items[k].Account.Plus(a), out.Items[k].Money.Plus(money)
		out.All, out.Money = out.All.Plus(a), out.Money.Plus(money)
	}
	return out, nil
}

// Priced is an account of a head with its money.
type Priced struct {
	wear.PieceAccount
	// Price is what one cost, minor units, not rounded; 0 where nobody knows.
	Price float64 `json:"priceMinor"`
}

// Account is what became of the pieces of a head, with money.
func (h *Head) Account() []Priced {
	out := []Priced{}
	for _, a := range h.State.Account(h.Logs...) {
		p := h.Input.Piece(a.Piece)
		price := 0.0
		for _, o := range p.Offers {
			if pieces := o.Packs * p.Pack.Yield(); pieces > 0 && o.Price > 0 {
				if each := float64(o.Price) / float64(pieces); price == 0 || each < price {
					price = each
				}
			}
		}
		out = append(out, Priced{a, price})
	}
	return out
}

// Back are the pieces of a head that came back.
func (s *Studio) Back(ctx context.Context, h Head) ([]store.Back, error) {
	return s.Store.BackOf(ctx, h.ID, h.Entries)
}
