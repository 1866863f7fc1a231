#!/bin/sh
# Runs clang-tidy with the checks of .clang-tidy; any finding is an error.
# usage: scripts/tidy.sh [BUILD_FOLDER [FILE …]]
# Without files: those the last commit changed, and what is not committed yet; of
# more than forty the first forty.
set -eu
cd "$(dirname "$0")/.."
folder=${1:-build/check}
[ $# -gt 0 ] && shift
if [ $# -gt 0 ]; then
    files=$*
else
    files=$( (git diff --name-only --diff-filter=d HEAD^ HEAD 2>/dev/null; git diff --name-only --diff-filter=d HEAD 2>/dev/null) | sort -u | grep '^\(app\|bench\|cli\|core\|files\|link\|tests\)/.*\.cpp$' || true)
fi
[ -z "$files" ] && exit 0
if [ $# -eq 0 ] && [ "$(printf '%s\n' $files | wc -l)" -gt 40 ]; then
    echo "clang-tidy: forty of $(printf '%s\n' $files | wc -l) changed files"
    files=$(printf '%s\n' $files | head -n 40)
fi
# What only GCC knows is taken out: its warnings, and its precompiled headers, whose
# text is included instead.
here=$(cd "$folder" && pwd)
mkdir -p "$here/tidy"
find "$here" -name cmake_pch.hxx | while read -r header; do
    cp "$header" "$here/tidy/$(basename "$(dirname "$header")" .dir).hxx"
done
sed "s#-include [^ ]*/\([a-z_]*\)\.dir/cmake_pch.hxx#-include $here/tidy/\1.hxx#; s/-Winvalid-pch//; s/-Wno-restrict -Wno-stringop-overflow//" \
    "$here/compile_commands.json" >"$here/tidy/compile_commands.json"
# shellcheck disable=SC2086
printf '%s\n' $files | xargs -P 2 -n 4 clang-tidy -quiet -p "$here/tidy"
