# Eight Turn. Two commands matter: `make demo` and `make test`.
SHELL := /bin/bash
PORT ?= 8000
DATA_DIR ?= $(CURDIR)/data
export DATA_DIR
# what was compiled once is kept, whatever the machine says: a start is mostly imports
export PYTHONDONTWRITEBYTECODE :=
PY := .venv/bin/python
STAMPS := .stamps
WEB_SOURCES := $(shell find web/src web/public web/index.html web/vite.config.ts -type f 2>/dev/null)

.PHONY: demo build serve test nightly quick coverage units lint types loops written api-types browser-tools bench soak attacks shots clean report
.DEFAULT_GOAL := demo

# HTTPS=1: the house speaks https itself, to all of its network. LISTEN=0.0.0.0 does without.
LISTEN ?= $(if $(HTTPS),0.0.0.0,127.0.0.1)
demo serve: build
	@echo
	@if [ $@ = demo ]; then echo "  Sign in as wren (head, password towpath-head) or tansy (bench, password towpath-bench)."; fi
	@echo "  Stop it with Ctrl-C. What you entered is kept in $(DATA_DIR)"
	@$(if $(HTTPS),EIGHT_TURN_HTTPS=house) EIGHT_TURN_LISTEN=$(LISTEN):$(PORT) $(PY) -m bakehouse.serve --$(if $(filter demo,$@),demo,migrate)

# The front end is built while the loops of the warmth are compiled. Those that arrange a day take longer:
# the house compiles them when it is first served, and says so meanwhile.
build:
	@$(MAKE) --no-print-directory -s -j2 $(STAMPS)/web $(STAMPS)/heat

$(STAMPS)/tools:
	@command -v python3 >/dev/null || { echo "python3 is missing: install Python 3.11 or later."; exit 1; }
	@python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' || { echo "python3 is too old: Python 3.11 or later is needed."; exit 1; }
	@command -v node >/dev/null && command -v npm >/dev/null || { echo "node or npm is missing: install Node 20 or later."; exit 1; }
	@node -e 'process.exit(process.versions.node.split(".")[0] < 20 ? 1 : 0)' || { echo "node is too old: Node 20 or later is needed."; exit 1; }
	@mkdir -p $(STAMPS) && touch $@

.venv/bin/python: | $(STAMPS)/tools
	@python3 -m venv .venv || { echo "The virtual environment could not be made: is python3-venv installed?"; exit 1; }

$(STAMPS)/app: requirements/app.txt | .venv/bin/python
	@echo "Installing the application's packages"
	@$(PY) -m pip install -q --disable-pip-version-check --no-compile --require-hashes -r $<
	@touch $@

$(STAMPS)/dev: requirements/dev.txt | .venv/bin/python
	@echo "Installing the packages that tests need"
	@$(PY) -m pip install -q --disable-pip-version-check --no-compile --require-hashes -r $<
	@touch $@ $(STAMPS)/app

$(STAMPS)/npm: web/package-lock.json | $(STAMPS)/tools
	@echo "Installing the front end's packages"
	@cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(STAMPS)/web: $(STAMPS)/npm $(STAMPS)/app $(WEB_SOURCES)
	@echo "Building the front end"
	@cd web && npx --no-install vite build --logLevel warn
	@$(PY) manage.py collectstatic --noinput --clear -v 0
	@touch $@

$(STAMPS)/heat: lamination/heat/stepping.py lamination/materials/thermal.py lamination/terms/compiled.py $(STAMPS)/app
	@$(PY) -c "from lamination import heat; heat.ready()"
	@touch $@

# All loops at once, so that no test compiles what another compiles as well.
loops: $(STAMPS)/app
	@echo "Compiling the core's loops"
	@$(PY) -m bakehouse.loops

api-types: $(STAMPS)/dev $(STAMPS)/npm
	@$(PY) manage.py openapi > web/openapi.json
	@cd web && npm run -s api-types >/dev/null

# What the front end's tests read of the core; and every sentence it can say.
written: $(STAMPS)/dev
	@$(PY) docs/list_sentences.py
	@WRITE_ANEW=1 $(PY) -m pytest tests/api/test_written.py

lint: $(STAMPS)/dev $(STAMPS)/npm
	$(PY) -m ruff check .
	$(PY) -m ruff format --check .
	.venv/bin/lint-imports --no-cache
	cd web && npx --no-install biome ci --error-on-warnings .

types: api-types
	@git diff --exit-code --stat -- web/src/api/schema.d.ts || { echo "The front end's types are stale: run 'make api-types' and commit."; exit 1; }
	$(PY) -m mypy lamination bakehouse
	cd web && npm run -s types
	$(PY) manage.py makemigrations --check --dry-run

browser-tools:
	@command -v chromium-headless-shell >/dev/null && command -v strace >/dev/null && command -v certutil >/dev/null || { echo "Installing chromium-headless-shell, strace and libnss3-tools"; \
	  if [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null; then apt-get update -q >/dev/null && \
	    { apt-get install -y -q chromium-headless-shell strace libnss3-tools >/dev/null || apt-get install -y -q chromium strace libnss3-tools >/dev/null; }; \
	  else echo "chromium-headless-shell, strace or certutil is missing: install them with your package manager (Debian: apt-get install chromium-headless-shell strace libnss3-tools)."; exit 1; fi; }

# What can go side by side does: first what is fetched, then what is checked and built.
test: | $(STAMPS)/tools
	@$(MAKE) --no-print-directory -j3 --output-sync=target $(STAMPS)/dev $(STAMPS)/npm browser-tools
	@$(MAKE) --no-print-directory -s -j2 --output-sync=target types build units lint loops
# One at a time, so that nobody waits for the last of a heap. A browser waits as often as it works: with three
# at once a fifth of two cores was idle; with six they waited for each other.
	$(PY) -m pytest -n 4 --maxschedchunk 1 tests
	$(PY) -m pytest --doctest-modules lamination

# What the gate leaves out: more of a kind that it tries already, and properties with other seeds each time.
nightly: build loops browser-tools $(STAMPS)/dev
	NIGHTLY=1 $(PY) -m pytest -n 4 --maxschedchunk 1 tests

# Tracing costs a minute and a half of the twelve that CI has, so it is asked for by itself.
coverage: $(STAMPS)/dev
	$(PY) -m pytest -n 4 --cov --cov-report=term:skip-covered --cov-fail-under=97 tests/lamination tests/api

# The loop while one works: nothing is built, no browser is opened.
quick: lint
	$(PY) -m mypy lamination bakehouse
	cd web && npm run -s types
	$(PY) -m pytest -n 2 -x tests/lamination tests/api --ignore tests/lamination/warmth --ignore tests/api/test_cold.py --ignore tests/api/test_upgrade.py --ignore tests/api/test_any_input.py --ignore tests/lamination/day

units: $(STAMPS)/npm
	cd web && npx --no-install vitest run

bench: build loops $(STAMPS)/dev
	@$(PY) benchmarks/work.py

# How long files are, and the share of tests: to look at, not to be held to.
report:
	@git ls-files '*.py' '*.ts' '*.tsx' '*.css' | grep -v schema.d.ts | grep -v /migrations/ | xargs wc -l | sort -rn | sed -n 2,12p
	@code=$$(git ls-files '*.py' '*.ts' '*.tsx' '*.css' | grep -v schema.d.ts | xargs cat | wc -l); \
	  tests=$$(git ls-files '*.py' '*.ts' '*.tsx' '*.css' | grep tests/ | xargs cat | wc -l); \
	  echo "tests: $$tests of $$code lines, $$((100 * tests / code)) %"

# Two hundred tablets for a minute, on this machine only.
soak: build loops $(STAMPS)/dev
	@$(PY) benchmarks/soak.py

# What a network does to a house by malice or by accident, on this machine only.
attacks: build loops $(STAMPS)/dev
	@$(PY) benchmarks/attacks.py

# Fresh pictures of every main view, from the demo data, into docs/screenshots.
shots: build loops $(STAMPS)/dev browser-tools
	@$(PY) docs/take_pictures.py

clean:
	rm -rf .venv .stamps web/node_modules web/dist
