package export

import (
	"fmt"
	"math"
)

// LogRow is a line of the log: one stage of one install, or one piece of it.
type LogRow struct {
	On, Title, Client, What, Name string
	// Planned and Actual are minutes of a stage, or the number of a piece.
	Unit            string
	Planned, Actual float64
	Tasks           int
	Spoilt, Left    int
	OpenedPacks     int
}

var logColumns = []column[LogRow]{
	{name: "Finished on", get: func(r LogRow) string { return r.On }},
	{name: "Plan", get: func(r LogRow) string { return r.Title }},
	{name: "Client", get: func(r LogRow) string { return r.Client }},
	{name: "What", get: func(r LogRow) string { return r.What }},
	{name: "Name", get: func(r LogRow) string { return r.Name }},
	{name: "Unit", get: func(r LogRow) string { return r.Unit }},
	{name: "Planned", get: func(r LogRow) string { return plain(math.Round(10*r.Planned) / 10) }},
	{name: "Actual", get: func(r LogRow) string { return plain(math.Round(10*r.Actual) / 10) }},
	{name: "Timed", get: func(r LogRow) string { return orNothing(float64(r.Tasks)) }},
	{name: "Spoilt", get: func(r LogRow) string { return fmt.Sprint(r.Spoilt) }},
	{name: "Left over", get: func(r LogRow) string { return fmt.Sprint(r.Left) }},
	{name: "Packs opened", get: func(r LogRow) string { return fmt.Sprint(r.OpenedPacks) }},
}

// WriteLog is the log as a table.
func WriteLog(rows []LogRow) []byte { return write(logColumns, rows) }
