#!/usr/bin/env bash
# Writes the lock files anew from pyproject.toml, with the hash of every file: one for running and one for testing, for
# each Python that is supported. No index address is written into them.
set -euo pipefail
cd "$(dirname "$0")/.."
.venv/bin/pip install --quiet uv
for version in 3.11 3.12 3.13 3.14; do
  for extra in "" test; do
    .venv/bin/uv pip compile --quiet --upgrade --python-version "$version" --generate-hashes --no-header --no-annotate \
      --no-emit-index-url --no-emit-find-links --extra fast ${extra:+--extra "$extra"} \
      --output-file "locks/$version${extra:+-$extra}.lock" pyproject.toml
  done
done
