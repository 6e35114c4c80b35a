#!/usr/bin/env bash
# Installs what is needed, builds Chalcedony, and shows the main job on the demo data.
set -euo pipefail
cd "$(dirname "$0")/.."
./scripts/install-packages.sh --build-only
./scripts/configure.sh release -DCHALCEDONY_TESTS=OFF
cmake --build --preset release --target chalcedony_program
rm -rf demo-results
./build/release/src/cli/chalcedony demo -o demo-results
echo "Figures, maps and tables are in demo-results/results/."
