#!/bin/bash
# The shards of a run over many pictures by GNU parallel, and their results put together:
#
#   shards-parallel.sh 8 maps classify survey/ --recursive --model model.json
#
# Eight shards write into maps.shard-1 ... and are gathered into maps. PARALLEL_OPTIONS are handed to
# parallel: "--sshloginfile machines" runs the shards on several machines that see the same folders.
# Started again after it was stopped, it goes on. Pictures that fail do not keep the others from being
# gathered; the exit code is then 1.
set -uo pipefail
shards=$1 folder=$2
shift 2
# shellcheck disable=SC2086  # options are several words
seq "$shards" | parallel --quote ${PARALLEL_OPTIONS:-} \
  chalcedony "$@" --resume --quiet --shard "{}/$shards" -o "$folder.shard-{}"
failed=$?
parts=()
for ((i = 1; i <= shards; ++i)); do parts+=("$folder.shard-$i"); done
chalcedony gather "${parts[@]}" -o "$folder" && [ "$failed" -eq 0 ]
