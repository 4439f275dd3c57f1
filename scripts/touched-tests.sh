#!/usr/bin/env bash
# Runs the tests outside the browser that uncommitted or new code touches. Which test touches which code was noted when it
# last ran. Tables that are read when a module is loaded are not noted, so a change of the rules or of the vocabulary runs
# all tests of the core; nor are templates, styles and data, so a change of those runs every test of the pages.
set -euo pipefail
cd "$(dirname "$0")/.."
code=0
run() { local got=0; .venv/bin/pytest -p no:randomly "$@" || got=$?; [ "$got" = 0 ] || [ "$got" = 5 ] || code=$got; }

[ -f .testmondata ] || echo "Learning which test touches what; this once it takes some minutes."
two=(-n 2 --dist worksteal)
run "${two[@]}" --testmon --ignore tests/browser tests
tables=$(git status --porcelain --untracked-files=all -- src/amber_gable/core/specification src/amber_gable/domain | grep '\.py$' || true)
[ -z "$tables" ] || run "${two[@]}" --no-testmon tests/core
changed=$(git status --porcelain --untracked-files=all -- src | grep -v '\.py$' || true)
[ -z "$changed" ] || run "${two[@]}" --no-testmon tests/web
exit "$code"
