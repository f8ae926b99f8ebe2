"""For each file named on standard input, one line of JSON: its scopes and what each of their names is."""

import json
import symtable
import sys


def kind(symbol, is_module):
    if is_module:
        bound = symbol.is_assigned() or symbol.is_imported() or symbol.is_namespace() or symbol.is_annotated()
        return "local" if bound else "global"
    if symbol.is_free():
        return "free"
    if symbol.is_global():
        return "global"
    return "local"


def scopes(table, found):
    names = {symbol.get_name(): kind(symbol, table.get_type() == "module") for symbol in table.get_symbols()}
    found.append([table.get_type(), table.get_name(), table.get_lineno(), names])
    for child in table.get_children():
        scopes(child, found)


for path in sys.stdin.read().split("\n"):
    found = None
    try:
        with open(path, encoding="utf-8") as source:
            text = source.read()
        found = []
        scopes(symtable.symtable(text, path, "exec"), found)
    except (SyntaxError, UnicodeDecodeError, OSError, ValueError):
        found = None
    print(json.dumps(found))
