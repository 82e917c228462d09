package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What go test -json has written, shortened.
const written = `
{"Action":"start","Package":"p"}
{"Action":"run","Package":"p","Test":"TestGood"}
{"Action":"output","Package":"p","Test":"TestGood","Output":"=== RUN   TestGood\n"}
{"Action":"pass","Package":"p","Test":"TestGood/part","Elapsed":0}
{"Action":"pass","Package":"p","Test":"TestGood","Elapsed":0}
{"Action":"output","Package":"p","Test":"TestDisk","Output":"=== RUN   TestDisk\n"}
{"Action":"output","Package":"p","Test":"TestDisk","Output":"    p_test.go:26: only root can make a small disk\n"}
{"Action":"output","Package":"p","Test":"TestDisk","Output":"--- SKIP: TestDisk (0.00s)\n"}
{"Action":"skip","Package":"p","Test":"TestDisk","Elapsed":0}
{"Action":"output","Package":"p","Test":"TestBad","Output":"    p_test.go:9: 1 is not 2\n"}
{"Action":"fail","Package":"p","Test":"TestBad","Elapsed":0.1}
{"Action":"output","Package":"p","Output":"FAIL\n"}
{"Action":"fail","Package":"p","Elapsed":0.2}
{"ImportPath":"q","Action":"build-output","Output":"q.go:3: undefined: x\n"}
{"Action":"pass","Package":"r","Elapsed":1.25}
{"Action":"output","Package":"h","Test":"TestHangs","Output":"panic: test timed out after 40m0s\n"}
{"Action":"fail","Package":"h","Elapsed":2400}`

func TestTestsAreCountedAndFailuresTold(t *testing.T) {
	var told strings.Builder
	c, err := read(strings.NewReader(written), &told)
	require.NoError(t, err)
	assert.Equal(t, count{1, 1, []string{"p TestDisk: only root can make a small disk"}}, c)
	assert.Contains(t, told.String(), "1 is not 2")
	assert.Contains(t, told.String(), "undefined: x")
	assert.Contains(t, told.String(), "ok\tr\t1.2s")
	assert.NotContains(t, told.String(), "RUN   TestGood")
	assert.Contains(t, told.String(), "panic: test timed out", "of a test that never ended")
}

func TestCountsAreAddedUp(t *testing.T) {
	a, b := filepath.Join(t.TempDir(), "a"), filepath.Join(t.TempDir(), "b")
	require.NoError(t, count{2, 0, []string{"z: no"}}.write(a))
	require.NoError(t, count{3, 1, []string{"a: none"}}.write(b))
	web := filepath.Join(t.TempDir(), "web")
	require.NoError(t, os.WriteFile(web, []byte(`{"numTotalTests":4,"numPassedTests":2,"numFailedTests":1,"numPendingTests":1,"testResults":[{"assertionResults":[
		{"status":"passed","fullName":"a number is typed"},{"status":"passed","fullName":"b"},{"status":"failed","fullName":"c"},{"status":"skipped","fullName":"a list keeps"}]}]}`), 0o600))
	var said strings.Builder
	require.NoError(t, printSum(&said, []string{a, b, web}))
	assert.Equal(t, "skipped: a: none\nskipped: web a list keeps: skipped\nskipped: z: no\n7 passed, 2 failed, 3 skipped\n", said.String())
	assert.Error(t, printSum(&said, []string{filepath.Join(t.TempDir(), "none")}), "a part that was not run is no zero")
}
