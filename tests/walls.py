"""The link lines are the walls, for headers too: reads every include of the rooms
against what the room links, and fails where one reaches through a wall.

usage: walls.py ROOT
"""
import os
import re
import sys

root = sys.argv[1]
rooms = {}  # name: (folder, linked rooms)
for cmake in ("core/CMakeLists.txt", "files/CMakeLists.txt", "link/CMakeLists.txt", "cli/CMakeLists.txt", "app/CMakeLists.txt"):
    with open(os.path.join(root, cmake), encoding="utf-8") as f:
        for name, body in re.findall(r"vernal_room\((\w+)\s+SOURCES(.*?)\)\n", f.read(), re.S):
            folder = cmake.split("/")[0]
            rooms[name] = (f"core/{name}" if folder == "core" else folder, set(re.findall(r"\bvernal_(\w+)", body.split("LINKS")[1]) if "LINKS" in body else []))


def reachable(name, seen=None):
    seen = seen if seen is not None else set()
    for linked in rooms[name][1]:
        if linked in rooms and linked not in seen:
            seen.add(linked)
            reachable(linked, seen)
    return seen


def room_of(path):
    for name, (folder, _) in rooms.items():
        if path.startswith(folder + "/"):
            return name
    return None


broken, read = [], 0
for name, (folder, _) in rooms.items():
    may = reachable(name) | {name}
    for where, _, files in os.walk(os.path.join(root, folder)):
        for file in files:
            if not file.endswith((".cpp", ".h")):
                continue
            path = os.path.relpath(os.path.join(where, file), root)
            with open(os.path.join(root, path), encoding="utf-8") as f:
                for target in re.findall(r'^#include "([^"]+)"', f.read(), re.M):
                    read += 1
                    beside = os.path.normpath(os.path.join(os.path.dirname(path), target))
                    own = beside if os.path.exists(os.path.join(root, beside)) else target
                    if (other := room_of(own)) and other not in may:
                        broken.append(f"{path} includes {target}: {name} does not link {other}")
print(f"{len(rooms)} rooms, {read} includes")
if len(rooms) < 8 or read < 300:
    broken.append("the link lines or the includes were not found: is the pattern out of date?")
print("\n".join(broken))
sys.exit(1 if broken else 0)
