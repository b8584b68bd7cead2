// Package countdown gives tests a context that ends by count: work that looks at its
// context only at its start or its end is found out, without a clock.
package countdown

import (
	"context"
	"sync/atomic"
)

// Context ends once its error was asked for as often as it was told.
type Context struct {
	context.Context
	left atomic.Int64
}

// From is a context that ends after it was asked n times.
func From(n int64) *Context {
	c := &Context{Context: context.Background()}
	c.left.Store(n)
	return c
}

// Err is nil until the count has run out.
func (c *Context) Err() error {
	if c.left.Add(-1) < 0 {
		return context.Canceled
	}
	return nil
}

// Left is how often it may still be asked before it ends; below zero, how often it was
// asked since.
func (c *Context) Left() int64 { return c.left.Load() }
