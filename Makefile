# make demo   build, load demo data, serve on a loopback port
# make test   core, store, commands, pages in a real browser: of many like things a quarter,
#             another for each state of the files (BREVIUM_SEED=7 for one of one's own)
# make whole  the whole of those random cases that need no browser
# make test-core, make check, make race   the core alone; form, vet, staticcheck; data races
# make load, make soak   a thousand boxes and fifty makers; ten minutes of all that can go wrong
# make mutants  200 slips of the pen, and which of them the tests notice
# make every, make fuzz  200 sizes a style read and found again; 10⁵ made-up recipes and style files
# make bench  the benchmarks, and the table of layouts (SEED=7 for other jobs)
# make sbom, make faults  what it is made of; known faults in that, where they can be looked up
# make assets refresh the front-end packages under web/static/vendor (npm)

export CGO_ENABLED = 0
SEED    ?= 1
export BREVIUM_SEED ?= $(shell printf %d 0x0$$(git rev-parse HEAD^{tree} 2>/dev/null | cut -c1-4))
VERSION := $(shell cat cmd/brevium/version.txt)
BINARY  := bin/brevium

.PHONY: build demo test whole mutants test-core check race load soak random every fuzz bench assets chromium readers screenshots licences sbom faults release

build:
	go build -trimpath -o $(BINARY) ./cmd/brevium

demo: build
	$(BINARY) demo

# Those of the browser take the longest and begin first, six side by side, so that while one waits
# another works. make check vets.
test: chromium readers
	go test -vet=off -ldflags="-s -w" -timeout 20m -parallel 6 ./web ./core/design ./...

# All random cases of the tests that try a quarter of them, and need no browser.
whole:
	BREVIUM_EACH=1 go test -vet=off -ldflags="-s -w" -timeout 20m -run "$$(git grep -l 'sample\.\(Of\|Takes\|Part\)(' -- core draw sketch store tools | xargs sed -n 's/^func \(Test[A-Za-z]*\)(.*/\1/p' | paste -sd'|')" ./core/... ./draw/... ./sketch ./store/... ./tools/...
	BREVIUM_EACH=1 go test -vet=off -ldflags="-s -w" -timeout 20m -run TestOneMoreThanEachLimit ./web

# The core alone: under a minute.
test-core:
	go test ./core/...

# Form, and mistakes a tool can find.
check:
	@unformatted=$$(gofmt -l $$(git ls-files '*.go')); test -z "$$unformatted" || { echo "gofmt: $$unformatted" >&2; exit 1; }
	go vet ./...
	go tool staticcheck ./...

# Data races where memory is shared: what is done at once in a room, and makers at random for a
# few seconds; CI runs it after the tests.
race:
	CGO_ENABLED=1 BREVIUM_RACE=10s go test -race -timeout 5m -run 'Races|WhileWriting|AreExchanged|Shares|Kept|Budget' ./web ./store ./core/batch ./core/layout ./web/page

# How long makers wait with a thousand boxes, printed as a table.
load: build
	go run ./tools/load

# Ten minutes of twenty makers, with kills, a full disk, a locked file and a
# clock set back; as root, for the disk.
soak:
	go run ./tools/soak

# Fifty thousand random designs, each made, drawn, told and printed.
random:
	go run ./tools/random

# Every style found from its blanks, and read back from its steps, at 200 sizes each; a
# hundred thousand numbers tried for a box of somebody else's; everything on every page
# pressed, of which make test presses a tenth on a quarter of the pages.
every: chromium
	BREVIUM_EACH=1 go test -timeout 60m -run 'TestEverythingThatIsOffered|TestEveryPage|TestUnitButtons|TestTwentyMistakes|TestTheSolverStands' ./web ./core/design
	BREVIUM_EACH=33 go test -timeout 60m -run 'TestEveryStyleIsFound|TestPrintedRecipesAreReadBack|TestWhose' ./core/found ./store

# Slips of the pen, one at a time, against the tests of their rooms; a night.
mutants:
	go run ./tools/mutants -named
	go run ./tools/mutants -n 200 -seed $(SEED)

# A hundred thousand inputs that are made up from those of the tests, of all that parses
# a recipe or a style file.
fuzz:
	go test -run XXX -fuzz FuzzRead -fuzztime 100000x ./core/reading
	go test -run XXX -fuzz FuzzRead -fuzztime 100000x ./core/stylefile
	go test -run XXX -fuzz FuzzRead -fuzztime 100000x ./sketch

# The licences of everything linked in; brevium licences prints them.
licences:
	touch cmd/brevium/licences.txt
	go run ./tools/licences

# What the program is made of, as a CycloneDX list; and known faults in that, where the
# list of them can be reached.
sbom: build
	go run ./tools/sbom $(BINARY) > bin/brevium.sbom.json

VULNCHECK := golang.org/x/vuln/cmd/govulncheck@v1.1.4
faults:
	@go run $(VULNCHECK) ./... > /tmp/brevium-faults.txt 2>&1; r=$$?; \
	if grep -q '^Vulnerability #' /tmp/brevium-faults.txt; then cat /tmp/brevium-faults.txt; exit 1; \
	elif [ $$r = 0 ]; then echo "known faults: none"; \
	else echo "known faults: could not check, since the list of them was not reached:"; tail -1 /tmp/brevium-faults.txt; fi

# Binaries for other machines, built twice: the same bytes or no release.
PLATFORMS := linux/amd64 linux/arm64 darwin/amd64 darwin/arm64 windows/amd64
release: licences
	rm -rf dist && mkdir -p dist
	for p in $(PLATFORMS); do \
		os=$${p%/*}; arch=$${p#*/}; out=dist/brevium-$(VERSION)-$$os-$$arch; test $$os != windows || out=$$out.exe; \
		for to in $$out $$out.again; do \
			GOOS=$$os GOARCH=$$arch go build -a -trimpath -buildvcs=false -o $$to ./cmd/brevium || exit 1; \
		done; \
		cmp $$out $$out.again && rm $$out.again || exit 1; \
	done
	cp LICENSE CHANGELOG.md cmd/brevium/licences.txt dist/
	go run ./tools/sbom dist/brevium-$(VERSION)-linux-amd64 > dist/brevium-$(VERSION).sbom.json
	cd dist && sha256sum brevium-* > sha256sums.txt

bench:
	go test -run '^$$' -bench . -benchmem ./...
	go run ./tools/layoutbench -seed $(SEED) -per 2 -seconds 1
	go run ./tools/nestbench -seed $(SEED) -per 2 -seconds 5

# The browser tests drive Debian's own chromium without its window, which takes half the
# work of the one with a window; where that is there and the other cannot be had, it will do.
chromium:
	@command -v chromium-headless-shell >/dev/null || { \
		echo "installing chromium-headless-shell for the browser tests"; \
		(apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium-headless-shell >/dev/null) || command -v chromium >/dev/null || \
		{ echo "chromium could not be installed; the browser tests need it: run 'apt-get install chromium-headless-shell' as root, then make test again" >&2; exit 1; }; }

# The files for other programs are tested with programs that are not ours.
readers:
	@command -v admesh >/dev/null && command -v rsvg-convert >/dev/null && command -v pdftoppm >/dev/null && command -v hp2xx >/dev/null && /usr/bin/python3 -c 'import ezdxf' 2>/dev/null || { \
		echo "installing readers of DXF, HPGL, STL, SVG and PDF for the tests"; \
		(apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq admesh hp2xx librsvg2-bin poppler-utils python3-ezdxf >/dev/null) || \
		{ echo "the readers could not be installed; run 'apt-get install admesh hp2xx librsvg2-bin poppler-utils python3-ezdxf' as root, then make test again" >&2; exit 1; }; }

screenshots: build chromium
	go run ./tools/screenshots

VENDOR := web/static/vendor
PACKAGES := web/assets/node_modules
assets:
	cd web/assets && npm ci --no-audit --no-fund
	rm -rf $(VENDOR) && mkdir -p $(VENDOR) draw/pdf/fonts web/testdata
	$(PACKAGES)/.bin/sass --load-path=$(PACKAGES) --style=compressed --no-source-map --quiet-deps web/assets/bootstrap.scss $(VENDOR)/bootstrap.min.css
	cp $(PACKAGES)/htmx.org/dist/htmx.min.js $(VENDOR)/
	cp $(PACKAGES)/@alpinejs/csp/dist/cdn.min.js $(VENDOR)/alpine-csp.min.js
	cp $(PACKAGES)/idiomorph/dist/idiomorph-ext.min.js $(VENDOR)/
	cp $(PACKAGES)/@fontsource-variable/fraunces/files/fraunces-latin-wght-normal.woff2 $(VENDOR)/fraunces.woff2
	cp $(PACKAGES)/@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2 $(VENDOR)/source-sans-3.woff2
	$(PACKAGES)/.bin/esbuild $(PACKAGES)/three/build/three.module.js --bundle --minify --format=esm --outfile=$(VENDOR)/three.module.min.js
	cp $(PACKAGES)/@expo-google-fonts/source-sans-3/400Regular/SourceSans3_400Regular.ttf draw/pdf/fonts/regular.ttf
	cp $(PACKAGES)/@expo-google-fonts/source-sans-3/600SemiBold/SourceSans3_600SemiBold.ttf draw/pdf/fonts/semibold.ttf
	cp $(PACKAGES)/@expo-google-fonts/source-sans-3/LICENSE_FONT draw/pdf/fonts/LICENSE-house.txt
	cp $(PACKAGES)/axe-core/axe.min.js web/testdata/
	cp $(PACKAGES)/axe-core/LICENSE web/testdata/LICENSE-axe-core.txt
	for p in bootstrap htmx.org idiomorph @fontsource-variable/fraunces @fontsource-variable/source-sans-3 three; do \
		cp $(PACKAGES)/$$p/LICENSE $(VENDOR)/LICENSE-$$(basename $$p).txt; done
	cp web/assets/LICENSE-alpine.txt $(VENDOR)/LICENSE-alpine.txt
