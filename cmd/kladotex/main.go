// Command kladotex plans crocheted locs, twists and braids.
//
//	kladotex serve              open the studio file and serve it
//	kladotex demo               the same with the demo studio furnished
//	kladotex backup FILE        copy the studio, while it is served, to a new file
//	kladotex restore FILE       put a copy in place of the studio, served or not
//	kladotex compute FILE|-     read a plan's input as JSON, print its result
//	kladotex openapi            print the description of the HTTP interface
//	kladotex schema             print the JSON Schema of an exported plan
package main

import (
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"syscall"
	"time"

	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/internal/api"
	"kladotex/internal/demo"
	"kladotex/internal/store"
)

const usage = `usage: kladotex serve|demo [-db FILE] [-addr HOST:PORT]
       kladotex backup|restore [-db FILE] COPY
       kladotex compute FILE|-
       kladotex openapi|schema`

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := run(ctx, os.Args[1:], os.Stdin, os.Stdout); err != nil {
		fmt.Fprintln(os.Stderr, "kladotex:", err)
		stop()
		os.Exit(1)
	}
}

// run carries out one command.
func run(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
	if len(args) == 0 {
		return errors.New(usage)
	}
	switch command, rest := args[0], args[1:]; command {
	case "serve", "demo":
		return serve(ctx, command == "demo", rest, out)
	case "compute":
		if len(rest) != 1 {
			return errors.New(usage)
		}
		return compute(ctx, rest[0], in, out)
	case "backup", "restore":
		return copyStudio(ctx, command, rest, out)
	case "openapi", "schema":
		describe := api.Describe
		if command == "schema" {
			describe = api.FileSchema
		}
		description, err := describe()
		if err != nil {
			return err
		}
		_, err = out.Write(description)
		return err
	default:
		return fmt.Errorf("no command %q\n%s", command, usage)
	}
}

// compute prints the result of the plan in the named file, or on in for "-".
func compute(ctx context.Context, name string, in io.Reader, out io.Writer) error {
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return err
		}
		defer f.Close()
		in = f
	}
	input, err := plan.Decode(in)
	if err != nil {
		return refused(err)
	}
	res, err := plan.Compute(ctx, input)
	if err != nil {
		return refused(err)
	}
	enc := json.NewEncoder(out)
	enc.SetIndent("", " ")
	return enc.Encode(res)
}

// refused puts each refused field on its own line.
func refused(err error) error {
	var bad invalid.Errors
	if !errors.As(err, &bad) {
		return err
	}
	text := "this plan can not be computed:"
	for _, f := range bad {
		text += "\n  " + f.Path + ": " + f.Message
	}
	return errors.New(text)
}

// copyStudio backs the studio file up or restores it.
func copyStudio(ctx context.Context, command string, args []string, out io.Writer) error {
	flags := flag.NewFlagSet("kladotex "+command, flag.ContinueOnError)
	file := flags.String("db", "kladotex.db", "the studio `file`")
	if err := flags.Parse(args); err != nil {
		return err
	}
	if flags.NArg() != 1 {
		return errors.New(usage)
	}
	if _, err := os.Stat(*file); err != nil && command == "backup" {
		return fmt.Errorf("no studio to back up: %w", err)
	}
	studio, err := store.Open(ctx, *file)
	if err != nil {
		return err
	}
	defer studio.Close()
	if command == "backup" {
		if err := studio.Backup(ctx, flags.Arg(0)); err != nil {
			return err
		}
		fmt.Fprintf(out, "%s is copied to %s.\n", *file, flags.Arg(0))
		return nil
	}
	if err := studio.Restore(ctx, flags.Arg(0)); err != nil {
		return err
	}
	fmt.Fprintf(out, "%s is as %s was; everyone signs in again.\n", *file, flags.Arg(0))
	return nil
}

// Edges of the listener.
const (
	headerTimeout = 5 * time.Second
	readTimeout   = 30 * time.Second
	writeTimeout  = 60 * time.Second
	drainTimeout  = 5 * time.Second
)

// serve serves the studio file until ctx ends.
func serve(ctx context.Context, furnish bool, args []string, out io.Writer) error {
	flags := flag.NewFlagSet("kladotex", flag.ContinueOnError)
	file := flags.String("db", "kladotex.db", "the studio `file`")
	addr := flags.String("addr", "127.0.0.1:8467", "`address` to listen on")
	verbose := flags.Bool("v", false, "log every request")
	if err := flags.Parse(args); err != nil {
		return err
	}
	// Every machine around can reach a studio that listens on all addresses; that
	// must be said, not slip in with a forgotten host.
	if host, _, err := net.SplitHostPort(*addr); err != nil || host == "" {
		return fmt.Errorf("-addr %s names no host: 127.0.0.1:8467 for this machine alone, or the address others shall reach", *addr)
	}
	level := slog.LevelInfo
	if *verbose {
		level = slog.LevelDebug
	}
	log := slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
	slog.SetDefault(log)

	studio, err := store.Open(ctx, *file)
	if err != nil {
		return err
	}
	defer studio.Close()
	if furnish {
		if err := demo.Furnish(ctx, studio); err != nil {
			return err
		}
	}
	listener, err := (&net.ListenConfig{}).Listen(ctx, "tcp", *addr)
	if err != nil {
		return fmt.Errorf("listening: %w", err)
	}
	server := &http.Server{
		Handler: api.New(studio, log, api.Options{Demo: furnish}), ErrorLog: slog.NewLogLogger(log.Handler(), slog.LevelWarn),
		ReadHeaderTimeout: headerTimeout, ReadTimeout: readTimeout, WriteTimeout: writeTimeout,
	}
	fmt.Fprintf(out, "Kladotex is open at http://%s/\n", listener.Addr())
	ended := make(chan error, 1)
	go func() { ended <- server.Serve(listener) }()
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
		drain, cancel := context.WithTimeout(context.WithoutCancel(ctx), drainTimeout)
		defer cancel()
		return server.Shutdown(drain)
	}
}
