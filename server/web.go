package server

import (
	"io/fs"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"
)

// serveWeb serves the built web interface. A path that is no file is a place
// inside the interface, which finds its way itself.
func serveWeb(web fs.FS) gin.HandlerFunc {
	files := http.FileServerFS(web)
	return func(c *gin.Context) {
		path := strings.TrimPrefix(c.Request.URL.Path, "/")
		if strings.HasPrefix(path, "api/") {
			tell(c, errMissing)
			return
		}
		if info, err := fs.Stat(web, path); path == "" || err != nil || info.IsDir() {
			c.Request.URL.Path = "/"
			c.Header("Cache-Control", "no-cache")
		} else if strings.HasPrefix(path, "assets/") {
			c.Header("Cache-Control", "public, max-age=31536000, immutable") // names hold a hash
		}
		c.Status(http.StatusOK)
		files.ServeHTTP(c.Writer, c.Request)
	}
}
