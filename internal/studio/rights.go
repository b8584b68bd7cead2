package studio

import (
	"kladotex/internal/store"
)

// Right says who may carry out an operation; nobody in it leaves it to those at the door.
type Right []store.Role

// The rights. An apprentice reads everything that keeps a client safe and may work on
// plans, changes no client and deletes nothing. Only an owner deletes a client, manages
// people and sets the house rules.
var (
	Public = Right{}
	All    = Right{store.Owner, store.Stylist, store.Apprentice}
	Crew   = Right{store.Owner, store.Stylist}
	Owners = Right{store.Owner}
)
