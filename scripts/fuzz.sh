#!/bin/sh
# Feeds the readers with bytes that clang's fuzzer makes up from the corpus in
# tests/fuzz. A find is left in build/fuzz/finds, with what went wrong on the screen.
# usage: scripts/fuzz.sh [SECONDS_EACH [READER …]]
set -eu
cd "$(dirname "$0")/.."
seconds=${1:-600}
[ $# -gt 0 ] && shift
[ $# -eq 0 ] && set -- job container log points curves number epw import procedure unit drill map modbus
command -v clang++ >/dev/null || { echo "clang++ is missing: apt-get install clang"; exit 1; }
cmake --preset fuzz >/dev/null
cmake --build --preset fuzz
mkdir -p build/fuzz/finds
for reader; do
    mkdir -p build/fuzz/corpus/"$reader"
    echo "$reader, $seconds s"
    build/fuzz/tests/fuzz_"$reader" -max_total_time="$seconds" -timeout=10 -rss_limit_mb=4096 -print_final_stats=1 \
        -artifact_prefix=build/fuzz/finds/"$reader"- build/fuzz/corpus/"$reader" tests/fuzz/corpus/"$reader"
done
