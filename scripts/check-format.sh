#!/usr/bin/env bash
# Fails when a C++ file is not formatted as .clang-format says; --fix formats them all.
set -euo pipefail
cd "$(dirname "$0")/.."
mode=(--dry-run --Werror)
[ "${1:-}" = "--fix" ] && mode=(-i)
find src demo tests bench -name '*.h' -o -name '*.cc' | xargs clang-format "${mode[@]}"
