# Sourced by ./demo, ./test and ./bench/run. Makes .venv from the locked requirements and installs what
# Qt needs from Debian. Usage: environment run|dev ; a second call finds its stamp and does nothing.

say() { printf '%s\n' "$*" >&2; }

DEBIAN_QT="libglib2.0-0 libdbus-1-3 libfontconfig1 libxkbcommon0 libegl1 libgl1 \
libxcb-cursor0 libxcb-icccm4 libxcb-keysyms1 libxkbcommon-x11-0 libxcb-shape0 xvfb xauth"

# True where a Debian package, or on newer releases its t64 successor, is installed.
has_package() {
  dpkg-query -W -f='${Status}' "$1" 2>/dev/null | grep -q 'ok installed' ||
    dpkg-query -W -f='${Status}' "${1}t64" 2>/dev/null | grep -q 'ok installed'
}

debian_packages() {
  command -v dpkg-query >/dev/null 2>&1 || {
    say "This is no Debian system; install by your own means what these Debian packages hold:"
    say "  $DEBIAN_QT"
    return 0
  }
  local missing="" package root=""
  for package in $DEBIAN_QT; do
    has_package "$package" || missing="$missing $package"
  done
  python_good || missing="$missing python3 python3-venv"
  [ -z "$missing" ] && return 0
  if [ "$(id -u)" != 0 ]; then
    if sudo -n true 2>/dev/null; then root="sudo"; else
      say "These Debian packages are missing. Please run this line, then start again:"
      say "  sudo apt-get update && sudo apt-get install -y$missing"
      return 3
    fi
  fi
  say "Installing from Debian:$missing"
  $root env DEBIAN_FRONTEND=noninteractive apt-get update -qq >&2 &&
    $root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing >&2
}

python_good() {
  python3 -c 'import sys, venv, ensurepip; sys.exit(sys.version_info < (3, 11))' 2>/dev/null
}

# environment run|dev ; two that begin at the same moment wait for each other.
environment() {
  command -v flock >/dev/null 2>&1 || { made "$1"; return $?; }
  ( flock 9; made "$1" ) 9>"$ROOT/.venv.lock"
}

made() {
  local kind="$1" want stamp
  stamp="$ROOT/.venv/stamp-$kind"
  want="$(cat "$ROOT/requirements/$kind.lock" "$ROOT/pyproject.toml" | cksum) $ROOT"
  if [ -x "$ROOT/.venv/bin/python" ]; then
    if [ "$(cat "$stamp" 2>/dev/null)" = "$want" ]; then return 0; fi
    # What the tests need includes what the program needs.
    if [ "$kind" = run ] && [ -e "$ROOT/.venv/stamp-dev" ]; then
      [ "$(tail -n 1 "$ROOT/.venv/stamp-dev")" = "$(dev_want)" ] && return 0
    fi
  fi
  debian_packages || return $?
  python_good || { say "Python 3.11 or newer with its venv module is needed."; return 3; }
  say "Setting up .venv ($kind); this is done once."
  [ -x "$ROOT/.venv/bin/python" ] && "$ROOT/.venv/bin/python" -c '' 2>/dev/null ||
    { rm -rf "$ROOT/.venv"; python3 -m venv "$ROOT/.venv"; } || return 3
  "$ROOT/.venv/bin/python" -m pip install --quiet --disable-pip-version-check --require-hashes \
    -r "$ROOT/requirements/$kind.lock" 2>"$ROOT/.venv/install.log" ||
    { say "The Python packages could not be installed:"; tail -n 15 "$ROOT/.venv/install.log" >&2; return 3; }
  "$ROOT/.venv/bin/python" -m pip install --quiet --disable-pip-version-check --no-index --no-deps \
    --no-build-isolation --editable "$ROOT" 2>>"$ROOT/.venv/install.log" ||
    { say "Roomy Hull itself could not be installed:"; tail -n 15 "$ROOT/.venv/install.log" >&2; return 3; }
  # Compiled once, so that every start is quick.
  "$ROOT/.venv/bin/python" -m compileall -q "$ROOT/src" >/dev/null 2>&1
  printf '%s\n' "$want" >"$stamp"
}

dev_want() {
  printf '%s\n' "$(cat "$ROOT/requirements/dev.lock" "$ROOT/pyproject.toml" | cksum) $ROOT"
}
