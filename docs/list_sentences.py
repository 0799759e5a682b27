"""Writes docs/sentences.md: every sentence the core can say, by module and by the code of its advice.

Run by ``make written``. Read off the source, so that none is forgotten; what is filled in when it is
said stands in braces.
"""

import ast
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
OUT = ROOT / "docs/sentences.md"
HEAD = """# Every sentence the core can say

Written by `make written` from the source; do not edit. What is filled in stands in braces. Codes are
those of the advice (`notes[].code`); sentences without one are instructions, workings and faults.
"""


def _text(node: ast.expr) -> str | None:
    """A literal or an f-string as it is read."""
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        return node.value
    if isinstance(node, ast.JoinedStr):
        parts = []
        for part in node.values:
            if isinstance(part, ast.FormattedValue):
                parts.append("{" + ast.unparse(part.value).replace("\n", " ") + "}")
            elif isinstance(part, ast.Constant):
                parts.append(str(part.value))
        return "".join(parts)
    return None


def _is_sentence(text: str) -> bool:
    words = text.split()
    # an address, a signature, a pattern, a grammar
    no_words = text.startswith("http") or any(
        m in text for m in ("f8[", "\\b", "(?", "|for", "%ignore")
    )
    return len(words) >= 3 and any(c.isalpha() for c in text) and not no_words


def _docstrings(tree: ast.Module) -> set[int]:
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef):
            first = node.body[0] if node.body else None
            if isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant):
                found.add(id(first.value))
    return found


class _Sentences(ast.NodeVisitor):
    """Sentences in the order they stand, each with the code of the note it belongs to."""

    def __init__(self, tree: ast.Module) -> None:
        self.quiet = _docstrings(tree)
        self.code = ""
        self.found: list[tuple[str, str]] = []
        self.visit(tree)

    def visit_Subscript(self, node: ast.Subscript) -> None:
        """A key is no sentence, nor is a type."""

    def visit_Call(self, node: ast.Call) -> None:
        name = (
            node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")
        )
        if name in ("cast", "TypeVar", "ValueError", "AssertionError", "replace"):
            return
        code = _text(node.args[0]) if node.args and name in ("note", "Note", "_note") else None
        before, self.code = self.code, code or self.code
        self.generic_visit(node)
        self.code = before

    def _take(self, node: ast.expr) -> None:
        text = _text(node)
        if text and id(node) not in self.quiet and _is_sentence(text):
            self.found.append((self.code, text.strip()))

    def visit_Constant(self, node: ast.Constant) -> None:
        self._take(node)

    def visit_JoinedStr(self, node: ast.JoinedStr) -> None:
        self._take(node)
        for part in node.values:
            if isinstance(part, ast.FormattedValue):
                self.visit(part.value)


def lines() -> Iterator[str]:
    """The document, line by line."""
    yield HEAD
    for path in sorted((ROOT / "lamination").glob("*/*.py")):
        found = _Sentences(ast.parse(path.read_text())).found
        if not found:
            continue
        yield f"\n## {path.parent.name}/{path.stem}\n"
        for code, text in found:
            yield f"- {f'`{code}` ' if code else ''}{text}"


def text() -> str:
    """The whole document."""
    return "\n".join(lines()) + "\n"


if __name__ == "__main__":
    OUT.write_text(text())
