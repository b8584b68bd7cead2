package store

import (
	"database/sql/driver"
	"fmt"
	"strings"
	"unicode"

	"golang.org/x/text/cases"
	"golang.org/x/text/runes"
	"golang.org/x/text/transform"
	"golang.org/x/text/unicode/norm"
	"modernc.org/sqlite"
)

// nameKey is what tells two names apart: their letters, of any script, in one case,
// however they were composed.
func nameKey(name string) string {
	return norm.NFC.String(cases.Fold().String(norm.NFKC.String(strings.TrimSpace(name))))
}

// AccountKey is what tells the names of two people apart, whatever the case of their
// letters.
func AccountKey(name string) string { return nameKey(name) }

// searchKey is what a name is found and listed by: its letters in one case and without
// their marks, so that "emile" finds "Émile".
func searchKey(name string) string {
	bare, _, err := transform.String(transform.Chain(norm.NFKD, runes.Remove(runes.In(unicode.Mn))), name)
	if err != nil {
		bare = name
	}
	return norm.NFC.String(cases.Fold().String(strings.TrimSpace(bare)))
}

// The keys as functions of SQL, for migrations.
func init() {
	for name, key := range map[string]func(string) string{"name_key": nameKey, "search_key": searchKey} {
		sqlite.MustRegisterDeterministicScalarFunction(name, 1, func(_ *sqlite.FunctionContext, args []driver.Value) (driver.Value, error) {
			text, ok := args[0].(string)
			if !ok {
				return nil, fmt.Errorf("%s of a %T", name, args[0])
			}
			return key(text), nil
		})
	}
}
