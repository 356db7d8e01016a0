package workspace_test

import (
	"os"
	"testing"

	"brevium/web/webtest"
)

func TestMain(m *testing.M) { os.Exit(webtest.Main(m, func() error { return nil })) }
