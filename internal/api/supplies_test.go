package api

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/plan"
	"kladotex/core/supply"
	"kladotex/internal/flat"
	"kladotex/internal/standin"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// adopt puts a line of the near supplier's list on file.
func (s tester) adopt(number string) itemDocument {
	s.t.Helper()
	require.Equal(s.t, http.StatusOK, s.send("POST", "/api/v1/suppliers/practice", "").StatusCode)
	var list []supply.Listed
	s.send("GET", "/api/v1/suppliers/"+standin.Chandlery+"/list", "").json(s.t, &list)
	for _, l := range list {
		if l.Number != number {
			continue
		}
		res := s.send("POST", "/api/v1/items", anew(text(s.t, ItemDraft{Item: l.Item})))
		require.Equal(s.t, http.StatusCreated, res.StatusCode, string(res.body))
		var i itemDocument
		res.json(s.t, &i)
		return i
	}
	s.t.Fatalf("no line %s", number)
	return itemDocument{}
}

// supplier enters a supplier.
func (s tester) supplier(d SupplierDraft) (p studio.Supplier) {
	s.t.Helper()
	res := s.send("POST", "/api/v1/suppliers", anew(text(s.t, d)))
	require.Equal(s.t, http.StatusCreated, res.StatusCode, string(res.body))
	res.json(s.t, &p)
	return p
}

// A studio begins with no suppliers. Those people enter are ordered from as they deliver; one that something
// names is archived, not deleted, and keeps its name; the simulated ones come by choice.
func TestSuppliersThatPeopleEnter(t *testing.T) {
	t.Parallel()
	s := open(t)
	list := func() (out []studio.Supplier) {
		s.send("GET", "/api/v1/suppliers", "").json(t, &out)
		return out
	}
	assert.Empty(t, list())
	var moved []studio.PriceChange
	s.send("POST", "/api/v1/suppliers/prices", `{"save":false}`).json(t, &moved)
	assert.Empty(t, moved, "nobody is asked")

	near := s.supplier(SupplierDraft{Name: " Sluice Gate Hair ", Note: "By telephone", Fee: 300, Days: 4})
	assert.Equal(t, "Sluice Gate Hair", near.Name)
	for body, says := range map[string]string{
		`{"name":"SLUICE gate hair","feeMinor":0,"days":1,"archived":false}`: "has this name already",
		`{"name":" ","feeMinor":0,"days":1,"archived":false}`:                "name",
		`{"name":"Far","feeMinor":-1,"days":1,"archived":false}`:             "Delivery",
		`{"name":"Far","feeMinor":0,"days":500,"archived":false}`:            "days",
	} {
		res := s.send("POST", "/api/v1/suppliers", anew(body))
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, body)
		assert.Contains(t, string(res.body), says)
	}
	assert.Equal(t, http.StatusNotFound, s.send("GET", "/api/v1/suppliers/"+near.Key+"/list", "").StatusCode)

	// What a plan buys there goes with its fee and comes when it delivers.
	item := somePiece()
	item.Offers = []hair.Offer{{Packs: 1, Price: 900, Supplier: near.Key}}
	var put itemDocument
	s.send("POST", "/api/v1/items", anew(text(t, ItemDraft{Item: item}))).json(t, &put)
	in := plan.Default()
	in.Pieces = []hair.Piece{put.Item.Piece(in.Pieces[0].Key, put.ID, "")}
	in.Day = &plan.Day{Install: "2027-05-20"}
	made := s.newPlan("From the sluice", in)
	var orders []orderDocument
	s.send("POST", "/api/v1/plans/"+made.ID+"/orders", "").json(t, &orders)
	require.Len(t, orders, 1)
	assert.Equal(t, near.Key, orders[0].Supplier)
	assert.EqualValues(t, 300, orders[0].Fee)
	var placed orderDocument
	s.send("POST", "/api/v1/orders/"+orders[0].ID+"/place", `{"on":"2027-05-01"}`).json(t, &placed)
	assert.Equal(t, "2027-05-05", placed.Due)

	// Named, it is archived; unnamed, it is gone. A version that is old is refused.
	var gone itemGone
	s.send("DELETE", "/api/v1/suppliers/"+near.Key, "").json(t, &gone)
	assert.True(t, gone.Archived)
	other := s.supplier(SupplierDraft{Name: "The chandler"})
	s.send("DELETE", "/api/v1/suppliers/"+other.Key, "").json(t, &gone)
	assert.False(t, gone.Archived)
	draft := text(t, SupplierDraft{Name: "Sluice Gate Hair and Thread", Fee: 300, Days: 5})
	assert.Equal(t, http.StatusPreconditionFailed, s.send("PUT", "/api/v1/suppliers/"+near.Key, draft, "If-Match", `"1"`).StatusCode)
	assert.Equal(t, http.StatusOK, s.send("PUT", "/api/v1/suppliers/"+near.Key, draft, "If-Match", `"2"`).StatusCode)
	require.Len(t, list(), 1)
	assert.Equal(t, "Sluice Gate Hair and Thread", list()[0].Name)

	// The simulated ones come by choice, as often as they are asked for, and are known as such.
	for range 2 {
		require.Equal(t, http.StatusOK, s.send("POST", "/api/v1/suppliers/practice", "").StatusCode)
	}
	assert.Len(t, list(), 1+len(standin.Suppliers))
	for _, p := range list() {
		assert.Equal(t, p.Key != near.Key, p.Practice)
	}
	for n := len(list()); n < supply.MaxSellers; n++ {
		s.supplier(SupplierDraft{Name: fmt.Sprint("Stall ", n)})
	}
	res := s.send("POST", "/api/v1/suppliers", anew(text(t, SupplierDraft{Name: "One more"})))
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, string(res.body), "archive one first")
}

// From the stash and the suppliers to the head: a plan holds what lies there, buys the rest, is prepared, and its
// order arrives a piece short.
func TestAPlanIsSupplied(t *testing.T) {
	t.Parallel()
	s := open(t)
	item := s.adopt("D-18")
	assert.Equal(t, 5, len(item.Depths))
	lot := anew(text(t, map[string]any{
		"item": item.ID, "lot": supply.Lot{Colour: "Peat", Pack: 20, Condition: supply.New}, "packs": 2, "loose": 13,
	}))
	res := s.send("POST", "/api/v1/stash", lot)
	require.Equal(t, http.StatusCreated, res.StatusCode, string(res.body))
	assert.Equal(t, http.StatusCreated, s.send("POST", "/api/v1/stash", lot).StatusCode, "repeated")
	var stash pageOf[lotDocument]
	s.send("GET", "/api/v1/stash?search=peat%20driftline", "").json(t, &stash)
	require.Len(t, stash.Items, 1)
	assert.Equal(t, 53, stash.Items[0].Pieces)

	in := plan.Default()
	piece := item.Item.Piece("p1", item.ID, "Peat")
	in.Pieces, in.Day = []hair.Piece{piece}, &plan.Day{Install: "2027-03-20"}
	made := s.newPlan("The cellist", in)
	shopping := func(method, path, body string) (shop studio.Shopping) {
		t.Helper()
		res := s.send(method, path, body)
		require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
		res.json(t, &shop)
		return shop
	}
	shop := shopping("POST", "/api/v1/shopping?plan="+made.ID, text(t, in))
	need := shop.Need.Pieces[0]
	all := need.OnHead + need.Fill + need.Spares
	assert.Equal(t, 53, shop.Lines[0].Stash)
	assert.Equal(t, (all-53+19)/20, shop.Lines[0].Order.Packs)
	assert.False(t, shop.Holds)
	assert.Equal(t, "2027-03-19", shop.RinseOn)
	assert.Equal(t, "2027-03-19", shop.HomeBy)
	require.Len(t, shop.Orders, 1)
	assert.Equal(t, "2027-03-17", shop.Orders[0].OrderBy, "two days on its way")
	assert.True(t, shopping("PUT", "/api/v1/plans/"+made.ID+"/hold", `{"holds":true}`).Holds)

	// Another plan is promised none of it.
	other := s.newPlan("The baker", in)
	theirs := shopping("PUT", "/api/v1/plans/"+other.ID+"/hold", `{"holds":true}`)
	assert.Zero(t, theirs.Lines[0].Stash)
	assert.Equal(t, 53, theirs.Lines[0].Elsewhere)

	// The order, its arrival a piece short, and the rest of the need is there.
	var orders []orderDocument
	s.send("POST", "/api/v1/plans/"+made.ID+"/orders", "").json(t, &orders)
	s.send("POST", "/api/v1/plans/"+made.ID+"/orders", "").json(t, &orders)
	require.Len(t, orders, 1, "put on the list again it replaces what was there")
	order := orders[0]
	var placed orderDocument
	s.send("POST", "/api/v1/orders/"+order.ID+"/place", `{"on":"2027-03-10"}`).json(t, &placed)
	assert.Equal(t, "2027-03-12", placed.Due)
	shop = shopping("POST", "/api/v1/shopping?plan="+made.ID, text(t, in))
	assert.Empty(t, shop.Orders, "what is on its way is not bought once more")
	assert.GreaterOrEqual(t, shop.Lines[0].Coming, all-53)
	came := []map[string]any{}
	packs := 0
	for _, l := range order.Lines {
		n := l.Count * l.Offer.Packs
		packs += n
		came = append(came, map[string]any{"packs": n, "pieces": n*20 - 1, "checked": "counted"})
	}
	res = s.send("POST", "/api/v1/orders/"+order.ID+"/arrival", text(t, map[string]any{"on": "2027-03-12", "lines": came}))
	require.Equal(t, http.StatusOK, res.StatusCode, string(res.body))
	shop = shopping("POST", "/api/v1/shopping?plan="+made.ID, text(t, in))
	assert.Equal(t, min(all, 53+packs*20-len(came)), shop.Lines[0].Stash, "held as it came")
	theirs = shopping("POST", "/api/v1/shopping?plan="+other.ID, text(t, in))
	assert.Equal(t, 53+packs*20-len(came)-shop.Lines[0].Stash, theirs.Lines[0].Stash, "what is over is free")
	var suppliers []studio.Supplier
	s.send("GET", "/api/v1/suppliers", "").json(t, &suppliers)
	near := suppliers[slices.IndexFunc(suppliers, func(p studio.Supplier) bool { return p.Key == standin.Chandlery })]
	require.NotNil(t, near.Came)
	assert.Equal(t, len(came), near.Came.Missing)
	assert.Equal(t, packs, near.Came.Packs)

	// Ticked off, and kept.
	assert.Equal(t, http.StatusNoContent, s.send("PUT", "/api/v1/plans/"+made.ID+"/prepared/rinse", `{"done":1}`).StatusCode)
	assert.Equal(t, http.StatusNoContent, s.send("PUT", "/api/v1/plans/"+made.ID+"/prepared/cut%3Ap1", `{"done":7}`).StatusCode)
	shop = shopping("POST", "/api/v1/shopping?plan="+made.ID, text(t, in))
	require.Len(t, shop.Prepared, 2)
	assert.Equal(t, "cut:p1", shop.Prepared[0].Task, "as it was meant")
	assert.Equal(t, 1, shop.Prepared[1].Done)
	assert.Equal(t, 404, s.send("PUT", "/api/v1/plans/"+uuid.NewString()+"/prepared/rinse", `{"done":1}`).StatusCode)

	list := s.send("GET", "/api/v1/plans/"+made.ID+"/shopping.csv", "")
	assert.Contains(t, string(list.body), "Rinse the new hair")
	paper := s.send("GET", "/api/v1/plans/"+made.ID+"/shopping.pdf?paper=a4&unit=cm", "")
	require.Equal(t, 200, paper.StatusCode)
	assert.True(t, strings.HasPrefix(string(paper.body), "%PDF"))

	// Thick against thin, side by side.
	thin := s.adopt("S-14")
	var sides []studio.Alternative
	s.send("POST", "/api/v1/alternatives", text(t, map[string]any{
		"plan": made.ID, "input": in, "others": []studio.Instead{{Item: thin.ID, Colour: "Tar"}},
	})).json(t, &sides)
	require.Len(t, sides, 2)
	assert.Less(t, sides[1].Weight, sides[0].Weight)
	assert.Equal(t, "Tar", sides[1].Colour)
}

func TestBadSuppliesSayWhatIsWrongWhere(t *testing.T) {
	t.Parallel()
	s := open(t)
	item := s.adopt("D-18")
	refused := func(method, path, body, at, words string) {
		t.Helper()
		res := s.send(method, path, body)
		require.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, string(res.body))
		assert.Contains(t, string(res.body), at)
		assert.Contains(t, string(res.body), words)
	}
	spoilt := func(spoil func(*supply.Item)) string {
		bad := item.Item
		spoil(&bad)
		return anew(text(t, ItemDraft{Item: bad}))
	}
	refused("POST", "/api/v1/items", spoilt(func(i *supply.Item) { i.Pack.Units = 0 }), "body.item.pack.units", "between 1 and 5000")
	refused("POST", "/api/v1/items", spoilt(func(i *supply.Item) { i.Currency = "EUR" }), "body.item.currency", "your studio counts in USD")
	refused("POST", "/api/v1/stash", anew(text(t, map[string]any{
		"item": item.ID, "lot": supply.Lot{Colour: "Green", Pack: 20, Condition: supply.New}, "packs": 1, "loose": 0,
	})), "body.lot.colour", "does not come in")
	made := s.send("POST", "/api/v1/stash", anew(text(t, map[string]any{
		"item": item.ID, "lot": supply.Lot{Colour: "Tar", Pack: 20, Condition: supply.New}, "packs": 1, "loose": 0,
	})))
	var lot lotDocument
	made.json(t, &lot)
	move := func(kind string, packs, loose int, reason string) string {
		return anew(text(t, map[string]any{"kind": kind, "packs": packs, "loose": loose, "reason": reason}))
	}
	refused("POST", "/api/v1/stash/"+lot.ID+"/moves", move("used", 0, 21, ""), "body.loose", "more than there is")
	refused("POST", "/api/v1/stash/"+lot.ID+"/moves", move("adjusted", 0, -1, ""), "body.reason", "Say why")
	assert.Equal(t, 200, s.send("POST", "/api/v1/stash/"+lot.ID+"/moves", move("used", 0, 21, "one lay in a drawer")).StatusCode)
	var gone itemGone
	s.send("DELETE", "/api/v1/items/"+item.ID, "").json(t, &gone)
	assert.True(t, gone.Archived)
	assert.Equal(t, 404, s.send("GET", "/api/v1/suppliers/nobody/list", "").StatusCode)
	assert.Equal(t, 404, s.send("POST", "/api/v1/orders/none/place", `{"on":"2027-03-10"}`).StatusCode)
	// Prices in another currency are not taken over.
	s.send("PUT", "/api/v1/house", `{"schema":1,"currency":"EUR"}`, "If-Match", `"1"`)
	refused("POST", "/api/v1/suppliers/prices", `{"save":true}`, "currency", "USD")
}

// told are the lines of the answer to a table being read in.
func (s tester) readTable(table, csv string, save bool) (steps int, said studio.Imported) {
	s.t.Helper()
	res := s.send("POST", fmt.Sprintf("/api/v1/tables/%s?save=%v", table, save), csv, "Content-Type", "text/csv")
	require.Equal(s.t, http.StatusOK, res.StatusCode, string(res.body))
	for line := range strings.Lines(string(res.body)) {
		var news readingIn
		require.NoError(s.t, json.Unmarshal([]byte(line), &news))
		require.Empty(s.t, news.Trouble)
		if news.Says != nil {
			said = *news.Says
		} else {
			steps++
		}
	}
	return steps, said
}

// Tables are looked at first, read in as a whole or not at all, and come out as they went in.
func TestTablesAreReadInAsAWhole(t *testing.T) {
	t.Parallel()
	s := open(t)
	const two = "Name;Kind;Length (in);Thickness (mm);Weight of one (g);In a pack;Colours;Price\r\n" +
		"Driftline 18;Soft loc;18;9;4,2;20;Tar #1b1714;12,50\r\nDriftline 24;Soft loc;24;9;5,4;20;Tar;14,50\r\n"
	_, said := s.readTable("pieces", two, false)
	assert.Equal(t, 2, said.New)
	assert.False(t, said.Saved)
	var items pageOf[itemDocument]
	s.send("GET", "/api/v1/items", "").json(t, &items)
	assert.Empty(t, items.Items, "only looked at")

	_, said = s.readTable("pieces", strings.Replace(two, ";20;Tar;", ";0;Tar;", 1), true)
	require.Equal(t, 1, said.Wrong)
	assert.Equal(t, 3, said.Errors[0].Line)
	assert.Equal(t, "In a pack", said.Errors[0].Column)
	s.send("GET", "/api/v1/items", "").json(t, &items)
	assert.Empty(t, items.Items, "with one line wrong nothing is done")

	_, said = s.readTable("pieces", two, true)
	assert.True(t, said.Saved)
	_, said = s.readTable("pieces", strings.Replace(two, "14,50", "15,00", 1), true)
	assert.Equal(t, 1, said.Changed)
	assert.Equal(t, 1, said.Same)
	require.Len(t, said.Rows, 1)
	assert.Equal(t, "Price", said.Rows[0].Says)

	_, said = s.readTable("stash", "Piece,Colour,Shut packs,Loose\nDriftline 18,Tar,3,7\n", true)
	assert.Equal(t, 1, said.New)
	for _, table := range []string{"pieces", "stash"} {
		out := s.send("GET", "/api/v1/tables/"+table, "")
		require.Equal(t, 200, out.StatusCode)
		_, said = s.readTable(table, string(out.body), true)
		assert.Zero(t, said.New+said.Changed+said.Wrong, "%s: %+v", table, said)
		assert.Positive(t, said.Same)
	}
	_, said = s.readTable("stash", "Piece,Loose\nNobody's,3\n", true)
	assert.Contains(t, said.Errors[0].Message, "no piece")
	_, said = s.readTable("orders", "Supplier,Piece,How many,Price\nThe chandler,Driftline 18,3,12.50\n,Unknown,1,2\n", false)
	require.Equal(t, 2, said.Wrong)
	assert.Contains(t, said.Errors[1].Message, `no supplier "The chandler"`)
	assert.Contains(t, said.Errors[0].Message, "what a pack of it holds")
	chandler := s.supplier(SupplierDraft{Name: "The Chandler", Days: 3})
	_, said = s.readTable("orders", "Supplier,Piece,How many,Price\nthe chandler,Driftline 18,3,12.50\n", true)
	assert.True(t, said.Saved)
	var orders []orderDocument
	s.send("GET", "/api/v1/orders", "").json(t, &orders)
	require.Len(t, orders, 1)
	assert.EqualValues(t, 3750, orders[0].Goods)
	assert.Equal(t, chandler.Key, orders[0].Supplier)
	table := s.send("GET", "/api/v1/tables/orders", "")
	assert.Contains(t, string(table.body), "The Chandler", "a table names a supplier as people do")
}

// A long table tells how far it has come; given up half-way it leaves nothing.
func TestALongTableCanBeStopped(t *testing.T) {
	s := open(t)
	var b strings.Builder
	b.WriteString("Name,Kind,Length (mm),Thickness (mm),Weight of one (g),In a pack\n")
	for n := range 12_000 {
		fmt.Fprintf(&b, "Line %d,soft-loc,450,9,4.2,20\n", n)
	}
	ctx, stop := context.WithTimeout(t.Context(), time.Minute)
	req, err := http.NewRequestWithContext(ctx, "POST", s.url+"/api/v1/tables/pieces?save=true", strings.NewReader(b.String()))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "text/csv")
	req.Header.Set("Sec-Fetch-Site", "same-origin")
	res, err := s.client.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	lines := bufio.NewScanner(res.Body)
	require.True(t, lines.Scan())
	var first readingIn
	require.NoError(t, json.Unmarshal(lines.Bytes(), &first))
	assert.Equal(t, 1000, first.Done)
	assert.Equal(t, 12_001, first.Of)
	stop()
	var items pageOf[itemDocument]
	require.Eventually(t, func() bool {
		return s.send("POST", "/api/v1/items", anew(text(t, ItemDraft{Item: somePiece()}))).StatusCode == http.StatusCreated
	}, 30*time.Second, 50*time.Millisecond)
	s.send("GET", "/api/v1/items", "").json(t, &items)
	assert.Len(t, items.Items, 1, "nothing of the table")

	steps, said := s.readTable("pieces", b.String(), true)
	assert.True(t, said.Saved)
	assert.Equal(t, 12_000, said.New)
	assert.Equal(t, 24, steps, "read, then written")
}

func somePiece() supply.Item {
	return supply.Item{
		Schema: supply.ItemSchema, Kind: "soft-loc", Name: "By hand", Length: 450, Thickness: 9, Mass: 4.2, Fibre: supply.Synthetic, Currency: "USD",
		Pack: hair.Pack{Units: 20, Cuts: 1, Splits: 1}, Colours: []supply.Colour{}, Offers: []hair.Offer{}, Articles: []supply.Article{},
	}
}

// A price that moved since it was put on file is told with what it was, and taken over only when
// that is wished; a plan keeps the price it was made with.
func TestPricesAreRefreshedWithWhatChanged(t *testing.T) {
	t.Parallel()
	s := open(t)
	item := s.adopt("D-18")
	old := item.Item
	old.Offers = append([]hair.Offer{}, old.Offers...)
	old.Offers[0].Price += 150
	old.Offers = append(old.Offers, hair.Offer{Packs: 1, Price: 999})
	saved := s.send("PUT", "/api/v1/items/"+item.ID, text(t, ItemDraft{Item: old}), "If-Match", `"1"`)
	require.Equal(t, 200, saved.StatusCode, string(saved.body))
	in := plan.Default()
	in.Pieces = []hair.Piece{old.Piece("p1", item.ID, "Tar")}
	made := s.newPlan("Made before", in)
	var changes []studio.PriceChange
	s.send("POST", "/api/v1/suppliers/prices", `{"save":false}`).json(t, &changes)
	require.Len(t, changes, 1)
	assert.Equal(t, studio.PriceChange{
		Item: item.ID, Name: old.Name, Supplier: standin.Chandlery, Packs: 1, Was: old.Offers[0].Price, Is: item.Item.Offers[0].Price,
	}, changes[0])
	s.send("POST", "/api/v1/suppliers/prices", `{"save":true}`).json(t, &changes)
	assert.Len(t, changes, 1)
	s.send("POST", "/api/v1/suppliers/prices", `{"save":false}`).json(t, &changes)
	assert.Empty(t, changes)
	var now itemDocument
	s.send("GET", "/api/v1/items/"+item.ID, "").json(t, &now)
	assert.Len(t, now.Item.Offers, 3)
	assert.Contains(t, now.Item.Offers, hair.Offer{Packs: 1, Price: 999}, "the shop's own price stays")
	var doc planDocument
	s.send("GET", "/api/v1/plans/"+made.ID, "").json(t, &doc)
	assert.Equal(t, old.Offers, doc.Input.Pieces[0].Offers)
	// The cheaper of both buys it: the shop asks for no delivery.
	var shop studio.Shopping
	s.send("POST", "/api/v1/shopping", text(t, in)).json(t, &shop)
	for _, o := range shop.Orders {
		for _, l := range o.Lines {
			assert.Empty(t, l.Offer.Supplier)
		}
	}
	assert.Zero(t, shop.Fees)
}

// The scale, and what an apprentice may do: work with the stash, not change what is on file.
func TestApprenticesWorkWithTheStash(t *testing.T) {
	t.Parallel()
	s := open(t)
	item := s.adopt("S-14")
	var w weighing
	s.send("POST", "/api/v1/scale", text(t, map[string]any{"item": item.Item, "packs": 1})).json(t, &w)
	require.NotEmpty(t, w.Readings)
	assert.InEpsilon(t, w.Bag+30*item.Item.Mass, w.Readings[len(w.Readings)-1], 0.02)
	apprentice := s.as(store.Apprentice)
	lot := anew(text(t, map[string]any{
		"item": item.ID, "lot": supply.Lot{Colour: "Tar", Pack: 30, Round: 1, Condition: supply.Good}, "packs": 0, "loose": 12,
	}))
	require.Equal(t, 201, apprentice.send("POST", "/api/v1/stash", lot).StatusCode)
	var stash pageOf[lotDocument]
	apprentice.send("GET", "/api/v1/stash", "").json(t, &stash)
	require.Len(t, stash.Items, 1)
	var moves []map[string]any
	apprentice.send("GET", "/api/v1/stash/"+stash.Items[0].ID+"/moves", "").json(t, &moves)
	require.Len(t, moves, 1)
	assert.Equal(t, "saved", moves[0]["kind"])
	assert.NotEmpty(t, moves[0]["person"])
	for _, forbidden := range [][2]string{
		{"POST", "/api/v1/items"}, {"DELETE", "/api/v1/items/" + item.ID}, {"POST", "/api/v1/suppliers/prices"}, {"POST", "/api/v1/tables/stash"}, {"DELETE", "/api/v1/orders/x"},
	} {
		assert.Equal(t, 403, apprentice.send(forbidden[0], forbidden[1], "{}").StatusCode, forbidden[1])
	}
}

// Wrapping hair and small things come out of the stash like pieces, and a preview says where accents are.
func TestWrappingHairAndCuffsOutOfTheStash(t *testing.T) {
	t.Parallel()
	s := open(t)
	wrap, cuffs := s.adopt("MW-24"), s.adopt("TC-12")
	put := func(item itemDocument, colour string, packs, loose int) {
		res := s.send("POST", "/api/v1/stash", anew(text(t, map[string]any{
			"item": item.ID, "lot": supply.Lot{Colour: colour, Pack: item.Item.Pack.Units, Condition: supply.New}, "packs": packs, "loose": loose,
		})))
		require.Equal(t, 201, res.StatusCode, string(res.body))
	}
	put(wrap, "Peat", 1, 31)
	put(cuffs, "Brass", 0, 5)
	in := plan.Default()
	in.Ways = append([]plan.Way{plan.NewWay("w1", "W2")}, in.Ways[1:]...)
	wrapping := wrap.Item.Wrapping(wrap.ID, "Peat")
	// Cut in half: twice as many strands, and the stash counts whole ones.
	wrapping.Cuts, wrapping.Strands, wrapping.StrandLength = 2, 2*wrapping.Strands, wrapping.StrandLength/2
	in.Ways[0].Wrapping = &wrapping
	in.Accents = []plan.Accent{{
		Thing: &plan.Thing{Name: "Cuff", Mass: 0.6, Pack: 12, Price: 450, Item: cuffs.ID, Colour: "Brass"}, Where: plan.Where{Kind: plan.InFront}, Count: 8,
	}}
	var shop studio.Shopping
	res := s.send("POST", "/api/v1/shopping", text(t, in))
	require.Equal(t, 200, res.StatusCode, string(res.body))
	res.json(t, &shop)
	require.Len(t, shop.Wraps, 1)
	assert.Equal(t, 2*(60+31), shop.Wraps[0].Stash)
	rest := shop.Need.Wraps[0].Order.Need - 2*(60+31)
	assert.Equal(t, (rest+119)/120, shop.Wraps[0].Order.Packs, "a pack of sixty gives 120 halves")
	require.Len(t, shop.Things, 1)
	count := shop.Need.Things[0].Count
	assert.Equal(t, 5, shop.Things[0].Stash)
	assert.Equal(t, 1, shop.Things[0].Order.Packs)

	var seen flat.Preview
	s.send("POST", "/api/v1/preview", text(t, in)).json(t, &seen)
	assert.Len(t, seen.Given.Accents, 2*count, "pairs of place and accent")
	for k := 0; k < len(seen.Given.Accents); k += 2 {
		assert.Less(t, seen.Given.Accents[k], len(seen.Given.Pieces))
		assert.Zero(t, seen.Given.Accents[k+1])
	}
}
