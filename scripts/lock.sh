#!/usr/bin/env bash
# Writes the lock files anew from pyproject.toml. No index address is written into them.
set -euo pipefail
cd "$(dirname "$0")/.."
.venv/bin/pip install --quiet pip-tools
for extra in "" test; do
  out=requirements${extra:+-$extra}.lock
  .venv/bin/pip-compile --quiet --allow-unsafe --no-emit-index-url --no-emit-find-links --no-emit-trusted-host --no-emit-options \
    --no-annotate --no-header --strip-extras ${extra:+--extra "$extra"} --output-file "$out" pyproject.toml
done
