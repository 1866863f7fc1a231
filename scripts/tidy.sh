#!/bin/sh
# Runs clang-tidy with the checks of .clang-tidy; any finding is an error.
# usage: scripts/tidy.sh [FILE …]
# Without files: those the last commit changed, and what is not committed yet; of
# more than eight the first eight.
set -eu
cd "$(dirname "$0")/.."
if [ $# -gt 0 ]; then
    files=$*
else
    files=$( (git diff --name-only --diff-filter=d HEAD^ HEAD 2>/dev/null; git diff --name-only --diff-filter=d HEAD 2>/dev/null) | sort -u | grep '^\(app\|bench\|cli\|core\|files\|link\|tests\)/.*\.cpp$' || true)
fi
[ -z "$files" ] && exit 0
if [ $# -eq 0 ] && [ "$(printf '%s\n' $files | wc -l)" -gt 8 ]; then
    echo "clang-tidy: eight of $(printf '%s\n' $files | wc -l) changed files"
    files=$(printf '%s\n' $files | head -n 8)
fi
# Source by source, with what each includes itself: build/tidy is configured for that and not built.
[ -f build/tidy/build.ninja ] || cmake --preset tidy >/dev/null
for test in $(printf '%s\n' $files | sed -n 's#^tests/app/\([a-z_]*\)\.cpp$#\1#p'); do
    ninja -C build/tidy "${test}_autogen" >/dev/null # its .moc
done
case "$files" in *app/*) ninja -C build/tidy vernal_app_autogen >/dev/null ;; esac
mkdir -p build/tidy/commands
sed 's/-Wno-restrict -Wno-stringop-overflow//' build/tidy/compile_commands.json >build/tidy/commands/compile_commands.json
# shellcheck disable=SC2086
printf '%s\n' $files | xargs -P 2 -n 4 clang-tidy -quiet -p build/tidy/commands
