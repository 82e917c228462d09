package store

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/minio/minio-go/v7"
	"github.com/minio/minio-go/v7/pkg/credentials"
)

// inBucket keeps each sound as an object, takes/ID, of a server that speaks S3.
type inBucket struct {
	client *minio.Client
	name   string
}

// roleTime is how long a machine is asked for its role: one that has none may not answer.
const roleTime = 5 * time.Second

// tries is how often a server that does not answer is asked: what waits for it is tried
// again by whoever asked.
const tries = 3

// bucketOf is a bucket as a query describes it: its region, the endpoint of a server that
// is not Amazon's, with http:// where it is not to be asked by TLS, and use_path_style=true
// where the server wants the bucket's name in the path. Keys come by the usual AWS_…
// variables, their file, or the machine's role.
func bucketOf(name string, query url.Values) (inBucket, error) {
	for setting := range query {
		if !slices.Contains([]string{"region", "endpoint", "use_path_style", "disable_https"}, setting) {
			return inBucket{}, fmt.Errorf("the bucket %s has a setting %q that is not known; there are region, endpoint, use_path_style and disable_https", name, setting)
		}
	}
	endpoint, plain := strings.CutPrefix(query.Get("endpoint"), "http://")
	endpoint = strings.TrimPrefix(endpoint, "https://")
	if endpoint == "" {
		endpoint = "s3.amazonaws.com"
	}
	lookup := minio.BucketLookupAuto
	if query.Get("use_path_style") == "true" {
		lookup = minio.BucketLookupPath
	}
	client, err := minio.New(endpoint, &minio.Options{
		Creds: credentials.NewChainCredentials([]credentials.Provider{
			&credentials.EnvAWS{}, &credentials.FileAWSCredentials{}, &credentials.IAM{Client: &http.Client{Timeout: roleTime}},
		}),
		Secure:       !plain && query.Get("disable_https") != "true",
		Region:       query.Get("region"),
		BucketLookup: lookup,
		MaxRetries:   tries,
	})
	if err != nil {
		return inBucket{}, fmt.Errorf("the bucket %s cannot be used: %w", name, err)
	}
	return inBucket{client, name}, nil
}

func (b inBucket) answers(ctx context.Context) error {
	is, err := b.client.BucketExists(ctx, b.name)
	if err == nil && !is {
		err = errors.New("it is not there")
	}
	if err != nil {
		return fmt.Errorf("%w; check its name and who may use it", err)
	}
	return nil
}

// prefix is before the name of every sound in a bucket.
const prefix = "takes/"

func key(take uuid.UUID) string { return prefix + take.String() }

// uploadPart is how many bytes of a sound are held while it is sent. Most have fewer, and
// are sent at once.
const uploadPart = 8 << 20

func (b inBucket) put(ctx context.Context, _ pgx.Tx, take uuid.UUID, sound io.Reader) (int64, error) {
	var head bytes.Buffer
	size, err := io.CopyN(&head, sound, uploadPart)
	var from io.Reader = &head
	switch {
	case err == nil:
		from, size = io.MultiReader(from, sound), -1 // how much more will come is not known
	case !errors.Is(err, io.EOF):
		return 0, err
	}
	info, err := b.client.PutObject(ctx, b.name, key(take), from, size, minio.PutObjectOptions{PartSize: uploadPart})
	return info.Size, err
}

func (b inBucket) open(ctx context.Context, take uuid.UUID, _ int64) (Sound, error) {
	object, err := b.client.GetObject(ctx, b.name, key(take), minio.GetObjectOptions{})
	if err == nil {
		_, err = object.Stat() // nothing was asked before
	}
	switch {
	case minio.ToErrorResponse(err).Code == minio.NoSuchKey:
		return nil, ErrNotFound
	case err != nil:
		return nil, fmt.Errorf("the sound cannot be read from its bucket: %w", err)
	}
	return object, nil
}

// drop forgets an object; of one that is not there a server says that it is dropped.
func (b inBucket) drop(ctx context.Context, take uuid.UUID) error {
	return b.client.RemoveObject(ctx, b.name, key(take), minio.RemoveObjectOptions{})
}

func (b inBucket) each(ctx context.Context, tell func(uuid.UUID, time.Time) error) error {
	for object := range b.client.ListObjectsIter(ctx, b.name, minio.ListObjectsOptions{Prefix: prefix}) {
		if object.Err != nil {
			return object.Err
		}
		take, err := uuid.Parse(strings.TrimPrefix(object.Key, prefix))
		if err != nil {
			continue // not ours
		}
		if err := tell(take, object.LastModified); err != nil {
			return err
		}
	}
	return nil
}
