#!/bin/sh
# Take the styles, the script library, the fonts and the accessibility checker from npm, with their licences.
# Run by hand when a version changes; the results are committed, so nothing is fetched at run time.
set -eu
root=$(cd "$(dirname "$0")/.." && pwd)
out=$root/src/nematex/web/static/vendor
checks=$root/tests/vendor
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
mkdir -p "$out" "$checks"

take() { # take PACKAGE@VERSION: unpack it into $work/package
  rm -rf "$work/package"
  (cd "$work" && npm pack --silent "$1" >/dev/null && tar xzf ./*.tgz && rm ./*.tgz)
}

take bootstrap@5.3.9
cp "$work/package/dist/css/bootstrap.min.css" "$out/bootstrap.min.css"
# The source map is not shipped, so the line that asks for it goes.
sed -i '/sourceMappingURL/d' "$out/bootstrap.min.css"
cp "$work/package/LICENSE" "$out/bootstrap.LICENSE"

take @alpinejs/csp@3.17.4
cp "$work/package/dist/cdn.min.js" "$out/alpine-csp.min.js"
# npm's archive carries no licence file; the text is the MIT licence named in its package.json.
cp "$root/scripts/alpine.LICENSE" "$out/alpine-csp.LICENSE"

take @fontsource-variable/literata@5.3.0
cp "$work/package/files/literata-latin-wght-normal.woff2" "$work/package/files/literata-latin-wght-italic.woff2" "$out/"
cp "$work/package/LICENSE" "$out/literata.LICENSE"

take @fontsource-variable/instrument-sans@5.3.0
cp "$work/package/files/instrument-sans-latin-wght-normal.woff2" "$out/"
cp "$work/package/LICENSE" "$out/instrument-sans.LICENSE"

take axe-core@4.14.1
cp "$work/package/axe.min.js" "$checks/axe.min.js"
cp "$work/package/LICENSE" "$checks/axe.LICENSE"
