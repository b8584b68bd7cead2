// Command kladotex plans crocheted locs, twists and braids.
//
//	kladotex serve              open the studio file and serve it
//	kladotex demo               the same with the demo studio furnished
//	kladotex backup FILE        copy the studio, while it is served, to a new file
//	kladotex restore FILE       put a copy in place of the studio, served or not
//	kladotex new                print a plan to start from, as JSON
//	kladotex compute FILE|-     read a plan or an exported file as JSON, print its result
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
	"net/netip"
	"os"
	"os/signal"
	"runtime/debug"
	"syscall"
	"time"
	_ "time/tzdata" // zones of the studio's clock, where a machine has none

	"kladotex/core/invalid"
	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/internal/api"
	"kladotex/internal/demo"
	"kladotex/internal/standin"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

const usage = `usage: kladotex serve|demo [-db FILE] [-addr HOST:PORT] [-host NAME]... [-secure] [-proxy ADDRESS]... [-v]
       kladotex backup [-db FILE] COPY
       kladotex restore [-db FILE] [-unchecked] COPY
       kladotex new
       kladotex compute FILE|-
       kladotex openapi|schema`

// collectAt lets the heap grow to five times what is in use before it is swept: a preview
// makes a megabyte that is gone at once, and the studio's data is small.
const collectAt = 400

func main() {
	debug.SetGCPercent(collectAt)
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
	case "new":
		if len(rest) != 0 {
			return errors.New(usage)
		}
		return begin(out)
	case "backup":
		return backup(ctx, rest, out)
	case "restore":
		return restore(ctx, rest, out)
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

// begin prints a plan to start from, as a file that can be computed or imported.
func begin(out io.Writer) error {
	raw, err := plan.File{Title: "A new plan", Input: plan.Default()}.Encode()
	if err != nil {
		return err
	}
	_, err = out.Write(raw)
	return err
}

// compute prints the result of the plan in the named file, or on in for "-": a plan's
// input by itself, or in an exported file.
func compute(ctx context.Context, name string, in io.Reader, out io.Writer) error {
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return err
		}
		defer f.Close()
		in = f
	}
	input, err := plan.ReadAny(in)
	if err != nil {
		return refused(err)
	}
	res, err := tally.Compute(ctx, input)
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
	text := "this plan cannot be computed:"
	for _, f := range bad {
		text += "\n  " + f.Path + ": " + f.Message
	}
	return errors.New(text)
}

// backup copies the studio file.
func backup(ctx context.Context, args []string, out io.Writer) error {
	flags, file := studioFlags("backup")
	if err := flags.Parse(args); err != nil {
		return err
	}
	if flags.NArg() != 1 {
		return errors.New(usage)
	}
	if _, err := os.Stat(*file); err != nil {
		return fmt.Errorf("no studio to back up: %w", err)
	}
	if err := store.Backup(ctx, *file, flags.Arg(0)); err != nil {
		return err
	}
	fmt.Fprintf(out, "%[1]s is copied to %[2]s. Keep its checksum, %[2]s.sha256, with it.\n", *file, flags.Arg(0))
	return nil
}

// restore puts a copy in place of the studio file.
func restore(ctx context.Context, args []string, out io.Writer) error {
	flags, file := studioFlags("restore")
	unchecked := flags.Bool("unchecked", false, "take a copy that has no checksum beside it")
	if err := flags.Parse(args); err != nil {
		return err
	}
	if flags.NArg() != 1 {
		return errors.New(usage)
	}
	kept, err := store.Restore(ctx, *file, flags.Arg(0), *unchecked)
	if errors.Is(err, store.ErrNoChecksum) {
		return fmt.Errorf("%w; bring %s.sha256 too, or say -unchecked if you trust the copy", err, flags.Arg(0))
	}
	if err != nil {
		return err
	}
	fmt.Fprintf(out, "%s is as %s was; everyone signs in again.\n", *file, flags.Arg(0))
	if kept != "" {
		fmt.Fprintf(out, "What was there before is kept as %s. Delete it once you have seen that all is well.\n", kept)
	}
	return nil
}

// studioFlags are the flags of a command about a studio file.
func studioFlags(command string) (flags *flag.FlagSet, file *string) {
	flags = flag.NewFlagSet("kladotex "+command, flag.ContinueOnError)
	return flags, flags.String("db", "kladotex.db", "the studio `file`")
}

// Edges of the listener.
const (
	headerTimeout = 5 * time.Second
	readTimeout   = 30 * time.Second
	writeTimeout  = 60 * time.Second
	drainTimeout  = 5 * time.Second
)

// cleaning is how often sign-ins that ran out are removed.
const cleaning = time.Hour

// serve serves the studio file until ctx ends.
func serve(ctx context.Context, furnish bool, args []string, out io.Writer) error {
	flags, file := studioFlags("serve")
	addr := flags.String("addr", "127.0.0.1:8467", "`address` to listen on")
	verbose := flags.Bool("v", false, "log every request")
	options := api.Options{Demo: furnish}
	flags.Func("host", "another `name` the studio answers to; may be said several times", func(name string) error {
		options.Hosts = append(options.Hosts, name)
		return nil
	})
	flags.BoolVar(&options.Secure, "secure", false, "behind HTTPS: send cookies over nothing else")
	flags.Func("proxy", "`address` or network of a proxy to believe about where requests come from; may be said several times", func(text string) error {
		proxy, err := network(text)
		options.Proxies = append(options.Proxies, proxy)
		return err
	})
	if err := flags.Parse(args); err != nil {
		return err
	}
	// Every machine around can reach a studio that listens on all addresses; that
	// must be said, not slip in with a forgotten host.
	host, _, err := net.SplitHostPort(*addr)
	if err != nil || host == "" {
		return fmt.Errorf("-addr %s names no host: 127.0.0.1:8467 for this machine alone, or the address others shall reach", *addr)
	}
	options.Hosts = append(options.Hosts, host)
	level := slog.LevelInfo
	if *verbose {
		level = slog.LevelDebug
	}
	log := slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
	slog.SetDefault(log)

	kept, err := store.Open(ctx, *file)
	if err != nil {
		return err
	}
	defer kept.Close()
	if furnish {
		if err := demo.Furnish(ctx, kept); err != nil {
			return err
		}
	}
	handler, err := api.New(ctx, kept, standin.World(), log, options)
	if err != nil {
		return err
	}
	listener, err := (&net.ListenConfig{}).Listen(ctx, "tcp", *addr)
	if err != nil {
		return fmt.Errorf("listening: %w", err)
	}
	server := &http.Server{
		Handler: handler, ErrorLog: slog.NewLogLogger(log.Handler(), slog.LevelWarn),
		ReadHeaderTimeout: headerTimeout, ReadTimeout: readTimeout, WriteTimeout: writeTimeout,
	}
	fmt.Fprintf(out, "Kladotex is open at http://%s/\n", listener.Addr())
	ended := make(chan error, 1)
	go func() { ended <- server.Serve(listener) }()
	// The file is closed once nobody looks into it any more, so that all of it is in one place.
	cleaning, stop := context.WithCancel(ctx)
	cleaned := make(chan struct{})
	go func() {
		defer close(cleaned)
		clean(cleaning, kept)
	}()
	defer func() {
		stop()
		<-cleaned
	}()
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
		drain, cancel := context.WithTimeout(context.WithoutCancel(ctx), drainTimeout)
		defer cancel()
		return server.Shutdown(drain)
	}
}

// clean removes sign-ins that ran out, and what the house rules keep no longer, now and from time to
// time until ctx ends.
func clean(ctx context.Context, file *store.Store) {
	each := time.NewTicker(cleaning)
	defer each.Stop()
	for {
		pictures, notes, err := studio.Keep(ctx, file, time.Now())
		switch {
		case err != nil && ctx.Err() == nil:
			slog.Warn("deleting what is kept no longer", "error", err)
		case pictures+notes > 0:
			slog.Info("deleted what the house rules keep no longer", "pictures", pictures, "notes", notes)
		}
		select {
		case <-ctx.Done():
			return
		case <-each.C:
			if err := file.DropOldSessions(ctx); err != nil && ctx.Err() == nil {
				slog.Warn("removing old sign-ins", "error", err)
			}
		}
	}
}

// network reads an address, which is a network of one, or a network such as
// 192.0.2.0/24.
func network(text string) (netip.Prefix, error) {
	if p, err := netip.ParsePrefix(text); err == nil {
		return p.Masked(), nil
	}
	a, err := netip.ParseAddr(text)
	if err != nil {
		return netip.Prefix{}, fmt.Errorf("%q is no address such as 192.0.2.1, and no network such as 192.0.2.0/24", text)
	}
	return netip.PrefixFrom(a, a.BitLen()), nil
}
