#!/usr/bin/env bash
# Rates of runs over many small pictures: makes COUNT thumbnails of 120x90 from the demo panels and
# prints for each command the pictures a second on one thread and on all, the peak memory, and what
# --resume and gather take. For docs/scale.md.
set -euo pipefail
cd "$(dirname "$0")/.."
count=${1:-10000}
program=$PWD/build/release/src/cli/chalcedony
scratch=$(mktemp -d)
trap 'rm -rf "$scratch"' EXIT
cp demo/data/panel-?.png demo/data/glass.model.json "$scratch"
cd "$scratch"
mkdir cut thumbs
for panel in a b c d; do
  for x in 0 60 120 180 240 300 360; do
    for y in 0 60 120 180 240; do
      "$program" reframe "panel-$panel.png" --crop "$x,$y,120,90" -o "cut/$panel-$x-$y.png" -q
    done
  done
done
cuts=(cut/*.png)
for ((i = 0; i < count; ++i)); do ln "${cuts[i % ${#cuts[@]}]}" "thumbs/thumb-$i.png"; done

timed() {  # timed LABEL COMMAND...: seconds, pictures a second, peak memory
  local label=$1
  shift
  /usr/bin/time -f "%e %M" -o time "$@" >/dev/null
  read -r seconds kilobytes <time
  printf '%-46s %8.2f s %9.0f a second %7.0f MB\n' "$label" "$seconds" \
    "$(echo "$count / $seconds" | bc -l)" "$(echo "$kilobytes / 1024" | bc -l)"
}

commands=("inspect thumbs" "convert thumbs --to oklab --depth 8"
  "histogram thumbs --channels lab.l,lab.a,lab.b" "mask thumbs --where lab.l>50 --write mask"
  "classify thumbs --model glass.model.json --write classes,areas")
for command in "${commands[@]}"; do
  read -ra words <<<"$command"
  for threads in 1 "$(nproc)"; do
    rm -rf out
    timed "${words[0]}, $threads threads" "$program" "${words[@]}" --threads "$threads" -o out
  done
done
timed "classify --resume, nothing to do" "$program" "${words[@]}" -o out --resume
timed "classify --resume --verify, nothing to do" "$program" "${words[@]}" -o out --resume --verify
for i in 1 2; do "$program" "${words[@]}" --shard "$i/2" -o "shard-$i" -q; done
timed "gather of two shards of classify" "$program" gather shard-1 shard-2 -o all
diff -rq out all
du -sh out/classify.pictures.jsonl out/how.json
