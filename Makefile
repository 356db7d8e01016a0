# make demo   build, load demo data, serve on a loopback port
# make test   everything: core, store, commands, pages in a real browser
# make bench  the benchmarks, and the table of layouts (SEED=7 for other jobs)
# make assets refresh the front-end packages under web/static/vendor (npm)

export CGO_ENABLED = 0
SEED    ?= 1
VERSION := $(shell git describe --tags --always 2>/dev/null || echo dev)
BINARY  := bin/brevium

.PHONY: build demo test bench assets chromium screenshots

build:
	go build -trimpath -ldflags "-X main.version=$(VERSION)" -o $(BINARY) ./cmd/brevium

demo: build
	$(BINARY) demo

test: chromium
	go vet ./...
	go test ./...

bench:
	go test -run '^$$' -bench . -benchmem ./...
	go run ./tools/layoutbench -seed $(SEED) -per 2 -seconds 1

# The browser tests drive Debian's own chromium.
chromium:
	@command -v chromium >/dev/null || { \
		echo "installing chromium for the browser tests"; \
		(apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null) || \
		{ echo "chromium could not be installed; the browser tests need it: run 'apt-get install chromium' as root, then make test again" >&2; exit 1; }; }

screenshots: build chromium
	go run ./tools/screenshots

VENDOR := web/static/vendor
PACKAGES := web/assets/node_modules
assets:
	cd web/assets && npm ci --no-audit --no-fund
	rm -rf $(VENDOR) && mkdir -p $(VENDOR) draw/pdf/fonts web/testdata
	cp $(PACKAGES)/bootstrap/dist/css/bootstrap.min.css $(VENDOR)/
	cp $(PACKAGES)/htmx.org/dist/htmx.min.js $(VENDOR)/
	cp $(PACKAGES)/@alpinejs/csp/dist/cdn.min.js $(VENDOR)/alpine-csp.min.js
	cp $(PACKAGES)/idiomorph/dist/idiomorph-ext.min.js $(VENDOR)/
	cp $(PACKAGES)/@fontsource-variable/fraunces/files/fraunces-latin-wght-normal.woff2 $(VENDOR)/fraunces.woff2
	cp $(PACKAGES)/@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2 $(VENDOR)/source-sans-3.woff2
	$(PACKAGES)/.bin/esbuild $(PACKAGES)/three/build/three.module.js --bundle --minify --format=esm --outfile=$(VENDOR)/three.module.min.js
	cp $(PACKAGES)/@expo-google-fonts/source-sans-3/400Regular/SourceSans3_400Regular.ttf draw/pdf/fonts/regular.ttf
	cp $(PACKAGES)/@expo-google-fonts/source-sans-3/600SemiBold/SourceSans3_600SemiBold.ttf draw/pdf/fonts/semibold.ttf
	cp $(PACKAGES)/@expo-google-fonts/source-sans-3/LICENSE_FONT draw/pdf/fonts/LICENSE.txt
	cp $(PACKAGES)/axe-core/axe.min.js web/testdata/
	cp $(PACKAGES)/axe-core/LICENSE web/testdata/LICENSE-axe-core.txt
	for p in bootstrap htmx.org idiomorph @fontsource-variable/fraunces @fontsource-variable/source-sans-3 three; do \
		cp $(PACKAGES)/$$p/LICENSE $(VENDOR)/LICENSE-$$(basename $$p).txt; done
	cp web/assets/LICENSE-alpine.txt $(VENDOR)/LICENSE-alpine.txt
