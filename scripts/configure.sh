#!/usr/bin/env bash
# Configures a preset: configure.sh PRESET [CMAKE OPTION...]. A folder without a build compiles several
# files at once, which is done sooner from nothing.
set -euo pipefail
cd "$(dirname "$0")/.."
[ -e "build/$1/CMakeCache.txt" ] || set -- "$@" -DCHALCEDONY_TOGETHER=ON
cmake --preset "$@" >/dev/null
