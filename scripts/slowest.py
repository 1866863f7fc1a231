#!/usr/bin/env python3
"""Prints the ten sources that take longest to compile, from a build folder's ninja log.

usage: scripts/slowest.py [BUILD_FOLDER [COUNT]]

Seconds are those of the last time each was built; build from nothing, on a quiet machine,
to compare.
"""
import os
import sys

folder = sys.argv[1] if len(sys.argv) > 1 else "build/check"
count = int(sys.argv[2]) if len(sys.argv) > 2 else 10
took = {}
with open(os.path.join(folder, ".ninja_log"), encoding="utf-8") as log:
    for line in log:
        if not line.startswith("#"):
            start, end, _, output, _ = line.split("\t")
            if output.endswith((".o", ".gch")):
                took[output] = (int(end) - int(start)) / 1000
print(f"{len(took)} compilations, {sum(took.values()):.0f} s together")
for output, seconds in sorted(took.items(), key=lambda x: -x[1])[:count]:
    print(f"{seconds:7.1f} s  {output}")
