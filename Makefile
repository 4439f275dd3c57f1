# Amber Gable. `make demo` runs the program on sample data, `make test` checks it.
PY := .venv/bin/python
.PHONY: demo demo-reset serve test bench screenshots lint quick-lint lock

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

# Two workers; a file stays with one of them, so that what it sets up is made once. They wait for the browser much of the
# time, so the types are checked beside them; either one's failure fails the whole.
test: quick-lint
	@.venv/bin/mypy & types=$$!; .venv/bin/pytest -n 2 --dist loadfile; tests=$$?; wait $$types && exit $$tests

bench: test-env
	@$(PY) -m tests.bench.table

screenshots: test-env
	@$(PY) -m tests.browser.screenshots

lock: test-env
	scripts/lock.sh

.PHONY: run-env test-env
run-env:
	@scripts/environment.sh run
test-env:
	@scripts/environment.sh test
