package main

import (
	"context"
	"fmt"

	"github.com/spf13/cobra"

	"manudrill/server"
	"manudrill/server/secret"
	"manudrill/store"
)

func beginningStudio(cmd *cobra.Command) {
	var url string
	cmd.Args = cobra.NoArgs
	cmd.RunE = func(cmd *cobra.Command, _ []string) error {
		return withStore(cmd, func(ctx context.Context, s *store.Store) error {
			link, err := opening(ctx, s, url, "http://"+defaultAddress)
			if err != nil {
				return err
			}
			fmt.Fprintln(cmd.OutOrStdout(), link)
			return nil
		})
	}
	cmd.Flags().StringVar(&url, "url", "", "address under which the server's people know it")
}

func lettingOwnerIn(cmd *cobra.Command) {
	cmd.Args = cobra.MaximumNArgs(1)
	cmd.RunE = func(cmd *cobra.Command, args []string) error {
		studio := ""
		if len(args) > 0 {
			studio = args[0]
		}
		return withStore(cmd, func(ctx context.Context, s *store.Store) error { return letOwnerIn(ctx, cmd, s, studio) })
	}
}

// letOwnerIn gives the owner of a studio a code, which ends their password.
func letOwnerIn(ctx context.Context, cmd *cobra.Command, s *store.Store, studio string) error {
	owner, err := s.OwnerOf(ctx, studio)
	if err != nil {
		return fmt.Errorf("there is no such studio, or several of which none was named: %w", err)
	}
	keeper, err := secret.NewKeeper()
	if err != nil {
		return err
	}
	code, err := server.PutCode(store.Within(ctx, store.Scope{Studio: owner.StudioID}), s, keeper, owner.ID)
	if err != nil {
		return err
	}
	fmt.Fprintf(cmd.OutOrStdout(), "%s of %s comes in by this code, at the door or as /join#code, and chooses another password:\n%s\n", owner.Name, owner.Studio, code)
	return nil
}

// withStore lends the store, also while a server runs on it.
func withStore(cmd *cobra.Command, use func(context.Context, *store.Store) error) error {
	return withDatabase(cmd, func(ctx context.Context, url string) error {
		s, err := store.Open(ctx, url)
		if err != nil {
			return err
		}
		defer s.Close()
		return use(ctx, s)
	})
}
