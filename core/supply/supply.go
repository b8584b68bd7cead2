// Package supply knows the hair and the small things of a studio: what an item is, what lies
// in the stash, how much a head needs, the cheapest way to buy it, and how it is prepared.
// Lengths are mm, masses g, times minutes, money integer minor units of the studio's currency.
package supply
