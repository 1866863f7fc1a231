"""No two types of one name: in each room's headers, and those of all rooms, a type stands once.

Two that differ are undefined behaviour the linker does not see. Types inside a type, a namespace of
their own or a source file do not count.

usage: one_definition.py ROOT
"""
import os
import re
import sys

root = sys.argv[1]
defined = {}
for room in ("core", "files", "link", "cli", "app"):
    for where, _, names in os.walk(os.path.join(root, room)):
        for name in names:
            if not name.endswith(".h"):
                continue
            path = os.path.join(where, name)
            space = ""
            with open(path, encoding="utf-8") as f:
                for line in f:
                    if m := re.match(r"namespace ([\w:]+)\s*\{", line):
                        space = m.group(1)
                    if m := re.match(r"(?:struct|class|enum class) (\w+)(?! *;)[^;]*(?:\{|$)", line):
                        defined.setdefault((space, m.group(1)), set()).add(os.path.relpath(path, root))
twice = {k: v for k, v in defined.items() if len(v) > 1}
for (space, name), paths in sorted(twice.items()):
    print(f"{space}::{name} in {', '.join(sorted(paths))}")
print(f"{len(defined)} types in headers")
sys.exit(1 if twice or not defined else 0)
