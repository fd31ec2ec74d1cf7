#!/bin/sh
# Pin every Python package with its hashes. Needs pip-tools; run after editing a .in file.
set -eu
cd "$(dirname "$0")/../requirements"
for name in run test; do
  pip-compile --quiet --generate-hashes --strip-extras --allow-unsafe --no-emit-index-url --no-emit-find-links \
    --no-emit-trusted-host --no-emit-options --no-header --output-file "$name.txt" "$name.in"
done
