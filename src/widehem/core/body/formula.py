"""Formulas of a figure table: read from words, safely, into a function of the measures they name."""

from __future__ import annotations

import ast
import math
from collections.abc import Callable
from functools import cache

from widehem.core.values import record

Lookup = Callable[[str], float]
_SIGNS = {ast.Add: "+", ast.Sub: "−", ast.Mult: "×", ast.Div: "÷"}
_SPELLED = str.maketrans({"−": "-", "×": "*", "÷": "/"})
_RANK = {ast.Add: 1, ast.Sub: 1, ast.Mult: 2, ast.Div: 2}


class FormulaError(ValueError):
    """A formula cannot be read; one sentence naming what is wrong."""


def _root(whole: float, part: float) -> float:
    """The other side of a right-angled triangle."""
    return math.sqrt(max(whole * whole - part * part, 0.0))


_CALLS: dict[str, Callable[[float, float], float]] = {"root": _root, "distance": math.hypot}


@record(frozen=True)
class Formula:
    """A formula ready to use. names: the measures it rests on, in order of first use."""

    text: str
    tree: ast.expr
    names: tuple[str, ...]

    def value(self, look_up: Lookup) -> float:
        """What it comes to, cm; look_up gives the value of a measure."""
        return _value(self.tree, look_up)

    def working(self, term: Callable[[str], str], figure: Callable[[float], str]) -> str:
        """The formula in words: term gives a measure with its value, figure a plain number."""
        return _words(self.tree, term, figure)


@cache
def read_formula(text: str) -> Formula:
    """Read a formula. Raises FormulaError."""
    try:
        tree = ast.parse(text.strip().translate(_SPELLED), mode="eval").body
    except (SyntaxError, ValueError, RecursionError, MemoryError):
        raise FormulaError(f'"{text}" is not a formula: write one like F / 4 + 12.4.') from None
    names: dict[str, None] = {}
    _check(tree, text, names)
    return Formula(text, tree, tuple(names))


def _check(node: ast.expr, text: str, names: dict[str, None]) -> None:
    if isinstance(node, ast.BinOp) and type(node.op) in _SIGNS:
        _check(node.left, text, names)
        _check(node.right, text, names)
    elif isinstance(node, ast.Name):
        names[node.id] = None
    elif isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in _CALLS and len(node.args) == 2:
        for argument in node.args:
            _check(argument, text, names)
    elif not (isinstance(node, ast.Constant) and type(node.value) in (int, float)):
        raise FormulaError(f'"{text}" uses something a formula cannot: only measures, numbers, + - * / and brackets.')


def _value(node: ast.expr, look_up: Lookup) -> float:
    if isinstance(node, ast.BinOp):
        a, b = _value(node.left, look_up), _value(node.right, look_up)
        if isinstance(node.op, ast.Add):
            return a + b
        if isinstance(node.op, ast.Sub):
            return a - b
        return a * b if isinstance(node.op, ast.Mult) else a / b
    if isinstance(node, ast.Name):
        return look_up(node.id)
    if isinstance(node, ast.Call):
        assert isinstance(node.func, ast.Name)
        return _CALLS[node.func.id](*(_value(argument, look_up) for argument in node.args))
    assert isinstance(node, ast.Constant)
    return float(node.value)  # type: ignore[arg-type]


def _words(
    node: ast.expr, term: Callable[[str], str], figure: Callable[[float], str], above: int = 0, right: bool = False
) -> str:
    if isinstance(node, ast.BinOp):
        rank = _RANK[type(node.op)]
        plain = isinstance(node.op, ast.Mult | ast.Div)
        left = _words(node.left, term, _factor if plain else figure, rank)
        other = _words(node.right, term, _factor if plain else figure, rank, True)
        words = f"{left} {_SIGNS[type(node.op)]} {other}"
        return f"({words})" if rank < above or (right and rank == above) else words
    if isinstance(node, ast.Name):
        return term(node.id)
    if isinstance(node, ast.Call):
        assert isinstance(node.func, ast.Name)
        inside = " and ".join(_words(argument, term, figure) for argument in node.args)
        return f"the straight {'across' if node.func.id == 'distance' else 'side'} of {inside}"
    assert isinstance(node, ast.Constant)
    return figure(float(node.value))  # type: ignore[arg-type]


def _factor(value: float) -> str:
    return f"{value:g}"
