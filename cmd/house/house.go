// Package house names the commands by which a house is kept. They are a program of their
// own, which lies beside manudrill and is begun by it: whoever measures a recording starts
// nothing of a server, and what they use is built without one.
package house

import "github.com/spf13/cobra"

// Program is the name of the program that has the commands.
const Program = "manudrill-house"

var commands = []struct{ use, short string }{
	{"serve", "Serve the application; data is kept in MANUDRILL_DATA or on the server of DATABASE_URL"},
	{"demo", "Serve the application with an invented studio in it"},
	{"work", "Measure the takes that are handed in to the server of DATABASE_URL, besides those of 'manudrill serve'"},
	{"studio", "Print a link by which another studio can be begun, once; the server may be running"},
	{"owner [STUDIO]", "Print a code by which the owner of a studio comes in who has forgotten the password"},
	{"backup FILE", "Keep all there is, sounds too, in one file; the server may go on meanwhile"},
	{"restore FILE", "Bring back what 'manudrill backup' has kept; no server may be running on the data"},
	{"rollback VERSION", "Take the tables back to a version, for an older Manudrill; no server may be running on the data"},
}

// Commands are all of them by name, with nothing to do yet.
func Commands() map[string]*cobra.Command {
	all := map[string]*cobra.Command{}
	for _, c := range commands {
		cmd := &cobra.Command{Use: c.use, Short: c.short}
		all[cmd.Name()] = cmd
	}
	return all
}
