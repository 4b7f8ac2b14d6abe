# Thin: each target calls cargo, npm or a script.
.PHONY: demo build test torture fuzz bench shots contract format

DEMO_DATA ?= dash-pebble-demo.sqlite

demo: build ## start with demo data in a file of its own
	target/release/dash-pebble serve --demo --data $(DEMO_DATA)

build: web/dist/index.html.gz
	cargo build --release --package dash-pebble

test: ## install what tests need where it is missing, and run everything
	scripts/test

torture: ## disks that fill and fail, two hundred kills, files taken away, broken pages (`make test` has 16 kills, and breaks every second page)
	KILLS=200 cargo test --workspace --test it -- safe:: --nocapture

fuzz: ## a million spoiled inputs (two thousand are part of `make test`)
	FUZZ_INPUTS=1000000 cargo test --release --package dash-pebble --test it -- fuzz:: --nocapture

bench: build ## speeds and sizes, printed; AGAINST=<commit> beside those of another commit
	scripts/bench

shots: web/dist/index.html.gz ## refresh docs/screenshots
	cargo test --quiet --workspace --test it -- --ignored --exact interface::screenshots

contract: ## refresh docs/openapi.json, the schemas of the open files, and the TypeScript types
	cargo run --quiet --package dash-pebble -- openapi > docs/openapi.json
	for of in shot shots kit; do cargo run --quiet --package dash-pebble -- schema $$of > docs/formats/$$of.schema.json; done
	cd web && npm run --silent types

format:
	cargo fmt
	cd web && npm run --silent format

web/node_modules/.package-lock.json: web/package-lock.json
	cd web && npm ci --no-fund --no-audit
	touch $@

web/dist/index.html.gz: web/node_modules/.package-lock.json web/index.html web/vite.config.ts $(shell find web/src web/public -type f)
	cd web && npm run --silent build
