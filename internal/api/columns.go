package api

import (
	"io"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/internal/flat"
)

// columnsFirst is huma's JSON, with answers that have columns written by column.
var columnsFirst = huma.Format{
	Marshal: func(w io.Writer, v any) error {
		columns, ok := v.(flat.Columned)
		if !ok {
			return huma.DefaultJSONFormat.Marshal(w, v)
		}
		text, err := flat.Marshal(columns)
		if err != nil {
			return err
		}
		_, err = w.Write(append(text, '\n'))
		return err
	},
	Unmarshal: huma.DefaultJSONFormat.Unmarshal,
}
