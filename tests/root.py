"""What may lie at the root of the tree, and that nothing large is tracked but pictures.

usage: root.py ROOT
"""
import os
import subprocess
import sys

root = sys.argv[1]
allowed = {".ci", ".clang-format", ".clang-tidy", ".editorconfig", ".git-blame-ignore-revs", ".gitattributes", ".gitignore",
           "CHANGELOG.md", "CMakeLists.txt", "CMakePresets.json", "CONTRIBUTING.md", "LICENSE", "README.md",
           "app", "bench", "cli", "cmake", "core", "data", "demo", "docs", "files", "link", "make-package", "run-demo", "run-tests", "scripts", "tests"}
largest_b = 1_000_000
listed = subprocess.run(["git", "-C", root, "ls-files", "-z"], capture_output=True, check=False)
if listed.returncode != 0:
    print("no git checkout: nothing is tracked here")
    sys.exit(0)
tracked = [f for f in listed.stdout.decode().split("\0") if f]
wrong = sorted({f.split("/")[0] for f in tracked} - allowed)
for name in wrong:
    print(f"{name}: not known at the root; add it to tests/root.py or move it")
for f in tracked:
    path = os.path.join(root, f)
    if not f.endswith(".png") and os.path.isfile(path) and os.path.getsize(path) > largest_b:
        print(f"{f}: {os.path.getsize(path)} bytes, more than {largest_b}")
        wrong.append(f)
print(f"{len(tracked)} files tracked")
sys.exit(1 if wrong or not tracked else 0)
