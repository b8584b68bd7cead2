# make demo   build, furnish the demo studio and serve it
# make quick  formatting, types, linters and unit tests, random cases sampled: while one works
# make test   everything: the same unsampled, API and browser tests
# make race   the tests of Go code with the race detector
# make bench  the benchmarks of docs/performance.md
# make bars   what takes its time: a thousand random heads held against the card, every total fitted, a hundred
#             studios of hair, fifty kills at the chair, repaints and steps told, the linter's slow rules
# make craft  docs/craft.md, the table of what we believe; make rooms  the picture of the packages
# make words  docs/words.md, every text of the program
# make pictures  the pictures of docs/screenshots, from the demo studio

PORT ?= 8467
# One way to build for program and tests, so that nothing is compiled twice; as the program, the compiler and
# the tests trade memory for time.
export GOFLAGS := $(GOFLAGS) -trimpath
export GOGC := 400
GO_SOURCES := $(shell find core internal cmd web/embed.go -name '*.go' -o -name '*.json')
CHAIR_SOURCES := $(shell find core/chair core/pace core/invalid cmd/chair -name '*.go')
FOLD := web/src/chair/fold
WEB_SOURCES := $(shell find web/src web/sw web/public web/index.html web/package.json web/package-lock.json web/tsconfig.json web/vite.config.ts core/parting/zones.json internal/picture/bust.json -type f)

.PHONY: demo quick test check rules units short pages race bench bars pictures types craft rooms words clean

demo: bin/kladotex
	./bin/kladotex demo -db demo.db -addr 127.0.0.1:$(PORT)

# Go tests and those of the pages do not wait for one another.
quick: check
	$(MAKE) --no-print-directory -j2 short pages

# The rules need no pages: they are tested while those are built.
test:
	$(MAKE) --no-print-directory -j2 check rules
	$(MAKE) --no-print-directory -j2 units pages
	go test -count=1 -timeout 20m -parallel 3 -v ./e2e

check: bin/kladotex web/node_modules/.package-lock.json $(FOLD)/chair.wasm
	sh scripts/test-tools.sh
	test -z "$$(gofmt -l core internal cmd e2e scripts web/*.go)"
	go vet ./...
	cd web && npm run --silent check

rules:
	go test ./core/...

units:
	go test $$(go list ./... | grep -v /e2e)

short:
	go test -short $$(go list ./... | grep -v /e2e)

pages:
	cd web && npm run --silent test

race: bin/kladotex
	go test -race $$(go list ./... | grep -v /e2e)

bench:
	go test -run '^$$' -bench . -benchmem ./core/...

bars: bin/kladotex
	go test -count=1 -v -run 'TestSectionsAreTrueToTheCard|TestEveryTotalIsMet' ./core/parting -args -heads 1000 -totals 1
	go test -count=1 -v -run TestHairIsConservedOverItsLife ./internal/store -args -studios 100
	go test -count=1 -v ./e2e -run 'TestKilledWhileTapping|TestPrintRepaintTimes' -args -kills 50 -bars
	cd web && npm run --silent lint:rest

pictures: bin/kladotex
	sh scripts/test-tools.sh
	go test -count=1 ./e2e -run TestPictures -args -pictures $(CURDIR)/docs/screenshots

bin/kladotex: $(GO_SOURCES) web/dist/index.html go.mod go.sum
	go build -o $@ ./cmd/kladotex

web/dist/index.html: web/node_modules/.package-lock.json $(WEB_SOURCES) $(FOLD)/chair.wasm
	cd web && npm run --silent build

# The fold of the chair for the browser, and what starts it there.
$(FOLD)/chair.wasm: $(CHAIR_SOURCES) go.mod go.sum
	mkdir -p $(FOLD)
	cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" $(FOLD)/wasm_exec.js
	GOOS=js GOARCH=wasm go build -ldflags="-s -w" -o $@ ./cmd/chair

web/node_modules/.package-lock.json: web/package-lock.json
	cd web && npm ci

# types regenerates the interface's description and the types made from it.
types:
	go run ./cmd/kladotex openapi > docs/openapi.json
	go run ./cmd/kladotex schema > docs/plan.schema.json
	cd web && npm run --silent types

# rooms draws the picture of the packages.
rooms:
	go run ./scripts/rooms > docs/rooms.svg.new && mv docs/rooms.svg.new docs/rooms.svg

# craft writes the table of what we believe.
craft:
	go run ./scripts/craft > docs/craft.md.new && mv docs/craft.md.new docs/craft.md

# words writes every text that people read, to be read in one go.
words: web/node_modules/.package-lock.json
	go run ./scripts/words > docs/words.md.new && mv docs/words.md.new docs/words.md

clean:
	rm -rf bin web/dist/assets web/dist/index.html $(FOLD) demo.db*
