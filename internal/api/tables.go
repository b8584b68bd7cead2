package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/internal/sheet"
	"kladotex/internal/studio"
)

// maxTable is the most bytes of a table that is read in: fifty thousand lines with room.
const maxTable = 16 << 20

// tableTimeout is how long reading a table in may take.
const tableTimeout = 3 * time.Minute

// TablePath names a table.
type TablePath struct {
	Table studio.Table `path:"table" enum:"pieces,stash,orders"`
}

// readingIn is one line of the answer to a table being read in: how far it has come, and in the last one
// what came of it.
type readingIn struct {
	Done int              `json:"done,omitempty"`
	Of   int              `json:"of,omitempty"`
	Says *studio.Imported `json:"says,omitempty"`
	// Trouble says why it broke off; nothing was changed then.
	Trouble string `json:"trouble,omitempty"`
}

func (s *server) tableOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "exportTable", Method: http.MethodGet, Path: "/api/v1/tables/{table}",
		Summary: "Pieces, stash or orders as a table", Metadata: rights(studio.All), Responses: file("text/csv", "The table"),
	}, func(ctx context.Context, in *TablePath) (*fileOutput, error) {
		table, err := s.studio.ExportTable(ctx, in.Table)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("text/csv; charset=utf-8", string(in.Table)+".csv", table), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "importTable", Method: http.MethodPost, Path: "/api/v1/tables/{table}",
		Summary:  "Read a table in, or say what that would change: lines of JSON tell how far it has come, the last one what came of it. Ended early, nothing is changed",
		Metadata: rights(studio.Crew), MaxBodyBytes: maxTable,
		Responses: linesOf[readingIn](api),
	}, func(ctx context.Context, in *struct {
		TablePath
		Save    bool   `query:"save" doc:"Write it down; left out only what would change is said"`
		RawBody []byte `contentType:"text/csv"`
	}) (*huma.StreamResponse, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		by := person(ctx).Name
		return lines(ctx, tableTimeout, func(ctx context.Context, tell func(readingIn) error) {
			defer end()
			says, err := s.studio.ImportTable(ctx, in.Table, in.RawBody, in.Save, by, func(done, of int) error {
				return tell(readingIn{Done: done, Of: of})
			})
			if err != nil {
				_ = tell(readingIn{Trouble: problem(ctx, err, "").Error()}) // who asked may be gone
				return
			}
			_ = tell(readingIn{Says: &says}) // the same
		}), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "shoppingTable", Method: http.MethodGet, Path: "/api/v1/plans/{id}/shopping.csv",
		Summary: "A plan's shopping and preparation as a table", Metadata: rights(studio.All), Responses: file("text/csv", "The table"),
	}, func(ctx context.Context, in *PlanPath) (*fileOutput, error) {
		title, table, err := s.studio.ShopTable(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("text/csv; charset=utf-8", title+" - shopping.csv", table), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "shoppingSheet", Method: http.MethodGet, Path: "/api/v1/plans/{id}/shopping.pdf",
		Summary: "A plan's shopping and preparation to print and tick off", Metadata: rights(studio.All), Responses: file("application/pdf", "The list"),
	}, func(ctx context.Context, in *struct {
		PlanPath
		Unit  sheet.Unit `query:"unit" default:"in"`
		Paper string     `query:"paper" enum:"letter,a4" default:"letter"`
	}) (*fileOutput, error) {
		title, body, err := s.studio.ShopSheet(ctx, in.ID, in.Unit, in.Paper)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("application/pdf", title+" - shopping.pdf", body), nil
	})
}
