#!/usr/bin/env bash
# Makes .venv with the locked packages; does nothing when it is already current.
# Usage: scripts/environment.sh            what the program needs
#        scripts/environment.sh test       also what the tests need (Debian's chromium included)
set -euo pipefail
cd "$(dirname "$0")/.."
want=${1:-run}

fail() { echo "environment: $*" >&2; exit 1; }
as_root() { if [ "$(id -u)" = 0 ]; then "$@"; elif command -v sudo >/dev/null && sudo -n true 2>/dev/null; then sudo -n "$@"; else return 1; fi; }

python=""
for candidate in python3 python3.11 python3.12 python3.13 python3.14; do
  if command -v "$candidate" >/dev/null && "$candidate" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null; then python=$candidate; break; fi
done
[ -n "$python" ] || fail "Python 3.11 or newer is needed and was not found"
# Of the same version the distribution's own, where it can make environments: it is built with profiles and runs the
# program a tenth faster than one compiled from the bare sources.
distributed=/usr/bin/$("$python" -c 'import sys; print("python%d.%d" % sys.version_info[:2])')
if [ -x "$distributed" ] && "$distributed" -c 'import ensurepip, venv' 2>/dev/null; then python=$distributed; fi

if [ ! -x .venv/bin/pip ]; then
  rm -rf .venv
  if ! "$python" -m venv .venv 2>/dev/null; then
    rm -rf .venv
    # Debian splits ensurepip off into a package of its own.
    version=$("$python" -c 'import sys; print("python%d.%d-venv" % sys.version_info[:2])')
    { as_root apt-get update -qq && as_root apt-get install -y -qq "$version"; } >/dev/null 2>&1 || true
    "$python" -m venv .venv || fail "could not make a virtual environment; as root: apt-get install $version"
  fi
fi

version=$(.venv/bin/python -c 'import sys; print("%d.%d" % sys.version_info[:2])')
lock=locks/$version.lock
[ "$want" = test ] && lock=locks/$version-test.lock
[ -f "$lock" ] || fail "no packages are locked for Python $version; use 3.11, 3.12, 3.13 or 3.14, then remove .venv"
stamp=.venv/.installed-$want
if [ ! -f "$stamp" ] || [ "$lock" -nt "$stamp" ] || [ pyproject.toml -nt "$stamp" ]; then
  echo "Installing packages from $lock ..."
  .venv/bin/pip install --quiet --disable-pip-version-check --require-hashes -r "$lock"
  .venv/bin/pip install --quiet --disable-pip-version-check --no-deps -e .
  touch "$stamp"
fi

if [ "$want" = test ] && ! command -v chromium-headless-shell >/dev/null && [ ! -f .venv/.browser ]; then
  # Where a distribution has no shell of its own, the whole browser does the same, only more slowly.
  command -v chromium >/dev/null || echo "Installing Debian's chromium for the browser tests ..."
  { as_root apt-get update -qq && as_root apt-get install -y -qq chromium-headless-shell; } >/dev/null 2>&1 \
    || command -v chromium >/dev/null \
    || as_root apt-get install -y -qq chromium >/dev/null \
    || fail "the browser tests need chromium; as root: apt-get install chromium"
  touch .venv/.browser
fi
