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

// folder makes a folder of the owner's own, closed to others, where it is missing.
func (o *owner) folder(dir string) error {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return fmt.Errorf("the folder %s cannot be made: %w", dir, err)
	}
	info, err := os.Lstat(dir)
	if err != nil {
		return err
	}
	if !info.IsDir() {
		return fmt.Errorf("%s is no folder; remove it", dir)
	}
	uid, ours := uint32(os.Geteuid()), info.Sys().(*syscall.Stat_t).Uid
	if o.credential != nil {
		uid = o.credential.Uid
		if ours == 0 { // just made
			if err := os.Chown(dir, int(uid), int(o.credential.Gid)); err != nil {
				return err
			}
			ours = uid
		}
	}
	if ours != uid {
		return fmt.Errorf("the folder %s belongs to somebody else; remove it, or set MANUDRILL_DATA to another folder", dir)
	}
	return os.Chmod(dir, 0o700)
}

// command makes a command that runs as the owner, in a folder it may enter, and
// apart from the terminal: what is typed there is for this program.
func (o *owner) command(ctx context.Context, name string, args ...string) *exec.Cmd {
	cmd := exec.CommandContext(ctx, name, args...)
	cmd.Dir = "/"
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: o.credential, Setpgid: true}
	return cmd
}
