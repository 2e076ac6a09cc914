# Plain Compass. The two commands to know are `make demo` and `make test`; see README.md.

PYTHON ?= python3
BIN := .venv/bin
RUNTIME := .venv/.runtime
DEV := .venv/.dev
OUT ?= docs/screenshots
ROUNDS ?= 200
MINUTES ?= 3
# The locks are complete (a test sees to it), so nothing is resolved: a resolver may want something newer than the lock.
PIP := $(BIN)/python -m pip install --disable-pip-version-check --no-deps --require-hashes

.PHONY: one demo test install screenshots bench lint lock clean kill mutants fuzz deb wheel handbook release texts made schemas

demo:
	@if [ -n "$$DISPLAY$$WAYLAND_DISPLAY" ]; then \
		$(PYTHON) tools/system_libraries.py --display && $(MAKE) --no-print-directory install && \
		$(BIN)/python tools/system_libraries.py --display && exec $(BIN)/plain-compass demo; \
	else \
		echo "There is no display here, so no window can open; run 'make screenshots' to render the demo's views to PNG instead."; \
	fi

install: $(RUNTIME)

$(RUNTIME): requirements/runtime.lock pyproject.toml
	@$(PYTHON) -c 'import sys; sys.exit(sys.version_info < (3, 11))' || { echo "Python 3.11 or newer is needed; this is $$($(PYTHON) --version)."; exit 2; }
	@$(PYTHON) -c 'import venv, ensurepip' 2>/dev/null || { echo "Python's venv is missing; get it with: apt-get install python3-venv"; exit 2; }
	@[ -x $(BIN)/python ] || $(PYTHON) -m venv .venv
	@echo "Installing Plain Compass into .venv (about half a minute, once) ..."
	@$(PIP) -r requirements/runtime.lock
	@$(BIN)/python tools/link_package.py
	@$(BIN)/python -m compileall -q src
	@touch $@

$(DEV): requirements/dev.lock $(RUNTIME)
	@echo "Installing the tools of the tests (once) ..."
	@$(PIP) -r requirements/dev.lock
	@touch $@

screenshots: $(RUNTIME)
	@$(BIN)/python tools/system_libraries.py
	@$(BIN)/python tools/screenshots.py $(OUT)

# What the machine itself must have is looked for before anything is fetched, and once more when Qt can be asked.
test:
	@$(PYTHON) tools/system_libraries.py --tests
	@$(MAKE) --no-print-directory lint
	@$(BIN)/python tools/system_libraries.py --tests
	@$(BIN)/python tools/run_tests.py

one: $(DEV)
	@$(BIN)/python tools/run_tests.py -k "$(T)"

lint: $(DEV)
	$(BIN)/ruff check src tests bench tools
	$(BIN)/ruff format --check -q src tests bench tools
	$(BIN)/mypy
	$(BIN)/lint-imports
	$(BIN)/python tools/shape.py

bench: $(DEV)
	@$(BIN)/python tools/system_libraries.py
	@$(BIN)/python bench/run.py $(if $(AGAINST),--against $(AGAINST))

lock:
	cd requirements && for f in runtime dev; do \
		uv pip compile --python-version 3.11 --generate-hashes --no-emit-index-url --no-header --no-annotate $$f.in -o $$f.lock; done

clean:
	rm -rf .venv build dist .pytest_cache .mypy_cache .ruff_cache .hypothesis

kill: $(DEV)
	@$(BIN)/python tools/system_libraries.py
	@$(BIN)/python tools/kill_rounds.py --rounds $(ROUNDS)
	@$(BIN)/python tools/kill_log.py --rounds $(ROUNDS)

mutants: $(DEV)
	@$(BIN)/python tools/mutants.py

fuzz: $(DEV)
	@$(BIN)/python tools/fuzz.py --minutes $(MINUTES)

# The wheel is built with what the lock holds: nothing is fetched for it.
wheel: $(DEV)
	@$(BIN)/python -m pip --disable-pip-version-check wheel -q --no-deps --no-build-isolation -w dist .
	@ls dist/*.whl

deb: $(DEV)
	@$(BIN)/python tools/make_deb.py

handbook: $(RUNTIME)
	@$(BIN)/python tools/system_libraries.py
	@$(BIN)/python tools/make_handbook.py

# Everything a release hands out, from a clean tree, with the checksums of it all; docs/release.md is the list to go by.
release: lint
	@test -z "$$(git status --porcelain)" || { echo "The tree has changes that are not committed; a release is made of what is committed."; exit 2; }
	@rm -rf dist && $(MAKE) --no-print-directory wheel deb handbook
	@$(BIN)/python tools/make_release.py

# The list of every text a language file gives in another language; run it when a text was added or changed.
texts: $(DEV)
	@$(BIN)/python tools/make_texts.py

# The window in the made language, a picture of each view: what is not said through the catalogue, and what is cut off.
VIEWS ?= build/made
made: $(DEV)
	@$(BIN)/python tools/made_walk.py $(VIEWS)

# The schemas of what the commands answer in JSON, from their answers; run it when an answer gained a key.
schemas: $(DEV)
	@$(BIN)/python tools/make_schemas.py
