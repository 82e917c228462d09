# Everything Manudrill needs is made from here; 'make help' lists it.

SHELL := /bin/bash
.SHELLFLAGS := -eu -o pipefail -c
.DEFAULT_GOAL := help
BIN := bin/manudrill
HOUSE := bin/manudrill-house
# Gin reads a dozen formats of messages. Without this one, which nobody sends, the program
# is a tenth smaller.
export GOFLAGS := $(strip $(GOFLAGS) -tags=nomsgpack)
# Nothing is written in C, and the program runs wherever it is put.
export CGO_ENABLED := 0
GENERATED := api/api.gen.go web/src/api/schema.d.ts docs/drill.schema.json web/src/api/limits.gen.ts
DEBIAN := postgresql
DEBIAN_CORPUS := fluidsynth fluid-soundfont-gm opus-tools espeak-ng
DEBIAN_TEST := chromium-headless-shell flac libxml2-utils lilypond midicsv poppler-utils python3 $(DEBIAN_CORPUS)
FUZZTIME := 30s
GO_SOURCES := $(shell git ls-files -co --exclude-standard '*.go' '*.sql' go.mod go.sum api/openapi.yaml 2>/dev/null)
DEVICE_SOURCES := $(shell git ls-files -co --exclude-standard 'core/*.go' 'device/*.go' ':!*_test.go' go.mod 2>/dev/null)
WEB_SOURCES := $(shell git ls-files -co --exclude-standard web ':!web/*.go' ':!web/dist' 2>/dev/null)

.PHONY: help
help: ## List what can be made
	@grep -hE '^[a-z][a-z-]*:.*## ' $(MAKEFILE_LIST) | awk -F ':.*## ' '{printf "  make %-14s %s\n", $$1, $$2}'

# The program is compiled and the web interface built side by side, beside what else is
# named.
built = @$(MAKE) --no-print-directory -j3 $(1) compile web/dist/index.html; $(MAKE) --no-print-directory $(BIN) $(HOUSE)

.PHONY: demo
demo: ## Serve the application with an invented studio in it
	$(call built,install-tools)
	@exec $(BIN) demo

.PHONY: serve
serve: ## Serve the application with its own data
	$(call built,install-tools)
	@exec $(BIN) serve

# Half of what is tested waits for something, so that more runs at once than there are
# cores. What takes longest is begun first. Vet is asked once, by lint-go.
# Memory is there for Go's compilers, linters and tests; collecting it less often spares a
# fifth of their time.
.PHONY: test
test: export GOGC := 400
test: install-test-tools fresh ## Run all tests, in the browser too
	$(call built)
	@$(MAKE) --no-print-directory -j2 --keep-going --output-sync=target test-browser test-races test-core test-web lint-go lint-web
	@go run ./cmd/tested -sum bin/browser.tests bin/races.tests bin/core.tests bin/web.tests

.PHONY: build
build: ## Build bin/manudrill and beside it bin/manudrill-house, with the web interface inside
	$(call built)

# say tells what is being done, and when it was begun.
say = @printf '%(%H:%M:%S)T  %s\n' -1

# All that the program is made of but the web interface, which is built meanwhile. Where
# more than a moment is to be compiled, it is told how far that is.
.PHONY: compile
compile:
	@packages=$$(go list -deps ./cmd/manudrill ./cmd/manudrill-house 2>/dev/null); all=$$(wc -w <<<"$$packages"); n=0; \
	GOGC=400 go build -v $$(grep '^manudrill/' <<<"$$packages" | grep -v -e '/cmd/' -e '/web$$') 2>&1 | \
	while read -r line; do case "$$line" in \
		"go: downloading "*) ;; \
		*[!A-Za-z0-9._/-]*) echo "$$line" ;; \
		*) n=$$((n + 1)); if ((n % 80 == 0)); then printf '%(%H:%M:%S)T  Compiling the program: %d of %d packages\n' -1 $$n $$all; fi ;; \
	esac; done

$(BIN): $(GO_SOURCES)
	@go build -ldflags '-s -w' -o $@ ./cmd/manudrill

$(HOUSE): $(GO_SOURCES) web/dist/index.html
	$(say) "Putting the program together"
	@go build -ldflags '-s -w' -o $@ ./cmd/manudrill-house

# The core for the browser, and what runs it there. It is left alone where it comes out
# the same, so that the web interface is not built again.
EAR := web/src/device/ear.wasm
$(EAR): $(DEVICE_SOURCES)
	$(say) "Compiling the core for the browser"
	@mkdir -p $(@D)
	@GOOS=js GOARCH=wasm go build -trimpath -ldflags '-s -w' -o $@.new ./device
	@if cmp -s $@.new $@; then rm $@.new; else mv $@.new $@; cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" $(@D)/; fi

web/dist/index.html: $(WEB_SOURCES) $(EAR) web/node_modules/.package-lock.json
	$(say) "Building the web interface"
	@cd web && npm run --silent build
	@touch $@

web/node_modules/.package-lock.json: web/package.json web/package-lock.json
	$(say) "Fetching what the web interface is built of"
	@cd web && npm ci --no-audit --no-fund --silent
	@touch $@

.PHONY: generate
generate: web/node_modules/.package-lock.json ## Generate Go and TypeScript types and the drill schema from api/openapi.yaml
	go generate ./api
	cd web && npm run --silent generate

# What many do at once is tested with the race detector, which slows it. Computations share
# nothing (core/shared_test.go), and are compiled without.
RACING := ./store ./server/... ./pgcluster
RACE := -race $(foreach p,math manudrill/core/... manudrill/formats/... github.com/mewkiz/flac/...,-gcflags=$(p)=-race=false)
.PHONY: test-core
test-core: ## Go tests of core, formats, commands and the real processes
	@go run ./cmd/tested -to bin/core.tests go test -vet=off -count=1 -timeout 40m $$(go list ./... | grep -v -e '/e2e$$' -e '/store$$' -e '/server' -e '/pgcluster$$')

.PHONY: test-races
test-races: export CGO_ENABLED := 1
test-races: ## Go tests of store and server, with the race detector
	@go run ./cmd/tested -to bin/races.tests go test -vet=off -count=1 -timeout 40m $(RACE) $(RACING)

.PHONY: test-browser
test-browser: web/node_modules/.package-lock.json ## The real interface, driven in Chromium
	@go run ./cmd/tested -to bin/browser.tests go test -vet=off -count=1 -timeout 40m -parallel 4 ./e2e

# What is compared with to know what has changed.
SINCE := $(shell git merge-base HEAD origin/main 2>/dev/null || echo HEAD)
touched = go run ./cmd/touched -since $(SINCE)

.PHONY: check
check: export GOGC := 400
check: install-test-tools ## The tests that a change touches, SINCE=revision; those that take long are left to make test
	$(call built)
	@$(MAKE) --no-print-directory -j2 --keep-going --output-sync=target check-browser check-go check-web

.PHONY: check-go check-browser check-web
check-go:
	@$(touched) packages | xargs -r go test -short
check-browser:
	@$(touched) browser | xargs -r go test -short -parallel 4
check-web: web/node_modules/.package-lock.json
	@cd web && npx vitest run --silent --reporter=dot --passWithNoTests --changed $(SINCE) && npx vue-tsc --noEmit

.PHONY: flaky
flaky: install-test-tools ## The tests that were changed, SINCE=revision, twenty times beside two processes that keep the machine busy
	$(call built)
	@$(touched) tests | while read -r tests; do go run ./cmd/beside go test -count=20 -timeout 120m -parallel 4 $$tests </dev/null; done

.PHONY: test-go
test-go: test-core test-races test-browser ## All Go tests

.PHONY: test-web
test-web: web/node_modules/.package-lock.json ## Tests of the web interface's own code
	@cd web && npx vitest run --reporter=dot --reporter=json --outputFile.json=../bin/web.tests

.PHONY: lint
lint: fresh lint-go lint-web ## Format, vet, lint, types; generated code must be fresh

.PHONY: lint-go
lint-go: web/node_modules/.package-lock.json
	@unformatted=$$(gofmt -l $$(git ls-files '*.go')); test -z "$$unformatted" || { echo "run gofmt on: $$unformatted"; exit 1; }
	go vet ./...
	GOOS=js GOARCH=wasm go vet ./device/...
	GOOS=darwin go vet ./pgcluster ./cmd/manudrill-house # where the private database cannot run, the rest builds
	go tool staticcheck $$(go list ./... | grep -v '/api$$') # api is generated
	go mod tidy -diff

# Nothing may be compiled meanwhile: what is generated is written anew.
.PHONY: fresh
fresh: web/node_modules/.package-lock.json
	@before=$$(sha256sum $(GENERATED)); $(MAKE) --no-print-directory generate >/dev/null; \
	echo "$$before" | sha256sum -c --quiet || { echo "generated code was not fresh; it is now: commit it"; exit 1; }

.PHONY: lint-web
lint-web: web/node_modules/.package-lock.json
	cd web && npm run --silent lint && npx vue-tsc --noEmit

.PHONY: format
format: web/node_modules/.package-lock.json ## Format all code
	gofmt -w $$(git ls-files '*.go')
	cd web && npm run --silent format

.PHONY: bench
bench: ## Benchmarks of the core, and of a preview as the bench asks for it
	go test -run '^$$' -bench . ./core/... ./server

.PHONY: fuzz
fuzz: ## Hostile input for the readers and the listener, FUZZTIME each
	@for target in $$(grep -rl '^func Fuzz' --include=*_test.go . | xargs -n1 dirname | sort -u); do \
		for name in $$(grep -rho '^func Fuzz[A-Za-z]*' $$target/*_test.go | cut -c6-); do \
			echo "$$target $$name"; go test $$target -run '^$$' -fuzz "^$$name\$$" -fuzztime $(FUZZTIME) -fuzzminimizetime 5x || exit 1; \
		done; \
	done

.PHONY: bench-listen
bench-listen: install-bench-tools build ## Listening beside aubio's detectors; TAKES=folder for other takes
	@go run ./cmd/bench-listen $(BIN) $(TAKES)

.PHONY: numbers
numbers: install-corpus-tools ## Which tests notice when a number of the listener is raised by 30 %; those not asked about yet, or AGAIN=1 for all, an hour
	@go run ./cmd/numbers $(if $(AGAIN),-again)

.PHONY: accuracy
accuracy: install-corpus-tools ## How well takes of known truth are heard, by condition; EACH=16 for so many takes of each, HALF=kept for those kept apart, COURSE=midi or sound for what learners do in the middle
	@go run ./cmd/accuracy -half $(or $(HALF),hand) -takes $(or $(EACH),2) $(if $(TAKES),-write $(TAKES)) $(if $(COURSE),-course $(COURSE) -v)

.PHONY: bench-server
bench-server: install-tools ## The server beside the barest handler, and as a studio grows
	@go run ./cmd/bench-server

.PHONY: bench-stand
bench-stand: install-test-tools build ## From the sound of a note to its mark on the stand, in the real browser
	@go test ./e2e -run '^$$' -bench FromSoundToMark -benchtime 5x | grep -E 'Benchmark|FAIL|ok'

.PHONY: bench-kills
bench-kills: install-tools ## Kill the server 30 times and PostgreSQL 10 times, and count what is left
	MANUDRILL_KILLS=30 go test -count=1 -timeout 30m -v -run 'TestKillingTheServer|TestKillingPostgreSQL' ./cmd/manudrill-house | grep -E '^(---|ok|FAIL)|acknowledged'

.PHONY: screenshots
screenshots: ## Take the pictures of docs/screenshots from a running demo
	go run ./e2e/screenshots

.PHONY: install-test-tools
install-test-tools: DEBIAN += $(DEBIAN_TEST)
install-test-tools: install-tools ## Install what the tests need besides: Chromium and readers of sound and music (Debian)

.PHONY: install-bench-tools
install-bench-tools: DEBIAN += aubio-tools
install-bench-tools: install-tools

.PHONY: install-corpus-tools
install-corpus-tools: DEBIAN += $(DEBIAN_CORPUS)
install-corpus-tools: install-tools

.PHONY: install-tools
install-tools: ## Install PostgreSQL where it is missing (Debian)
	@missing=""; for p in $(DEBIAN); do dpkg-query -W -f '$${Status}' $$p 2>/dev/null | grep -q 'ok installed' || missing="$$missing $$p"; done; \
	if [ -n "$$missing" ]; then \
		printf '%(%H:%M:%S)T  Installing%s\n' -1 "$$missing"; \
		if [ "$$(id -u)" = 0 ]; then as=""; else as="sudo"; fi; \
		$$as apt-get update -qq && $$as env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $$missing >/dev/null; \
	fi

.PHONY: clean
clean: ## Remove what was built
	rm -rf bin web/dist/assets web/dist/index.html web/dist/mark.svg web/node_modules
