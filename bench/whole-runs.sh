#!/usr/bin/env bash
# Builds the benchmarks, draws a 24-megapixel picture (and one four times larger with --large) into a
# folder, and measures whole commands against a floor that only decodes. WORK names the folder; COLORS says how
# many distinct colors are drawn (300000); ROWS, if set, picks the rows that begin so. Without it groups of
# colors, and nanoseconds a pixel of what is done on every pixel, are measured too.
set -euo pipefail
cd "$(dirname "$0")/.."
work=${WORK:-/tmp/chalcedony-bench}
mkdir -p "$work"
./scripts/install-packages.sh --bench
cmake --preset bench >/dev/null
cmake --build --preset bench --target chalcedony_program chalcedony_demo_data chalcedony_floor \
  chalcedony_whole_runs chalcedony_groups chalcedony_kernels >/dev/null
bin=build/release
size=(6000 4000)
[ "${1:-}" = "--large" ] && size=(12000 8000)
pictures=()
for extension in jpg png tif; do
  picture="$work/photo-${size[0]}x${size[1]}${COLORS:+-$COLORS}.$extension"
  [ -e "$picture" ] || $bin/demo/chalcedony-demo-data photo "$picture" "${size[@]}" "${COLORS:-300000}"
  pictures+=("$picture")
done
echo "$(nproc) cores, $(sed -nE 's/^model name\s*: //p' /proc/cpuinfo | head -1)"
# Eight classes of some 625 sample pixels each to train with, by every method.
samples=()
for place in 300,300 1500,900 2700,500 3900,1500 5100,700 700,2500 2300,3300 4500,2900; do
  samples+=(--sample "class-$((${#samples[@]} / 2 + 1))=$place,28,28")
done
$bin/src/cli/chalcedony train "${pictures[1]}" "${samples[@]}" --method all --holdout 0.2 \
  -o "$work/models" --write model -q
$bin/bench/chalcedony-whole-runs $bin/src/cli/chalcedony $bin/bench/chalcedony-floor "$work/out" \
  "$work/models" "${ROWS:-}" "${pictures[@]}"
[ -z "${ROWS:-}" ] || exit 0
$bin/bench/chalcedony-groups "${pictures[0]}"
$bin/bench/chalcedony-kernels 2>/dev/null
