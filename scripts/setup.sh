# Shared by ./start and ./check: installs and builds only what is missing or out of date. Source it from the project's root.

say() { printf '%s\n' "$*" >&2; }

hash_of() { find "$@" -type f -print0 2>/dev/null | sort -z | xargs -0 sha1sum | sha1sum | cut -d' ' -f1; }

# Debian packages by name, when this is Debian and we may; otherwise the list of what is absent is left in $absent.
debian_packages() {
  absent=""
  for p in "$@"; do
    dpkg-query -W -f='${Status}' "$p" 2>/dev/null | grep -q 'install ok installed' || absent="$absent $p"
  done
  [ -z "$absent" ] && return 0
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    say "Installing from Debian:$absent"
    apt-get update -qq >/dev/null 2>&1 || true
    # shellcheck disable=SC2086
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $absent >/dev/null 2>&1 && absent="" && return 0
  fi
  return 1
}

need_node() {
  command -v node >/dev/null || { say "Node.js 20.9 or newer is needed and was not found."; exit 1; }
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 9) ? 0 : 1)' ||
    { say "Node.js 20.9 or newer is needed; this is $(node --version)."; exit 1; }
}

sqlite_works() { node -e 'require("better-sqlite3")(":memory:")' >/dev/null 2>&1; }

install_modules() {
  need_node
  local want; want=$(sha1sum package.json package-lock.json | sha1sum | cut -d' ' -f1)
  if [ "$(cat node_modules/.lattice-stamp 2>/dev/null)" = "$want" ] && sqlite_works; then return 0; fi
  # The database's native part is compiled where no ready-made one fits.
  debian_packages python3 make g++ || say "If compiling fails, install:$absent"
  say "Installing npm packages (the first time compiles the database, about 3 minutes)…"
  # Not "npm ci": it refuses lock files whose optional packages for other platforms a registry does not carry.
  npm install --no-save --no-audit --no-fund --loglevel=error || { say "npm could not install the packages."; exit 1; }
  sqlite_works || npm rebuild better-sqlite3 --loglevel=error
  sqlite_works || { say "better-sqlite3 could not be compiled; python3, make and g++ are needed."; exit 1; }
  echo "$want" > node_modules/.lattice-stamp
}

build_app() {
  local want; want=$(hash_of src catalogue package-lock.json next.config.ts postcss.config.mjs tsconfig.json)
  if [ "$(cat .next/lattice-stamp 2>/dev/null)" = "$want" ]; then return 0; fi
  say "Building the app…"
  NEXT_TELEMETRY_DISABLED=1 node node_modules/next/dist/bin/next build >.next-build.log 2>&1 ||
    { cat .next-build.log >&2; say "The build failed."; return 1; }
  rm -f .next-build.log
  echo "$want" > .next/lattice-stamp
}
