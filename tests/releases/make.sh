#!/usr/bin/env bash
# Makes what the upgrade test begins from: a site of an earlier release, filled and kept by that release's own code from git. Needs the npm
# registry. usage: tests/releases/make.sh <version> <commit>
set -euo pipefail
cd "$(dirname "$0")"
version=$1 commit=$2
here=$PWD work=$(mktemp -d)
chmod 755 "$work"
git clone -q "$(git rev-parse --show-toplevel)" "$work/tree"
git -C "$work/tree" checkout -q "$commit"
port=$((20000 + RANDOM % 10000))
cd "$work/tree"
# what it prints goes to a file, and it is ended by its own process
./start --port $port --data "$work/data" --empty >"$work/start.log" 2>&1 &
started=$!
trap 'kill $started 2>/dev/null || true; wait $started 2>/dev/null || true; rm -rf "$work"' EXIT
for _ in $(seq 600); do
	grep -q 'is open at' "$work/start.log" && break
	kill -0 $started || { cat "$work/start.log"; exit 1; }
	sleep 1
done
code=$(cat "$work/data/begin-code" 2>/dev/null || echo -)
mkdir -p "$here/$version"
cd "$here/../.."
node --import tsx tests/releases/fill.ts "http://127.0.0.1:$port" "$code" "$here/$version/facts.json"
node_modules/.bin/prettier --log-level warn --write "$here/$version/facts.json"
url=$(node --import tsx -e "import('#server/db/cluster').then(({ runningUrl }) => console.log(runningUrl('$work/data')))")
/usr/lib/postgresql/15/bin/pg_dump --format=custom --compress=9 --no-owner --file="$here/$version/database.dump" --dbname="$url"
rm -rf "$here/$version/files"
mkdir "$here/$version/files"
cp -r "$work/data/files/originals" "$here/$version/files/"
cp "$work/data/files/site-id" "$here/$version/files/" 2>/dev/null || true
du -sh "$here/$version"
