// Package studio holds what people do in a studio: plan a head and save it, keep a
// client's card, let people in, set the house rules. The interface calls it and nothing
// below it.
//
// A use case looks at what it was given, computes, and changes the store in one
// transaction. Its errors name fields as [invalid.Errors], with paths relative to what was
// given, or are those of the store.
package studio

import (
	"context"
	"crypto/rand"
	"time"

	"kladotex/internal/password"
	"kladotex/internal/store"
)

// Studio is one studio over its store.
type Studio struct {
	records
	store *store.Store
	// now is the present, by the machine's clock.
	now func() time.Time
	// nobody is the hash of a password that no one has.
	nobody string
}

// records are what is read, ended or deleted with nothing to look at first.
type records interface {
	Plans(ctx context.Context, clientID string, page store.Page) ([]store.Entry, error)
	Plan(ctx context.Context, id string) (store.Plan, error)
	Version(ctx context.Context, id string, version int) (store.Version, error)
	DeletePlan(ctx context.Context, id string) error
	Clients(ctx context.Context, search string, archived bool, page store.Page) ([]store.ClientEntry, error)
	Client(ctx context.Context, id string) (store.Client, error)
	DeleteClient(ctx context.Context, id string) error
	People(ctx context.Context) ([]store.Person, error)
	Person(ctx context.Context, id string) (store.Person, error)
	RemovePerson(ctx context.Context, id string) error
	EndSessions(ctx context.Context, id string) error
	House(ctx context.Context) (store.House, error)
	Items(ctx context.Context, wish store.ItemWish, page store.Page) ([]store.Item, error)
	Item(ctx context.Context, id string) (store.Item, error)
	DeleteItem(ctx context.Context, id string) (archived bool, err error)
	Stash(ctx context.Context, wish store.StashWish, page store.Page) ([]store.Lot, error)
	StashMoves(ctx context.Context, lot string) ([]store.StashMove, error)
	Move(ctx context.Context, lot string, d store.MoveDraft) (store.Lot, error)
	Purchases(ctx context.Context, plan string) ([]store.Purchase, error)
	DropPurchase(ctx context.Context, id string) error
	Shortfalls(ctx context.Context) ([]store.Shortfall, error)
	Quotes(ctx context.Context, plan string) ([]store.Quote, error)
	Quote(ctx context.Context, id string) (store.Quote, error)
	BookingOf(ctx context.Context, plan string) (store.Booking, error)
	CancelBooking(ctx context.Context, id string) error
	Messages(ctx context.Context, plan string) ([]store.Message, error)
	Install(ctx context.Context, id string) (store.Install, error)
	Frozen(ctx context.Context, id string) (store.Frozen, error)
	Told(ctx context.Context, install string, after int64) (store.Told, error)
	InstallFile(ctx context.Context, id string, paper store.InstallPaper) ([]byte, error)
	Photo(ctx context.Context, install, id string) ([]byte, error)
	DropPhoto(ctx context.Context, install, id string) error
	Log(ctx context.Context, page store.Page) ([]store.Logged, error)
	LogOf(ctx context.Context, id string) (store.Logged, error)
	CareLink(ctx context.Context, install string) (store.CareLink, error)
	DropCareLink(ctx context.Context, install string) error
	DeleteInstall(ctx context.Context, id string) error
	Remains() (store.Remains, error)
	QuoteFile(ctx context.Context, id string, part store.QuotePart) (number int, file []byte, err error)
}

// Open makes a studio of its store. It fails when ctx ends before it is ready.
func Open(ctx context.Context, s *store.Store) (*Studio, error) {
	nobody, err := password.Hash(ctx, rand.Text())
	if err != nil {
		return nil, err
	}
	return &Studio{records: s, store: s, now: time.Now, nobody: nobody}, nil
}
