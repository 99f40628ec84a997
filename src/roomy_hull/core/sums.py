"""The value of a typed sum, by Python's own parser and nothing but figures and the four operations."""

import ast
import operator
from collections.abc import Callable

_OPERATORS: dict[type, Callable[[float, float], float]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
}


def evaluated(text: str, own: float) -> tuple[float, bool]:
    """The value of a sum, and whether it carries a unit.

    Args:
        text: The sum; terms with a unit are imaginary, in the smallest unit: ``(12.5j)``.
        own: Factor of a plain term that is added to one with a unit.
    Returns: Value, and whether any term carried a unit.
    Raises:
        SyntaxError, ValueError, ZeroDivisionError, OverflowError: It is no sum.
    """
    return _evaluate(ast.parse(text, mode="eval").body, own)


def _evaluate(node: ast.expr, own: float) -> tuple[float, bool]:
    """Evaluate a sum to its value and whether it carries a unit (terms with one come as 12.5j).

    A plain term added to one with a unit takes the factor `own`; anything but a sum is refused.
    """
    if isinstance(node, ast.Constant):
        if isinstance(node.value, complex):
            return node.value.imag, True
        if type(node.value) in (int, float):
            return float(node.value), False  # type: ignore[arg-type]  # the line above proves it
    if isinstance(node, ast.BinOp) and type(node.op) in _OPERATORS:
        (a, a_unit), (b, b_unit) = _evaluate(node.left, own), _evaluate(node.right, own)
        if isinstance(node.op, ast.Add | ast.Sub) and a_unit != b_unit:
            a, b = (a, b * own) if a_unit else (a * own, b)
        elif isinstance(node.op, ast.Mult) and a_unit and b_unit:
            raise ValueError("an area is not asked for")
        elif isinstance(node.op, ast.Div) and b_unit:
            if not a_unit:
                raise ValueError("an inverse length is not asked for")
            return a / b, False
        return _OPERATORS[type(node.op)](a, b), a_unit or b_unit
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.USub | ast.UAdd):
        value, has_unit = _evaluate(node.operand, own)
        return (-value if isinstance(node.op, ast.USub) else value), has_unit
    raise ValueError("not a sum")
