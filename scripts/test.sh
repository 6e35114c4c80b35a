#!/usr/bin/env bash
# Installs what is needed, builds with warnings as errors, and runs everything that must pass: the
# format check, the unit and program tests of the release build, and under the address and
# undefined-behavior sanitizers the unit tests and every command over every kind of picture. The last
# line counts.
#
#   --thorough   run all program tests under the sanitizers, which doubles the time
set -uo pipefail
cd "$(dirname "$0")/.."
./scripts/install-packages.sh || exit 1

passed=0
failed=0
count() {  # count NAME COMMAND...: one check that passes or fails as a whole
  local name=$1
  shift
  if "$@"; then
    passed=$((passed + 1))
  else
    failed=$((failed + 1))
    echo "FAILED: $name"
  fi
}
run_ctest() {  # run_ctest PRESET [ARGUMENT...]: adds ctest's own counts
  local log total bad
  log=$(mktemp)
  ctest --preset "$@" -j "$(nproc)" 2>&1 | tee "$log" | grep -vE 'Passed|^ +Start' || true
  total=$(sed -nE 's/.*tests passed, [0-9]+ tests failed out of ([0-9]+)/\1/p' "$log" | tail -1)
  bad=$(sed -nE 's/.*tests passed, ([0-9]+) tests failed out of [0-9]+/\1/p' "$log" | tail -1)
  if [ -z "$total" ]; then
    echo "FAILED: no test ran for $1"
    failed=$((failed + 1))
  else
    passed=$((passed + total - bad))
    failed=$((failed + bad))
  fi
  rm -f "$log"
}
build() {  # build PRESET TARGET...
  ./scripts/configure.sh "$1" -DCHALCEDONY_TESTS=ON -DCHALCEDONY_WERROR=ON &&
    cmake --build --preset "$1" --target "${@:2}"
}

count "format" ./scripts/check-format.sh
count "release build" build release all
run_ctest release
count "package" ./scripts/check-package.sh
# It mostly waits for daemons: beside the build that follows.
shards_log=$(mktemp)
./scripts/check-shards.sh >"$shards_log" 2>&1 &
shards=$!
shards_passed() {
  wait "$shards"
  local result=$?
  cat "$shards_log"
  rm -f "$shards_log"
  return "$result"
}
sanitized=(unit_tests parser_tests chalcedony_program)
[ "${1:-}" = --thorough ] && sanitized=(all)
count "sanitizer build" build asan-ubsan "${sanitized[@]}"
count "shards" shards_passed
# Left out here: what repeats paths that other tests take, and takes minutes without optimization;
# and tests whose program is not built.
run_ctest asan-ubsan -E \
  'NOT_BUILT|memory that runs out|are dual|skipping distances|gives the same bits|mixtures are found again|come back exactly|best of fifty|every field of|demo tells|help of every|commands of the README|no two main colors|of many spots a page|of many patches'
# The tests are those of the release build, the program that they run is not. To look for leaks at the
# end of each of 900 runs would take a quarter of the time; the tests above look for them.
[ "${1:-}" = --thorough ] || export ASAN_OPTIONS=detect_leaks=0
CHALCEDONY_PROGRAM=$PWD/build/asan-ubsan/src/cli/chalcedony run_ctest release -R '^every kind of picture'

echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ]
