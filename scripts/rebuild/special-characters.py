#!/usr/bin/env python3
"""Rebuilds packages/web/parts/field-editor/special-characters.json: characters that a cataloguer picks by name.

Names are those of the Unicode Character Database, as Python's unicodedata has them. Which characters: those of
ANSEL (MARC 21 Specifications: Character Sets, Extended Latin) from marc8-tables.json, letters of Latin Extended that
romanisation tables use, and signs of punctuation.
"""
import json
import pathlib
import unicodedata

ROOT = pathlib.Path(__file__).resolve().parents[2]
tables = json.loads((ROOT / "packages/core/marc/charset/marc8-tables.json").read_text())
ansel = tables["sets"]["45"]["codes"]

MORE = (
    "ÀÁÂÃÄÅĀĂĄÇĆČĎÈÉÊËĒĖĘĚĞĢÌÍÎÏĪĮİĶĻĽÑŃŅŇÒÓÔÕÖŌŐŔŘŚŞŠȘŢŤȚÙÚÛÜŪŮŰŲÝŶŸŹŻŽ"
    "àáâãäåāăąçćčďèéêëēėęěğģìíîïīįķļľñńņňòóôõöōőŕřśşšșţťțùúûüūůűųýŷÿźżž"
    "ḌḤḲḶṂṆṚṢṬẒḍḥḳḷṃṇṛṣṭẓẖḏṯßẞ"
    "‘’‚“”„‹›«»–—―…†‡•§¶‰′″ʹʺʻʼʿʾ°©®℗™ªº¹²³½¼¾×÷±≤≥≈∞€£¥$¢♭♮♯¿¡·"
)
chosen = dict.fromkeys(MORE)
marc8 = {chr(int(pair.split("=")[1], 16)) for pair in ansel.split()}
for c in sorted(marc8):
    chosen[c] = None
rows = []
for c in chosen:
    name = unicodedata.name(c, "")
    if not name:
        continue
    base = unicodedata.normalize("NFD", c)
    rows.append([c, name.lower(), int(all(b in marc8 or ord(b) < 0x7F for b in base))])
SOURCE = "Unicode Character Database, names; MARC 21 Specifications: Character Sets (Extended Latin). Built by scripts/rebuild/special-characters.py"
path = ROOT / "packages/web/parts/field-editor/special-characters.json"
lines = ",\n".join(json.dumps(row, ensure_ascii=False) for row in rows)
path.write_text('{\n"source": %s,\n"characters": [\n%s\n]\n}\n' % (json.dumps(SOURCE), lines))
print(len(rows), "characters;", len(marc8), "of ANSEL")
