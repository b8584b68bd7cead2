package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"kladotex/core/quote"
)

// Quote is a quote as it was given, with what became of it.
type Quote struct {
	ID       string
	Number   int    // counts the studio's quotes, from 1
	PlanID   string // empty once the plan is deleted
	ClientID string // empty where it was open whose head it is
	State    quote.State
	Given    quote.Letter
	At       time.Time
	// Answered and AnsweredBy are when and by whom it was last answered, the zero time while
	// it is open.
	Answered   time.Time
	AnsweredBy string
}

// QuoteDraft is what is frozen when a quote is given.
type QuoteDraft struct {
	PlanID, ClientID string
	Given            quote.Letter
	Record
	// Still tells, in the transaction that writes, whether what it was worked out from still holds; nil
	// for what nothing can change.
	Still func(*Tx) error
	// Parted and Draped are pictures of the head, as SVG; Paper is the PDF, for the number
	// the quote gets.
	Parted, Draped []byte
	Paper          func(number int) ([]byte, error)
}

const quoteColumns = `id, number, coalesce(plan_id, ''), coalesce(client_id, ''), state, document, given_at, nullif(answered_at, ''), answered_by`

func readQuoteRow(row scanner) (q Quote, err error) {
	var document string
	err = row.Scan(&q.ID, &q.Number, &q.PlanID, &q.ClientID, &q.State, &document, (*stamp)(&q.At), (*stamp)(&q.Answered), &q.AnsweredBy)
	if err != nil {
		return Quote{}, orNotFound(err)
	}
	return q, json.Unmarshal([]byte(document), &q.Given)
}

func readQuote(ctx context.Context, q querier, id string) (Quote, error) {
	return readQuoteRow(q.QueryRowContext(ctx, `SELECT `+quoteColumns+` FROM quote WHERE id = ?`, id))
}

// GiveQuote freezes a quote under an id made by who gives it, with the next number: a number is used
// once, whatever became of its quote. The same quote again is the one that is there; another under its
// id fails with [ErrStale]. The paper is made before anything is written, so that nobody waits for it.
func (s *Tx) GiveQuote(ctx context.Context, id string, d QuoteDraft) (q Quote, err error) {
	document, err := json.Marshal(d.Given)
	if err != nil {
		return Quote{}, err
	}
	var paper []byte
	for made, given := 0, false; !given; { // who gives one in between takes the number
		number := 0
		if err := s.read.QueryRowContext(ctx, `SELECT 1 + quotes FROM studio`).Scan(&number); err != nil {
			return Quote{}, fmt.Errorf("giving a quote: %w", err)
		}
		if number != made {
			if paper, err = d.Paper(number); err != nil {
				return Quote{}, fmt.Errorf("giving a quote: %w", err)
			}
			made = number
		}
		err = s.Update(ctx, func(within *Tx) error {
			tx := within.tx
			var input string
			err := tx.QueryRowContext(ctx, `SELECT input FROM quote WHERE id = ?`, id).Scan(&input)
			switch {
			case err == nil:
				given = true
				q, err = readQuote(ctx, tx, id)
				return repeated(q.PlanID == d.PlanID && input == string(d.Input), err)
			case !errors.Is(err, sql.ErrNoRows):
				return err
			}
			if err := notGone(ctx, tx, id); err != nil {
				return err
			}
			if d.Still != nil {
				if err := d.Still(within); err != nil {
					return err
				}
			}
			res, err := tx.ExecContext(ctx, `UPDATE studio SET quotes = ? WHERE quotes = ? - 1`, number, number)
			if err != nil {
				return err
			}
			if n, err := res.RowsAffected(); err != nil || n == 0 {
				return err
			}
			given = true
			_, err = tx.ExecContext(ctx, `INSERT INTO quote (id, number, plan_id, client_id, state, document, input, places, parted, draped, paper, given_at)
				VALUES (?, ?, nullif(?, ''), nullif(?, ''), ?, ?, ?, ?, ?, ?, ?, ?)`,
				id, number, d.PlanID, d.ClientID, quote.Open, string(document), string(d.Input), string(d.Places), d.Parted, d.Draped, paper, stampOf(time.Now()))
			if err != nil {
				return err
			}
			q, err = readQuote(ctx, tx, id)
			return err
		})
		if err != nil {
			return Quote{}, fmt.Errorf("giving a quote: %w", err)
		}
	}
	return q, nil
}

// Quotes lists the quotes of a plan, the latest first.
func (s *Tx) Quotes(ctx context.Context, plan string) ([]Quote, error) {
	return list(ctx, s.read, "quotes", readQuoteRow, `SELECT `+quoteColumns+` FROM quote WHERE plan_id = ? ORDER BY number DESC LIMIT 100`, plan)
}

// Quote reads a quote.
func (s *Tx) Quote(ctx context.Context, id string) (Quote, error) {
	q, err := readQuote(ctx, s.read, id)
	if err != nil {
		return Quote{}, fmt.Errorf("quote %s: %w", id, err)
	}
	return q, nil
}

// QuotePart is a file that was frozen with a quote.
type QuotePart string

// The parts: a column each.
const (
	QuoteParted QuotePart = "parted"
	QuoteDraped QuotePart = "draped"
	QuotePaper  QuotePart = "paper"
)

// QuoteFile reads a file that was frozen with a quote, and its number.
func (s *Tx) QuoteFile(ctx context.Context, id string, part QuotePart) (number int, file []byte, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT number, `+string(part)+` FROM quote WHERE id = ?`, id).Scan(&number, &file)
	if err != nil {
		return 0, nil, fmt.Errorf("%s of quote %s: %w", part, id, orNotFound(err))
	}
	return number, file, nil
}

// AnswerQuote says what became of a quote. The same again changes nothing.
func (s *Tx) AnswerQuote(ctx context.Context, id string, state quote.State, by string) (q Quote, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		if q, err = readQuote(ctx, tx, id); err != nil || q.State == state {
			return err
		}
		at := ""
		if state != quote.Open {
			at = stampOf(time.Now())
		}
		if _, err := tx.ExecContext(ctx, `UPDATE quote SET state = ?, answered_at = ?, answered_by = ? WHERE id = ?`, state, at, by, id); err != nil {
			return err
		}
		q, err = readQuote(ctx, tx, id)
		return err
	})
	if err != nil {
		return Quote{}, fmt.Errorf("answering quote %s: %w", id, err)
	}
	return q, nil
}
