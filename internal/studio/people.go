package studio

import (
	"context"
	"errors"
	"strings"
	"unicode/utf8"

	"kladotex/core/invalid"
	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/internal/password"
	"kladotex/internal/store"
)

// ErrNoMatch is that of a name and a password that do not go together, or of a present
// password that is not the one.
var ErrNoMatch = errors.New("name and password do not go together")

// Claim names the owner of an empty studio.
func (s *Studio) Claim(ctx context.Context, name, secret string) (store.Person, error) {
	// Nothing is hashed for those who come too late.
	switch has, err := s.Store.HasPeople(ctx); {
	case err != nil:
		return store.Person{}, err
	case has:
		return store.Person{}, store.ErrHasOwner
	}
	name, hash, err := newSignIn(ctx, name, secret)
	if err != nil {
		return store.Person{}, err
	}
	return s.Store.AddOwner(ctx, name, hash)
}

// SignIn is the person of a name and a password, or [ErrNoMatch]. It takes as long for a
// name that is not there, so that names cannot be found out.
func (s *Studio) SignIn(ctx context.Context, name, secret string) (store.Person, error) {
	p, err := s.Store.PersonNamed(ctx, name)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return store.Person{}, err
	}
	hash, there := p.Hash, err == nil
	if !there {
		hash = s.nobody
	}
	fits, err := password.Matches(ctx, hash, secret)
	switch {
	case err != nil:
		return store.Person{}, err
	case !fits || !there:
		return store.Person{}, ErrNoMatch
	}
	return p, nil
}

// AddPerson adds a person with a first password.
func (s *Studio) AddPerson(ctx context.Context, name string, role store.Role, secret string) (store.Person, error) {
	name, hash, err := newSignIn(ctx, name, secret)
	if err != nil {
		return store.Person{}, err
	}
	return s.Store.AddPerson(ctx, name, role, hash)
}

// ChangePerson changes a person's name and role, and gives a new password unless it is
// empty; that signs them out everywhere.
func (s *Studio) ChangePerson(ctx context.Context, id, name string, role store.Role, secret string) (store.Person, error) {
	name = strings.TrimSpace(name)
	if name == "" {
		var bad invalid.Errors
		bad.Add("name", "A person needs a name.")
		return store.Person{}, bad
	}
	hash := ""
	if secret != "" {
		var bad invalid.Errors
		if checkSecret(&bad, secret); len(bad) > 0 {
			return store.Person{}, bad
		}
		var err error
		if hash, err = password.Hash(ctx, secret); err != nil {
			return store.Person{}, err
		}
	}
	return s.Store.ChangePerson(ctx, id, name, role, hash)
}

// ErrNotTheirs is that of someone who sets what only the person or an owner does.
var ErrNotTheirs = errors.New("only the person themselves or an owner")

// SetPace says how practised a person is, and how many times as long their own head takes:
// they say it themselves, or an owner does.
func (s *Studio) SetPace(ctx context.Context, by store.Person, id string, hand pace.Hand, ownHead float64) (store.Person, error) {
	if by.ID != id && by.Role != store.Owner {
		return store.Person{}, ErrNotTheirs
	}
	var bad invalid.Errors
	invalid.OneOf(&bad, "hand", "The hand", hand, pace.Hands)
	plan.CheckOwnHead(&bad, "ownHead", ownHead)
	if err := bad.Err(); err != nil {
		return store.Person{}, err
	}
	return s.Store.SetPace(ctx, id, hand, ownHead)
}

// ChangePassword gives a person a new password for their present one, or is
// [ErrNoMatch]; it signs them out everywhere.
func (s *Studio) ChangePassword(ctx context.Context, p store.Person, present, secret string) (store.Person, error) {
	fits, err := password.Matches(ctx, p.Hash, present)
	switch {
	case err != nil:
		return store.Person{}, err
	case !fits:
		return store.Person{}, ErrNoMatch
	}
	var bad invalid.Errors
	if checkSecret(&bad, secret); len(bad) > 0 {
		return store.Person{}, bad
	}
	hash, err := password.Hash(ctx, secret)
	if err != nil {
		return store.Person{}, err
	}
	changed, err := s.Store.ChangePassword(ctx, p.ID, p.Hash, hash)
	if errors.Is(err, store.ErrStale) {
		var bad invalid.Errors
		bad.Add("old", "Your password was changed elsewhere just now: sign in with that one.")
		return store.Person{}, bad
	}
	return changed, err
}

// checkSecret refuses a password that is too short, or nothing but blanks.
func checkSecret(bad *invalid.Errors, secret string) {
	if utf8.RuneCountInString(secret) < password.MinLength || password.Blank(secret) {
		bad.Add("password", "A password needs at least %d letters, not blanks alone; a few words are best.", password.MinLength)
	}
}

// newSignIn checks a new name and password and hashes the password.
func newSignIn(ctx context.Context, name, secret string) (trimmed, hash string, err error) {
	trimmed = strings.TrimSpace(name)
	var bad invalid.Errors
	if trimmed == "" {
		bad.Add("name", "A person needs a name.")
	}
	checkSecret(&bad, secret)
	if err := bad.Err(); err != nil {
		return "", "", err
	}
	hash, err = password.Hash(ctx, secret)
	return trimmed, hash, err
}
