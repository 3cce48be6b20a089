# Two commands matter: `make demo` and `make test`. Both set up what they need.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
DATA ?= data
PORT ?= 8420
PIP := $(BIN)/pip install --quiet --disable-pip-version-check

.PHONY: demo serve test everything bench orders lays wide hold look paper readers pages lint browser-tools clean

$(BIN)/python:
	@$(PYTHON) -c 'import ensurepip' 2>/dev/null || { \
	  echo "python3-venv is missing; installing it with apt-get"; \
	  apt-get update -qq && apt-get install -y -qq python3-venv; }
	$(PYTHON) -m venv $(VENV)

$(VENV)/.run: requirements/run.txt pyproject.toml | $(BIN)/python
	$(PIP) --require-hashes --only-binary :all: -r requirements/run.txt
	$(PIP) --no-deps --no-build-isolation --editable .
	@touch $@

$(VENV)/.dev: requirements/dev.txt $(VENV)/.run
	$(PIP) --require-hashes --only-binary :all: -r requirements/dev.txt
	@touch $@

demo: $(VENV)/.run  ## set up, load the demo when there is no data yet, serve on 127.0.0.1
	$(BIN)/widehem serve --demo --data $(DATA) --port $(PORT)

serve: $(VENV)/.run  ## set up, serve without loading the demo
	$(BIN)/widehem serve --data $(DATA) --port $(PORT)

browser-tools:
	@{ command -v chromium-headless-shell || command -v chromium; } >/dev/null && command -v pdftoppm >/dev/null || { \
	  echo "installing headless Chromium and poppler with apt-get"; apt-get update -qq; \
	  apt-get install -y -qq chromium-headless-shell poppler-utils || apt-get install -y -qq chromium poppler-utils; }

lint: $(VENV)/.dev  ## style, types, import contract, templates
	$(BIN)/ruff check src tests
	$(BIN)/ruff format --check src tests
	$(BIN)/mypy
	$(BIN)/lint-imports --no-cache

test: $(VENV)/.dev browser-tools lint  ## set up, run everything
	$(BIN)/python -m tests

bench: $(VENV)/.dev  ## speed as ratios to an anchor of the same run
	$(BIN)/python -m tests.bench

orders: $(VENV)/.dev  ## five hundred random garments through the order of work
	$(BIN)/python -m tests.orders 500

lays: $(VENV)/.dev  ## five hundred random pieces of cloth laid, and every lay looked at
	$(BIN)/python -m tests.lays 500

wide: $(VENV)/.dev  ## two thousand random bodies through every method
	$(BIN)/python -m tests.wide

everything: $(VENV)/.dev browser-tools  ## the tests, and of what they do in turns all of it
	EVERYTHING=1 $(BIN)/python -m tests

hold: $(VENV)/.dev  ## the attacks of the tests, fifty times as long: wild charts, forms gone wrong, kills, upgrades broken off
	HOLD=50 $(BIN)/python -W ignore -m unittest tests.core.test_wild tests.web.test_attacks tests.store.test_killed tests.store.test_mending

paper: $(VENV)/.dev  ## five hundred random patterns on paper, judged
	$(BIN)/python -m tests.papers

readers: $(VENV)/.dev browser-tools  ## what is handed over, measured by programs others wrote
	$(BIN)/python -m tests.readers

pages: $(VENV)/.dev browser-tools  ## every page at every width: words off each other, large enough, read aloud well
	EVERYTHING=1 $(BIN)/python -m unittest tests.browser.test_desk.Looks

look: $(VENV)/.dev browser-tools  ## every method on the eight bodies, closed, as pictures outside this folder
	$(BIN)/python -m tests.look

clean:
	rm -rf $(VENV) build src/*.egg-info .mypy_cache .ruff_cache .hypothesis
