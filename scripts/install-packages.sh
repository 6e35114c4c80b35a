#!/usr/bin/env bash
# Installs the Debian packages Chalcedony needs to be built, run and tested; with --build-only,
# without those that only the tests use; with --bench, with those of the benchmarks. Does nothing when
# all are there.
set -euo pipefail

build=(g++ cmake ninja-build pkg-config libboost-dev libboost-program-options-dev
  libboost-filesystem-dev libeigen3-dev libfmt-dev libspdlog-dev libtbb-dev libhwy-dev libspng-dev
  libjpeg62-turbo-dev libtiff-dev libwebp-dev libisal-dev libxxhash-dev zlib1g-dev nlohmann-json3-dev libvalijson-dev
  libyaml-cpp-dev gnuplot-nox fonts-dejavu-core)
test=(catch2 libpng-dev clang libclang-rt-dev lld clang-format dpkg-dev file chromium parallel
  slurm-wlm munge)

packages=("${build[@]}")
[ "${1:-}" = "--build-only" ] || packages+=("${test[@]}")
[ "${1:-}" = "--bench" ] && packages+=(libbenchmark-dev)

missing=()
for package in "${packages[@]}"; do
  dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || missing+=("$package")
done
[ ${#missing[@]} -eq 0 ] && exit 0

as_root=()
if [ "$(id -u)" -ne 0 ]; then
  command -v sudo >/dev/null || { echo "root or sudo is needed to install: ${missing[*]}" >&2; exit 1; }
  as_root=(sudo)
fi
echo "installing ${missing[*]}"
"${as_root[@]}" apt-get update -qq
DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get install -y -qq --no-install-recommends \
  "${missing[@]}" >/dev/null
