# Two commands do everything: `make demo` and `make test`. The rest is for developers.
# Paths are relative throughout, so that a folder with a space in its name works.

SHELL := /bin/bash
.SHELLFLAGS := -euo pipefail -c
.DELETE_ON_ERROR:
MAKEFLAGS += --no-print-directory

PY := .venv/bin/python
PORT ?= 8433
CORES := $(shell nproc)
WEB_SOURCES := $(shell find web/src web/public web/index.html web/vite.config.ts web/svelte.config.js -type f -not -name schema.ts 2>/dev/null)

.PHONY: demo test suite dev bench screens types notices attack check notices-check python-check web-check lock clean

demo: .stamps/run .stamps/web ## install, build, serve the sample boatyard
	@$(PY) -m jade_ribbon demo --port $(PORT)

test: ## everything CI runs; much of the tests is waiting, which the checks beside them fill
	@$(MAKE) -j3 .stamps/dev .stamps/node .stamps/chromium
	@$(MAKE) .stamps/web
	@$(MAKE) -j3 notices-check python-check web-check suite

suite: .stamps/dev .stamps/web .stamps/chromium
	@$(PY) -m pytest -n $$(($(CORES) + 1)) --dist loadscope --no-loadscope-reorder

dev: .stamps/run .stamps/node web/src/api/schema.ts ## Flask with reload and Vite's dev server
	@mkdir -p data
	@trap 'kill 0' EXIT; \
	$(PY) -m flask --app "jade_ribbon.api.app:create_app('data/dev.sqlite')" run --debug --port 8433 & \
	cd web && npm run -s dev

bench: .stamps/dev ## figures: plan answer, rack list, first load; property tests on random examples
	@$(PY) -m benchmarks
	@HYPOTHESIS_PROFILE=random $(PY) -m pytest -q -n $(CORES) tests/core

attack: .stamps/dev ## attack a shop on this machine for an hour: kills, power cuts, strangers, files
	@$(PY) -W error -m attacks

screens: .stamps/dev .stamps/web .stamps/chromium ## refresh docs/screenshots from the demo
	@$(PY) -m benchmarks.screens

check: .stamps/dev .stamps/node
	@$(MAKE) -j2 --output-sync=target notices-check python-check web-check

notices-check: .stamps/dev .stamps/node
	@$(PY) scripts/notices | cmp -s - NOTICES.md || (echo "NOTICES.md is out of step: run make notices" && exit 1)

python-check: .stamps/dev
	@$(PY) -m ruff check --quiet . && $(PY) -m ruff format --check --quiet .
	@$(PY) -m mypy
	@.venv/bin/python -c "from importlinter.cli import lint_imports_command as run; run()" --no-cache > /tmp/jade-ribbon-imports.$$$$ || (cat /tmp/jade-ribbon-imports.$$$$; exit 1); rm -f /tmp/jade-ribbon-imports.$$$$
	@$(PY) -m jade_ribbon openapi | cmp -s - docs/openapi.json || (echo "docs/openapi.json is out of step: run make types" && exit 1)

web-check: web/src/api/schema.ts web/src/tests/reference.json
	@cd web && npm run -s check && npm run -s test

notices: .stamps/dev .stamps/node ## renew NOTICES.md from the locked packages
	@$(PY) scripts/notices > NOTICES.md

types: .stamps/dev ## renew the OpenAPI document; the front end's types are built from it
	@$(PY) -m jade_ribbon openapi > docs/openapi.json

# The interface's tests read the core's own tables.
web/src/tests/reference.json: .stamps/run $(shell find jade_ribbon/reference jade_ribbon/core jade_ribbon/formats jade_ribbon/services/shop -type f -not -name '*.pyc')
	@$(PY) -m jade_ribbon reference > $@

web/src/api/schema.ts: docs/openapi.json .stamps/node
	@cd web && npm run -s types > /dev/null

lock: .stamps/dev ## renew the hash-locked requirements
	@for f in bootstrap run dev; do .venv/bin/uv pip compile -q --python-version 3.11 --generate-hashes \
	  --no-emit-index-url --no-emit-find-links --no-header requirements/$$f.in -o requirements/$$f.txt; done

.venv/bin/uv: requirements/bootstrap.txt
	@scripts/need python3
	@python3 -m venv .venv
	@.venv/bin/python -m pip install -q --disable-pip-version-check --require-hashes -r requirements/bootstrap.txt

.stamps/run: requirements/run.txt pyproject.toml .venv/bin/uv
	@mkdir -p .stamps
	@[ .stamps/dev -nt requirements/run.txt ] || scripts/sync requirements/run.txt
	@touch $@

.stamps/dev: requirements/dev.txt pyproject.toml .venv/bin/uv
	@mkdir -p .stamps
	@scripts/sync requirements/dev.txt
	@touch $@ .stamps/run

.stamps/node: web/package.json web/package-lock.json web/.npmrc
	@scripts/need node npm
	@mkdir -p .stamps
	@cd web && npm ci --silent --no-audit --no-fund
	@touch $@

.stamps/web: .stamps/node web/src/api/schema.ts $(WEB_SOURCES)
	@cd web && npm run -s build -- --logLevel warn
	@touch $@

.stamps/chromium:
	@mkdir -p .stamps
	@command -v chromium-headless-shell > /dev/null || scripts/apt chromium-headless-shell fonts-dejavu-core
	@command -v certutil > /dev/null || scripts/apt libnss3-tools
	@command -v openssl > /dev/null || scripts/apt openssl
	@touch $@

clean:
	@rm -rf .stamps .venv web/node_modules jade_ribbon/static build .mypy_cache .ruff_cache .pytest_cache .hypothesis
