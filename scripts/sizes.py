"""Prints how large files and functions are, and the tests' share of the C++ lines.

A function is taken to begin at a line that ends in `)`, `const`, `override` or an
initialiser and is followed by `{` alone, and to end at the `}` of the same indent;
bodies on one line count as one. Needs the tree to be formatted.

usage: python3 scripts/sizes.py [FOLDER]
"""
import os
import re
import statistics
import sys

root = sys.argv[1] if len(sys.argv) > 1 else "."
rooms = ["app", "bench", "cli", "core", "files", "tests"]
longest_file, longest_function = 400, 60
tables = {("tests/core/findings_test.cpp", "cases()"), ("app/shell/theme.cpp", "sheet(")}  # lists in the form of a function


def sources():
    for room in rooms:
        for folder, _, names in os.walk(os.path.join(root, room)):
            for name in sorted(names):
                if name.endswith((".cpp", ".h")):
                    yield os.path.relpath(os.path.join(folder, name), root)


def functions(lines):
    for i, line in enumerate(lines[:-1]):
        opener = lines[i + 1]
        if opener.strip() != "{" or re.match(r"\s*(namespace|struct|class|enum|union)\b", line) or not re.search(r"\)|const$|override$", line):
            continue
        close = opener.replace("{", "}")
        for j in range(i + 2, len(lines)):
            if lines[j].rstrip(";") == close:
                yield line.strip(), j - i - 1
                break


files, bodies, tests, total = [], [], 0, 0
for path in sources():
    with open(os.path.join(root, path), encoding="utf-8") as f:
        lines = f.read().split("\n")
    full = sum(1 for line in lines if line.strip())
    total += full
    tests += full if path.startswith("tests") else 0
    files.append((len(lines) - 1, path))
    bodies += [(length, path, name) for name, length in functions(lines)]

lengths = sorted(n for n, _ in files)
spans = sorted(n for n, _, _ in bodies)
print(f"{len(files)} files, median {statistics.median(lengths):.0f} lines; {len(spans)} functions with a block, median {statistics.median(spans):.0f} lines, nine in ten at most {spans[len(spans) * 9 // 10]}")
print(f"tests: {100 * tests / total:.0f} % of {total} lines that are not empty")
for n, path in sorted(files, reverse=True):
    if n > longest_file:
        print(f"over {longest_file} lines: {path} ({n})")
for n, path, name in sorted(bodies, reverse=True):
    if n > longest_function and not any(path == p and f in name for p, f in tables):
        print(f"over {longest_function} lines in a function: {path}: {name[:70]} ({n})")
