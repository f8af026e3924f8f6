# Shared by ./start and ./check. Each step says what it does and does nothing when it is done already.
export NEXT_TELEMETRY_DISABLED=1

require_node() {
  if ! command -v node >/dev/null || ! node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=9)?0:1)'; then
    echo "Node.js 20.9 or newer is needed. Install it and run this again." >&2
    exit 1
  fi
}

install_packages() {
  local lock
  lock="$(sha256sum package-lock.json | cut -d' ' -f1)"
  if [ "$(cat node_modules/.installed-for 2>/dev/null)" != "$lock" ]; then
    echo "Installing packages ..."
    # Not "npm ci": a registry that does not carry every platform's optional binaries leaves them out
    # of the lock file, and "npm ci" then refuses it. The locked versions are installed all the same.
    npm install --no-save --no-audit --no-fund --loglevel=error || return 1
    echo "$lock" >node_modules/.installed-for
  fi
}

# A fingerprint of everything a build is made from.
source_print() {
  { find src -type f ! -name '*.test.ts' ! -path '*/fixtures/*' ! -path 'src/ui/theme/made/*' -print0 | sort -z | xargs -0 sha256sum; sha256sum package-lock.json next.config.ts package.json tsconfig.json scripts/compress.mjs scripts/offline.mjs scripts/write-component-styles.ts; } | sha256sum | cut -d' ' -f1
}

build_if_changed() {
  local print
  print="$(source_print)"
  if [ "$(cat .next/built-from 2>/dev/null)" != "$print" ]; then
    echo "Building ..."
    npm run --silent build || return 1
    echo "$print" >.next/built-from
  fi
}

find_chromium() {
  if [ -n "${CHROMIUM:-}" ]; then return; fi
  CHROMIUM="$(command -v chromium || command -v chromium-browser || true)"
  if [ -z "$CHROMIUM" ] && command -v apt-get >/dev/null && [ "$(id -u)" = 0 ]; then
    echo "Installing chromium ..."
    (apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium) >/dev/null 2>&1 || true
    CHROMIUM="$(command -v chromium || true)"
  fi
  export CHROMIUM
}
