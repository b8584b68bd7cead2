package invalid

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestDaysOfTheCalendar(t *testing.T) {
	for text, fine := range map[string]bool{
		"2026-05-31": true, "2028-02-29": true, "2000-02-29": true, "2026-02-29": false, "1900-02-29": false, "2026-04-31": false, "2026-13-01": false,
		"4.12.2026": false, "2026-5-1": false, "": false,
	} {
		var bad Errors
		bad.Day("on", "The day", text)
		assert.Equal(t, fine, bad.Err() == nil, text)
	}
}
