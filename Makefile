# Amber Gable. `make demo` runs the program on sample data, `make test` checks it.
PY := .venv/bin/python
.PHONY: demo demo-reset serve test test-times test-long quick bench screenshots lint quick-lint lock wheel

demo: run-env
	@$(PY) -m amber_gable.cli demo

demo-reset: run-env
	@$(PY) -m amber_gable.cli demo --reset-only

serve: run-env
	@$(PY) -m amber_gable.cli serve

lint: quick-lint
	.venv/bin/mypy

quick-lint: test-env
	.venv/bin/ruff check src tests
	.venv/bin/ruff format --check src tests
	.venv/bin/lint-imports --no-cache

# Two workers, in an order of its own each time; `make test SEED=…` repeats one. They wait for the browser much of the
# time, so the types are checked beside them; either one's failure fails the whole.
ifndef SEED
SEED := $(shell date +%s)
endif
PYTEST := .venv/bin/pytest -n 2 --dist worksteal -p randomly --randomly-seed=$(SEED)
# Numpy's own threads would only get in the workers' way; compiled modules are kept for the next run.
test test-times test-long quick: export OPENBLAS_NUM_THREADS := 1
test test-times test-long quick: export PYTHONDONTWRITEBYTECODE :=

test: quick-lint
	@echo "order of the tests: SEED=$(SEED)"
	@.venv/bin/mypy & types=$$!; $(PYTEST); tests=$$?; wait $$types && exit $$tests

# The same, and where the time went.
test-times: test-env
	@echo "order of the tests: SEED=$(SEED)"
	@bash -c 'time $(PYTEST) --times'

# With the full grids of what runs coarser every day, and many more made-up cases.
test-long: quick-lint
	@echo "order of the tests: SEED=$(SEED)"
	@$(PYTEST) --long --hypothesis-profile=long

# Lint, types, and those tests outside the browser that the change touches. The first time learns which test touches what.
quick: quick-lint
	@.venv/bin/mypy & types=$$!; scripts/touched-tests.sh; tests=$$?; wait $$types && exit $$tests

bench: test-env
	@$(PY) -m tests.bench.table

# The climate against a second computation of it, over any weather file: make audit-physics EPW=file
audit-physics: test-env
	@$(PY) -m tests.tools.audit_physics "$(EPW)"

screenshots: test-env
	@$(PY) -m tests.browser.screenshots

lock: test-env
	scripts/lock.sh

# The program as a wheel in dist/, to be installed elsewhere with the packages of locks/.
wheel: run-env
	.venv/bin/pip wheel --quiet --no-deps --wheel-dir dist .

.PHONY: run-env test-env
run-env:
	@scripts/environment.sh run
test-env:
	@scripts/environment.sh test
