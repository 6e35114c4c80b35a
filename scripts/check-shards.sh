#!/usr/bin/env bash
# Runs shards under real engines, GNU parallel and a Slurm cluster of one node on this machine, and
# compares what they leave with one run, byte by byte. Says so where one cannot be started.
set -euo pipefail
cd "$(dirname "$0")/.."
scratch=$(mktemp -d)
trap 'stop_slurm; rm -rf "$scratch"' EXIT
trap 'echo "the check fails in line $LINENO: $BASH_COMMAND" >&2' ERR
export PATH="$PWD/build/release/src/cli:$PWD/scripts/shards:$PATH"
command=(classify panes --model glass.model.json --write classes,areas)

stop_slurm() {
  for daemon in slurmd slurmctld munged; do
    [ -s "$scratch/$daemon.pid" ] && kill "$(cat "$scratch/$daemon.pid")" 2>/dev/null
  done
  sleep 0.5
}

start_slurm() {  # false when a daemon cannot be started
  local host=$(hostname -s) port=$((20000 + RANDOM % 20000)) user=root
  dd if=/dev/urandom of="$scratch/munge.key" bs=1024 count=1 status=none
  chmod 400 "$scratch/munge.key"
  cat >"$scratch/slurm.conf" <<CONF
ClusterName=shards
SlurmctldHost=$host(127.0.0.1)
SlurmUser=$user
SlurmctldPort=$port
SlurmdPort=$((port + 1))
AuthType=auth/munge
AuthInfo=socket=$scratch/munge.socket
CredType=cred/munge
ProctrackType=proctrack/pgid
TaskPlugin=task/none
SelectType=select/cons_tres
ReturnToService=2
MpiDefault=none
StateSaveLocation=$scratch/state
SlurmdSpoolDir=$scratch/spool
SlurmctldPidFile=$scratch/slurmctld.pid
SlurmdPidFile=$scratch/slurmd.pid
SlurmctldLogFile=$scratch/slurmctld.log
SlurmdLogFile=$scratch/slurmd.log
NodeName=$host NodeAddr=127.0.0.1 CPUs=$(nproc) State=UNKNOWN
PartitionName=all Nodes=ALL Default=YES MaxTime=INFINITE State=UP
CONF
  mkdir -p "$scratch/state" "$scratch/spool"
  export SLURM_CONF="$scratch/slurm.conf"
  munged --force --key-file "$scratch/munge.key" --socket "$scratch/munge.socket" \
    --pid-file "$scratch/munged.pid" --log-file "$scratch/munged.log" \
    --seed-file "$scratch/munge.seed" >/dev/null 2>&1 || return 1
  slurmctld -i >/dev/null 2>&1 || return 1
  slurmd >/dev/null 2>&1 || return 1
  for _ in $(seq 40); do
    [ "$(sinfo --noheader --format %t 2>/dev/null)" = idle ] && return 0
    sleep 0.5
  done
  return 1
}

cp -r demo/data "$scratch/work"
mkdir "$scratch/work/panes"
for i in 1 2 3; do
  for panel in a b c d; do cp "$scratch/work/panel-$panel.png" "$scratch/work/panes/$panel-$i.png"; done
done
cd "$scratch/work"
chalcedony "${command[@]}" -o maps -q
mv maps one

if command -v parallel >/dev/null; then
  shards-parallel.sh 3 maps "${command[@]}" >/dev/null
  diff -r one maps
  rm -r maps maps.shard-*
  chalcedony run glass.recipe.yaml panes --figures none -o maps -q
  mv maps steps
  shards-parallel.sh 3 maps run glass.recipe.yaml panes --figures none >/dev/null
  # What a step read of another one is younger in the gathered folder.
  find steps maps -name "*.jsonl" -exec sed -i 's/"modified":[0-9]*//' {} +
  diff -r steps maps
  rm -r maps maps.shard-* steps
  echo "GNU parallel: three shards of a command and of a recipe are one run"
else
  echo "SKIPPED: GNU parallel is not installed"
fi

if ! command -v slurmctld >/dev/null || [ "$(id -u)" -ne 0 ]; then
  echo "SKIPPED: Slurm is not installed, or this is not root"
elif ! start_slurm; then
  echo "SKIPPED: Slurm cannot be started on this machine: $(tail -1 "$scratch"/slurm*.log 2>/dev/null | tail -1)"
else
  sbatch --quiet --wait --array=1-4 --output="$scratch/task-%a.log" \
    "$(command -v shards.sbatch)" maps "${command[@]}"
  chalcedony gather maps.shard-* -o maps -q
  diff -r one maps
  echo "Slurm: a job array of four shards is one run"
fi
