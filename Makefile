# Patient Ladder. `make help` lists what there is.
SHELL := /bin/bash
BIN := bin/ladder
# The same sources make the same program to the byte, wherever they lie; tests use what was compiled for it.
export GOFLAGS := -trimpath
TOOL := go tool -modfile=$(CURDIR)/tools/go.mod

.PHONY: help demo demo-60 demo-empty demo-reset dev toolchain test test-core test-one test-week test-long test-race lint mutate build deps deps-test generate check-generated bench crowd supply fuzz screenshots clean
.DEFAULT_GOAL := help

help: ## this list
	@awk -F':.*## ' '/^#@ /{printf "\n%s\n", substr($$0, 4)} /^[a-z0-9-]+:.*## /{printf "  make %-16s %s\n", $$1, $$2}' $(MAKEFILE_LIST)

#@ Run it

demo: deps build ## the made-up studio; prints the address and the sign-in
	@./$(BIN) demo

demo-60: deps build ## the made-up studio with sixty students
	@./$(BIN) demo --students 60

demo-empty: deps build ## an empty studio
	@./$(BIN) demo --empty

demo-reset: deps build ## the same, begun anew
	@./$(BIN) demo --reset

dev: deps web/.stamp-dist ## the demo for who changes it: the page at port 5173 and the server reload by themselves
	@trap 'kill 0' EXIT; (cd web && npx vite --strictPort) & $(TOOL) air -c tools/air.toml

#@ Test it
test: deps deps-test build lint ## every test
	cd web && npx vitest run
	@mkdir -p .run
	$(TOOL) gotestsum --format standard-quiet --jsonfile .run/tests.json -- -count=1 -timeout 60m ./e2e ./api ./api/agree ./outside ./... # the longest begin first
	@tools/slowest.mjs .run/tests.json

lint: web/.stamp-npm
	cd web && npx biome check src
	go vet ./...
	$(TOOL) staticcheck ./...
	@dead=$$($(TOOL) deadcode -test ./...) && [ -z "$$dead" ] || { echo "nobody calls: $$dead"; exit 1; }
	cd tools && go vet ./mutant ./licences

test-core: ## the rules alone: no Node, no database
	go test -count=1 ./core/...

test-week: deps deps-test build ## what knows a day, with the clock on each weekday, before midnight and in three zones
	@tools/week

test-long: deps deps-test ## a whole school year through the API, 2,000 placements, every exercise as others play it, 200 lives, ten thousand weeks at home; prints what held
	LADDER_YEAR=1 go test -count=1 -v -timeout 60m -run SchoolYear ./api
	LADDER_PLACED=200 go test -count=1 -v -timeout 60m -run ManyStudents ./core/student/placement
	LADDER_LONG=1 go test -count=1 -v -timeout 60m -run Sound ./outside
	LADDER_LONG=1 go test -count=1 -v -timeout 60m ./core/planning/lived
	LADDER_LONG=1 go test -count=1 -timeout 60m ./api/agree

test-race: deps ## the server's tests under the race detector
	go test -count=1 -race -timeout 60m ./app/... ./api/admit ./clock ./core/base/parallel ./store
	go test -count=1 -race -timeout 60m -run "Moment|Plan|Brothers|Family|Studios" ./api

mutate: ## changes the rules of PKG= one by one; prints which changes no test noticed (N= draws a sample)
	@tools/mutate $(PKG) $(N)

test-one: ## the tests of one package, PKG=./core/planning/week, those that match RUN=
	go test -count=1 $(PKG) $(if $(RUN),-run '$(RUN)')

#@ Build it
build: toolchain web/.stamp-dist ## the page and the program
	go build -buildvcs=false -ldflags "-s -w -buildid=" -o $(BIN) ./cmd/ladder

toolchain:
	@tools/toolchain

web/.stamp-npm: web/package.json web/package-lock.json | toolchain
	cd web && npm install --no-save --ignore-scripts --no-audit --no-fund --loglevel=error
	@touch $@

web/.stamp-dist: web/.stamp-npm $(shell find web/src web/public -type f) web/index.html web/vite.config.ts web/tsconfig.json
	cd web && npm run --silent build
	@touch $@

deps: toolchain
	@tools/need mariadbd mariadb-server

deps-test: deps
	@tools/need chromium chromium
	@tools/need midicsv midicsv
	@tools/need ly python3-ly
	@tools/need abc2midi abcmidi
	@tools/need lilypond lilypond
	@tools/need nginx nginx-light

generate: web/.stamp-npm ## write the generated code anew from the contract and the queries
	cd store && $(TOOL) sqlc generate
	cd api && $(TOOL) oapi-codegen -config contract/config.yaml openapi.yaml
	cd web && npm run --silent generate

check-generated: generate ## fail when committed generated code is stale
	@git diff --exit-code -- store/rows api/contract web/src/contract || \
	  { echo "generated code is stale: run 'make generate' and commit the result"; exit 1; }
	@echo "generated code is up to date"

#@ Measure it
supply: web/.stamp-npm ## what the program is made of: lists, licences, known weaknesses where they can be asked for
	@tools/supply

crowd: build ## what a crowd does to a server: memory, answers, how long a teacher waits
	@go run ./bench -only crowd

bench: ## benchmarks, as a table
	@go run ./bench

fuzz: ## the fuzz targets, a minute each
	go test ./core/notation/musicxml -run '^$$' -fuzz FuzzRead -fuzztime 1m -fuzzminimizetime 1s
	go test ./core/notation/abc -run '^$$' -fuzz FuzzRead -fuzztime 1m -fuzzminimizetime 1s
	go test ./core/notation/midi -run '^$$' -fuzz FuzzRead -fuzztime 1m -fuzzminimizetime 1s

#@ Look at it
screenshots: deps deps-test build ## the pictures in docs/screenshots, from the demo
	LADDER_SCREENSHOTS=1 go test -count=1 -run TestScreenshots ./e2e

#@ Tidy up
clean: ## what was built; the demo's data stay
	rm -rf bin web/dist/app web/.stamp-dist
