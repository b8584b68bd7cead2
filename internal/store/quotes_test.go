package store

import (
	"errors"
	"path/filepath"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/client"
	"kladotex/core/quote"
)

// quoted is a draft of a quote of a total.
func quoted(total int64) QuoteDraft {
	return QuoteDraft{
		Given:  quote.Letter{Schema: quote.LetterSchema, Title: "The cellist", Currency: "USD", Price: quote.Price{Lines: []quote.Charge{}, Total: total}},
		Record: Record{Input: []byte(`{}`), Places: []byte(`[]`)}, Parted: []byte("<svg/>"), Draped: []byte("<svg></svg>"),
		Paper: func(number int) ([]byte, error) { return []byte{byte(number)}, nil },
	}
}

func TestQuotesAreNumberedAndFrozen(t *testing.T) {
	t.Parallel()
	s, ctx := opened(t, filepath.Join(t.TempDir(), "studio.db")), t.Context()
	first, err := s.GiveQuote(ctx, uuid.NewString(), quoted(100))
	require.NoError(t, err)
	second, err := s.GiveQuote(ctx, uuid.NewString(), quoted(200))
	require.NoError(t, err)
	assert.Equal(t, []int{1, 2}, []int{first.Number, second.Number})
	// The same id again is the quote that is there, whatever is sent with it.
	again, err := s.GiveQuote(ctx, first.ID, quoted(900))
	require.NoError(t, err)
	assert.Equal(t, first, again)
	number, paper, err := s.QuoteFile(ctx, second.ID, QuotePaper)
	require.NoError(t, err)
	assert.Equal(t, 2, number)
	assert.Equal(t, []byte{2}, paper, "the paper bears its number")
	_, parted, err := s.QuoteFile(ctx, second.ID, QuoteParted)
	require.NoError(t, err)
	assert.Equal(t, "<svg/>", string(parted))
	// A paper that cannot be written leaves no quote and takes no number.
	bad := quoted(1)
	bad.Paper = func(int) ([]byte, error) { return nil, errors.New("no paper") }
	_, err = s.GiveQuote(ctx, uuid.NewString(), bad)
	require.ErrorContains(t, err, "no paper")
	third, err := s.GiveQuote(ctx, uuid.NewString(), quoted(300))
	require.NoError(t, err)
	assert.Equal(t, 3, third.Number)

	_, err = s.Quote(ctx, "nothing")
	assert.ErrorIs(t, err, ErrNotFound)
	_, _, err = s.QuoteFile(ctx, "nothing", QuoteDraped)
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestQuotesAreAnswered(t *testing.T) {
	t.Parallel()
	s, ctx := opened(t, filepath.Join(t.TempDir(), "studio.db")), t.Context()
	q, err := s.GiveQuote(ctx, uuid.NewString(), quoted(100))
	require.NoError(t, err)
	assert.True(t, q.Answered.IsZero())
	accepted, err := s.AnswerQuote(ctx, q.ID, quote.Accepted, "Odalys Brandt")
	require.NoError(t, err)
	assert.Equal(t, quote.Accepted, accepted.State)
	assert.False(t, accepted.Answered.IsZero())
	repeated, err := s.AnswerQuote(ctx, q.ID, quote.Accepted, "Tamsin Okoro-Vale")
	require.NoError(t, err)
	assert.Equal(t, accepted, repeated, "said again it is as it was said")
	open, err := s.AnswerQuote(ctx, q.ID, quote.Open, "Tamsin Okoro-Vale")
	require.NoError(t, err)
	assert.True(t, open.Answered.IsZero())
	_, err = s.AnswerQuote(ctx, "nothing", quote.Declined, "")
	assert.ErrorIs(t, err, ErrNotFound)
}

// A quote goes with the client it was for, and is in what is held about them.
func TestQuotesGoWithTheirClient(t *testing.T) {
	t.Parallel()
	s, ctx := opened(t, filepath.Join(t.TempDir(), "studio.db")), t.Context()
	c, err := s.CreateClient(ctx, uuid.NewString(), ClientDraft{Name: "Ysolde Abarinwe", Facts: client.New()})
	require.NoError(t, err)
	d := quoted(100)
	d.ClientID = c.ID
	q, err := s.GiveQuote(ctx, uuid.NewString(), d)
	require.NoError(t, err)
	held, err := s.Dossier(ctx, c.ID)
	require.NoError(t, err)
	require.Len(t, held.Quotes, 1)
	assert.Equal(t, q, held.Quotes[0])
	require.NoError(t, s.DeleteClient(ctx, c.ID))
	_, err = s.Quote(ctx, q.ID)
	assert.ErrorIs(t, err, ErrNotFound)
}
