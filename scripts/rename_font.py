"""Writes a copy of a font under a family name of the program's own.

B612 Mono Bold names itself "B612 Regular" in its older name records, so that a
system with both fonts shows text in the wrong one. The program therefore ships
renamed copies (the Open Font License allows it; no name is reserved).

usage: rename_font.py IN OUT FAMILY STYLE
"""
import sys

from fontTools.ttLib import TTFont

source, target, family, style = sys.argv[1:]
font = TTFont(source)
names = font["name"]
names.names = [n for n in names.names if n.nameID not in (1, 2, 3, 4, 6, 16, 17, 21, 22)]
texts = {1: family, 2: style, 3: f"{family} {style} for Vernal Relay", 4: f"{family} {style}", 6: f"{family}-{style}".replace(" ", "")}
for name_id, text in texts.items():
    names.setName(text, name_id, 3, 1, 0x409)
if "CFF " in font:
    cff = font["CFF "].cff
    cff.fontNames = [texts[6]]
    cff.topDictIndex[0].FamilyName = family
    cff.topDictIndex[0].FullName = texts[4]
font.save(target)
