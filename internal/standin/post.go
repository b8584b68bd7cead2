package standin

import (
	"context"
	"errors"
	"strings"
)

// Post is the simulated outbox: it takes any message that says to whom it goes and what. Nothing
// leaves this machine.
func Post(ctx context.Context, to, subject, body string) error {
	if err := ctx.Err(); err != nil {
		return err
	}
	for _, text := range []string{to, subject, body} {
		if strings.TrimSpace(text) == "" {
			return errors.New("the post took no message without a recipient, a subject and words")
		}
	}
	return nil
}
