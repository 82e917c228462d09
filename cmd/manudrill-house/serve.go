package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"os"
	"os/signal"
	"runtime/debug"
	"strings"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"manudrill/demo"
	"manudrill/server"
	"manudrill/server/jobs"
	"manudrill/server/letters"
	"manudrill/server/secret"
	"manudrill/store"
	"manudrill/web"
)

// serveOptions are what serve and demo are told.
type serveOptions struct {
	address   string
	url       string
	hosts     []string
	proxies   []string
	cert, key string
	noWork    bool
	demo      bool
}

func serving(withDemo bool) func(*cobra.Command) {
	return func(cmd *cobra.Command) {
		o := serveOptions{demo: withDemo}
		cmd.Args = cobra.NoArgs
		cmd.RunE = func(cmd *cobra.Command, _ []string) error { return serve(cmd, o) }
		cmd.Flags().StringVar(&o.address, "listen", defaultAddress, "address to serve at")
		cmd.Flags().StringSliceVar(&o.hosts, "host", nil, "name under which it is reached, where that is neither localhost nor an address")
		cmd.Flags().StringVar(&o.url, "url", "", "address under which its people know it, as https://drills.example.org, for links")
		cmd.Flags().StringSliceVar(&o.proxies, "proxy", nil, "address or network of a proxy that is believed about where requests come from, as 10.1.0.0/16")
		cmd.Flags().StringVar(&o.cert, "cert", "", "file with the certificate to serve by TLS, with --key")
		cmd.Flags().StringVar(&o.key, "key", "", "file with the key of the certificate")
		cmd.Flags().BoolVar(&o.noWork, "no-work", false, "measure no takes here; 'manudrill work' does it elsewhere")
	}
}

const defaultAddress = "127.0.0.1:8765"

// serve runs until it is interrupted. A second interrupt ends it at once.
func serve(cmd *cobra.Command, o serveOptions) error {
	ctx, stop := interruptible(cmd.Context())
	defer stop()
	out := cmd.OutOrStdout()
	url, closeDatabase, err := database(ctx, out)
	if err != nil {
		return err
	}
	defer closeDatabase()
	s, err := openStore(ctx, url)
	if err != nil {
		return err
	}
	defer s.Close()
	options, err := o.forServer()
	if err != nil {
		return err
	}
	if o.demo {
		end, err := makeDemo(ctx, out, s, &options)
		if err != nil {
			return fmt.Errorf("the demo cannot be made: %w", err)
		}
		defer end()
	}
	if !o.noWork {
		end := lookAfterWorker(ctx, url)
		defer end()
	}
	handler, err := server.New(s, web.Files(), options)
	if err != nil {
		return err
	}
	return listenAndServe(ctx, out, o, handler, func(address string) error { return invite(ctx, out, s, o, address) })
}

// forServer are the options as the server takes them.
func (o serveOptions) forServer() (server.Options, error) {
	so := server.Options{Hosts: names(o), URL: o.url, Demo: o.demo}
	for _, p := range o.proxies {
		network, err := proxy(p)
		if err != nil {
			return so, err
		}
		so.Proxies = append(so.Proxies, network)
	}
	post, err := postman()
	if err != nil {
		return so, err
	}
	so.Letters = post != nil
	if so.Letters && o.url == "" {
		return so, errors.New("letters have links in them: say by --url under which address Manudrill is known, as https://drills.example.org")
	}
	if (o.cert == "") != (o.key == "") {
		return so, errors.New("serving by TLS takes both --cert and --key")
	}
	return so, nil
}

// proxy reads an address or a network.
func proxy(text string) (netip.Prefix, error) {
	if a, err := netip.ParseAddr(text); err == nil {
		return netip.PrefixFrom(a, a.BitLen()), nil
	}
	network, err := netip.ParsePrefix(text)
	if err != nil {
		return network, fmt.Errorf("--proxy %s is neither an address nor a network, as 10.1.0.0/16", text)
	}
	return network.Masked(), nil
}

// postman sends letters where the environment says by whom; nil where it does not.
func postman() (jobs.Post, error) {
	sender, err := letters.FromEnvironment()
	if err != nil || sender == nil {
		return nil, err
	}
	return sender, nil
}

// invite prints a link to begin a studio where nobody can sign in yet.
func invite(ctx context.Context, out io.Writer, s *store.Store, o serveOptions, address string) error {
	needs, err := s.NeedsOwner(ctx)
	if err != nil || !needs || o.demo {
		return err
	}
	link, err := opening(ctx, s, o.url, address)
	if err != nil {
		return err
	}
	fmt.Fprintf(out, "Nobody can sign in yet. Open this link within a week, once, to name your studio and be its owner:\n  %s\n", link)
	return nil
}

// opening makes a link by which a studio can be begun.
func opening(ctx context.Context, s *store.Store, url, address string) (string, error) {
	token, kept := secret.Token()
	if url == "" {
		url = address
	}
	return strings.TrimSuffix(url, "/") + "/begin#" + token, s.AddOpening(ctx, kept)
}

// names are those under which the server is reached: those it is told, and the one
// it is to listen at.
func names(o serveOptions) []string {
	all := []string{}
	for _, h := range o.hosts {
		all = append(all, strings.ToLower(h))
	}
	if host, _, err := net.SplitHostPort(o.address); err == nil && host != "" {
		all = append(all, strings.ToLower(host))
	}
	if u, err := url.Parse(o.url); err == nil && u.Hostname() != "" {
		all = append(all, strings.ToLower(u.Hostname()))
	}
	return all
}

// interruptible ends its context at the first interrupt. By the time that is seen, the
// second one does what it does to any program.
func interruptible(ctx context.Context) (context.Context, context.CancelFunc) {
	ctx, cancel := context.WithCancel(ctx)
	first := make(chan os.Signal, 1)
	signal.Notify(first, os.Interrupt, syscall.SIGTERM)
	go func() {
		select {
		case <-first:
		case <-ctx.Done():
		}
		signal.Stop(first)
		cancel()
	}()
	return ctx, cancel
}

// makeDemo makes the demo's people at once and what they have played behind, while it is
// served. Its end waits for what is under way.
func makeDemo(ctx context.Context, out io.Writer, s *store.Store, options *server.Options) (end func(), err error) {
	making, err := demo.Begin(ctx, s, demo.Weeks, time.Now())
	if err != nil || making == nil {
		return func() {}, err
	}
	options.DemoMade = making.Progress
	ctx, cancel := context.WithCancel(ctx)
	done := make(chan struct{})
	go func() {
		defer close(done)
		if err := making.Make(ctx); err != nil && ctx.Err() == nil {
			fmt.Fprintf(out, "The demo could not be made to its end; start it once more: %v\n", err)
		}
	}()
	go showProgress(out, making, done)
	return func() { cancel(); <-done }, nil
}

// showProgress prints from time to time how far the demo is.
func showProgress(out io.Writer, making *demo.Making, done <-chan struct{}) {
	ticker := time.NewTicker(10 * time.Second)
	defer ticker.Stop()
	for {
		select {
		case <-done:
			if made, all := making.Progress(); made == all {
				fmt.Fprintf(out, "All %d takes of the demo are there.\n", all)
			}
			return
		case <-ticker.C:
			made, all := making.Progress()
			fmt.Fprintf(out, "Takes of the demo: %d of %d are there.\n", made, all)
		}
	}
}

// Times of a connection, and how long requests that were taken are finished when
// the server is to end.
const (
	headerTime = 10 * time.Second
	idleTime   = 2 * time.Minute
	finishTime = 30 * time.Second
)

func listenAndServe(ctx context.Context, out io.Writer, o serveOptions, handler http.Handler, begun func(address string) error) error {
	listener, err := net.Listen("tcp", o.address)
	if err != nil {
		return fmt.Errorf("cannot serve at %s: %w; choose another with --listen", o.address, err)
	}
	srv := &http.Server{Handler: handler, ReadHeaderTimeout: headerTime, IdleTimeout: idleTime, MaxHeaderBytes: 32 << 10}
	done := make(chan error, 1)
	address := "http://" + listener.Addr().String()
	if o.cert != "" {
		address = "https://" + listener.Addr().String()
		go func() { done <- srv.ServeTLS(listener, o.cert, o.key) }()
	} else {
		go func() { done <- srv.Serve(listener) }()
	}
	fmt.Fprintf(out, "\nManudrill is at %s (stop it with Ctrl+C)\n", address)
	if err := begun(address); err != nil && ctx.Err() == nil { // interrupted, it finishes what it has taken on
		return err
	}
	debug.FreeOSMemory() // what was needed once, to read the contract and the database's history
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	fmt.Fprintln(out, "Finishing what is under way; Ctrl+C again ends at once.")
	ending, cancel := context.WithTimeout(context.WithoutCancel(ctx), finishTime)
	defer cancel()
	if err := srv.Shutdown(ending); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	} else if err != nil {
		slog.Warn("some requests were cut off")
	}
	return nil
}
