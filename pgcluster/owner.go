package pgcluster

import (
	"context"
	"fmt"
	"os"
	"os/exec"
	"os/user"
	"strconv"
	"syscall"
)

// An owner is the user whom the server runs as: PostgreSQL refuses to be root.
type owner struct {
	credential *syscall.Credential // nil: whoever runs this program
}

// serverOwner picks the user postgres, which the Debian package makes, when
// this program runs as root.
func serverOwner() (*owner, error) {
	if os.Geteuid() != 0 {
		return &owner{}, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf("PostgreSQL must not run as root and there is no user postgres; run 'make install-tools': %w", err)
	}
	uid, err := strconv.ParseUint(u.Uid, 10, 32)
	if err != nil {
		return nil, err
	}
	gid, err := strconv.ParseUint(u.Gid, 10, 32)
	if err != nil {
		return nil, err
	}
	return &owner{&syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}}, nil
}

// give makes the owner own a folder.
func (o *owner) give(dir string) error {
	if o.credential == nil {
		return nil
	}
	return os.Chown(dir, int(o.credential.Uid), int(o.credential.Gid))
}

// command makes a command that runs as the owner, in a folder it may enter.
func (o *owner) command(ctx context.Context, name string, args ...string) *exec.Cmd {
	cmd := exec.CommandContext(ctx, name, args...)
	cmd.Dir = "/"
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: o.credential}
	return cmd
}
