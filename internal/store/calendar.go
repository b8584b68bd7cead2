package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"kladotex/internal/calendar"
)

// Booking is a plan on the calendar, as it was booked.
type Booking struct {
	ID       string
	PlanID   string // empty once the plan is deleted
	ClientID string // empty where it was open whose head it is
	Entry    calendar.Booking
	By       string
	At       time.Time
}

// BookingDraft is what is frozen when a plan is booked.
type BookingDraft struct {
	PlanID, ClientID string
	Entry            calendar.Booking
	Record
	By string
}

// Record is what a quote, a booking or an install was worked out from, as it was then: the plan's
// document and who got what, as JSON, and the engine that did it. It never moves under anyone.
type Record struct {
	Input, Places []byte
	Engine        string
}

const bookingColumns = `id, coalesce(plan_id, ''), coalesce(client_id, ''), document, booked_by, booked_at`

func readBooking(row scanner) (b Booking, err error) {
	var document string
	if err = row.Scan(&b.ID, &b.PlanID, &b.ClientID, &document, &b.By, (*stamp)(&b.At)); err != nil {
		return Booking{}, orNotFound(err)
	}
	b.Entry, err = calendar.Decode([]byte(document))
	return b, err
}

// Book puts a plan on the calendar under an id made by who books it, in place of an earlier
// booking of the plan. The same again is the booking that is there; another under its id fails with
// [ErrStale].
func (s *Tx) Book(ctx context.Context, id string, d BookingDraft) (b Booking, err error) {
	err = s.inTx(ctx, func(tx *sql.Tx) error {
		read := func() error {
			b, err = readBooking(tx.QueryRowContext(ctx, `SELECT `+bookingColumns+` FROM booking WHERE id = ?`, id))
			return err
		}
		if err := read(); !errors.Is(err, ErrNotFound) {
			if err != nil {
				return err
			}
			var input string
			err = tx.QueryRowContext(ctx, `SELECT input FROM booking WHERE id = ?`, id).Scan(&input)
			return repeated(b.PlanID == d.PlanID && input == string(d.Input), err)
		}
		if err := notGone(ctx, tx, id); err != nil {
			return err
		}
		document, err := json.Marshal(d.Entry)
		if err != nil {
			return err
		}
		now := stampOf(time.Now())
		if _, err := tx.ExecContext(ctx, `UPDATE booking SET cancelled_at = ? WHERE plan_id = ? AND cancelled_at = ''`, now, d.PlanID); err != nil {
			return err
		}
		first, last := d.Entry.Sittings[0].On, d.Entry.Sittings[len(d.Entry.Sittings)-1].On
		for _, e := range d.Entry.Errands {
			first = min(first, e.On)
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO booking (id, plan_id, client_id, document, input, places, engine, first_on, last_on, booked_by, booked_at)
			VALUES (?, ?, nullif(?, ''), ?, ?, ?, ?, ?, ?, ?, ?)`,
			id, d.PlanID, d.ClientID, string(document), string(d.Input), string(d.Places), d.Engine, first, last, d.By, now)
		if err != nil {
			return err
		}
		return read()
	})
	if err != nil {
		return Booking{}, fmt.Errorf("booking a plan: %w", err)
	}
	return b, nil
}

// CancelBooking takes a booking off the calendar. One that is off it already stays so.
func (s *Tx) CancelBooking(ctx context.Context, id string) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		res, err := tx.ExecContext(ctx, `UPDATE booking SET cancelled_at = coalesce(nullif(cancelled_at, ''), ?) WHERE id = ?`, stampOf(time.Now()), id)
		if err != nil {
			return fmt.Errorf("cancelling booking %s: %w", id, err)
		}
		if n, err := res.RowsAffected(); err != nil || n == 0 {
			return fmt.Errorf("cancelling booking %s: %w", id, errors.Join(ErrNotFound, err))
		}
		return nil
	})
}

// BookingOf is the booking of a plan that stands, or [ErrNotFound].
func (s *Tx) BookingOf(ctx context.Context, plan string) (Booking, error) {
	b, err := readBooking(s.read.QueryRowContext(ctx, `SELECT `+bookingColumns+` FROM booking WHERE plan_id = ? AND cancelled_at = ''`, plan))
	if err != nil {
		return Booking{}, fmt.Errorf("booking of plan %s: %w", plan, err)
	}
	return b, nil
}

// Bookings are those that stand with anything on the days from one up to another, by date.
func (s *Tx) Bookings(ctx context.Context, from, to string) ([]Booking, error) {
	return list(ctx, s.read, "bookings", readBooking, `SELECT `+bookingColumns+` FROM booking
		WHERE cancelled_at = '' AND first_on <= ? AND last_on >= ? ORDER BY first_on, id LIMIT 2000`, to, from)
}

// BusyTime is a time at which a person is busy elsewhere.
type BusyTime struct {
	PersonID string
	Title    string
	Start    time.Time
	End      time.Time
}

// SetBusy puts times at which a person is busy in place of those that were read in before.
func (s *Tx) SetBusy(ctx context.Context, person string, busy []BusyTime) error {
	err := s.inTx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM busy WHERE person_id = ?`, person); err != nil {
			return err
		}
		insert, err := tx.PrepareContext(ctx, `INSERT INTO busy (person_id, title, starts_at, ends_at) VALUES (?, ?, ?, ?)`)
		if err != nil {
			return err
		}
		defer insert.Close()
		for _, b := range busy {
			if _, err := insert.ExecContext(ctx, person, b.Title, stampOf(b.Start), stampOf(b.End)); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return fmt.Errorf("keeping busy times: %w", err)
	}
	return nil
}

// BusyTimes are those that lie between two times in part, in order.
func (s *Tx) BusyTimes(ctx context.Context, from, to time.Time) ([]BusyTime, error) {
	return list(ctx, s.read, "busy times", func(row scanner) (b BusyTime, err error) {
		err = row.Scan(&b.PersonID, &b.Title, (*stamp)(&b.Start), (*stamp)(&b.End))
		return b, err
	}, `SELECT person_id, title, starts_at, ends_at FROM busy WHERE starts_at < ? AND ends_at > ? ORDER BY starts_at, person_id LIMIT 5000`,
		stampOf(to), stampOf(from))
}

// FeedSecret is the secret of a person's address of the calendar; empty while there is none.
func (s *Tx) FeedSecret(ctx context.Context, person string) (secret string, err error) {
	err = s.read.QueryRowContext(ctx, `SELECT secret FROM calendar_feed WHERE person_id = ?`, person).Scan(&secret)
	if err != nil && !errors.Is(err, sql.ErrNoRows) {
		return "", fmt.Errorf("the calendar's address: %w", err)
	}
	return secret, nil
}

// SetFeedSecret gives a person another address of the calendar; the one before leads nowhere from now on.
func (s *Tx) SetFeedSecret(ctx context.Context, person, secret string) error {
	_, err := s.write.ExecContext(ctx, `INSERT INTO calendar_feed (person_id, secret) VALUES (?, ?) ON CONFLICT (person_id) DO UPDATE SET secret = excluded.secret`, person, secret)
	if err != nil {
		return fmt.Errorf("the calendar's address: %w", err)
	}
	return nil
}

// FeedOwner is the person whose address of the calendar has a secret, or [ErrNotFound].
func (s *Tx) FeedOwner(ctx context.Context, secret string) (Person, error) {
	return s.person(ctx, `id = (SELECT person_id FROM calendar_feed WHERE secret = ?)`, secret)
}
