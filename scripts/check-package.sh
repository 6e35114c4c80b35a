#!/usr/bin/env bash
# Makes the Debian package of the release build, installs it, runs it, removes it, and looks for what
# stayed behind; then builds a small program against the installed core. Needs root or sudo.
set -euo pipefail
cd "$(dirname "$0")/.."

as_root=()
[ "$(id -u)" -eq 0 ] || as_root=(sudo)
scratch=$(mktemp -d)
trap 'rm -rf "$scratch"' EXIT
trap 'echo "the package fails in line $LINENO: $BASH_COMMAND" >&2; cat "$scratch/log" >&2' ERR

cpack --config build/release/CPackConfig.cmake -B "$scratch" >"$scratch/log" 2>&1
"${as_root[@]}" dpkg -i "$scratch"/chalcedony_*.deb >/dev/null
dpkg -L chalcedony | while read -r file; do [ -d "$file" ] || echo "$file"; done >"$scratch/files"

version=$(/usr/bin/chalcedony --version)
/usr/bin/chalcedony demo --list >/dev/null
/usr/bin/chalcedony inspect demo/data/panel-a.png -q
for name in chalcedony chalcedony-mask chalcedony-report; do
  grep -q "/usr/share/man/man1/$name.1" "$scratch/files"
done
offered=$(bash -c 'source /usr/share/bash-completion/completions/chalcedony
  COMP_WORDS=(chalcedony clas); COMP_CWORD=1; _chalcedony; echo "${COMPREPLY[*]}"
  COMP_WORDS=(chalcedony mask --figures p); COMP_CWORD=3; _chalcedony; echo "${COMPREPLY[*]}"
  COMP_WORDS=(chalcedony mask --wh); COMP_CWORD=2; _chalcedony; echo "${COMPREPLY[*]}"')
[ "$offered" = $'classify\npng pdf\n--where' ] || { echo "completion offers: $offered"; exit 1; }

"${as_root[@]}" dpkg -r chalcedony >/dev/null
while read -r file; do
  [ ! -e "$file" ] || { echo "left behind: $file"; exit 1; }
done <"$scratch/files"

cmake --install build/release --prefix "$scratch/core" --component development >/dev/null
cmake -S tests/consumer -B "$scratch/consumer" -G Ninja -DCMAKE_PREFIX_PATH="$scratch/core" >/dev/null
cmake --build "$scratch/consumer" >"$scratch/log"
"$scratch/consumer/consumer" >/dev/null
echo "$version: package of $(wc -l <"$scratch/files") files installed, run and removed; core built against"
