"""Orders and circles in a graph of 'this before that'."""

from collections.abc import Iterable, Mapping


def circles(after: Mapping[str, Iterable[str]]) -> list[tuple[str, ...]]:
    """The groups whose members all lead to one another (Tarjan's strongly connected components, 1972).

    Returns: Groups of two or more, and single nodes that lead to themselves; members sorted.
    """
    number: dict[str, int] = {}
    low: dict[str, int] = {}
    on: set[str] = set()
    path: list[str] = []
    found: list[tuple[str, ...]] = []
    for root in list(after):  # ruff: ignore[too-many-nested-blocks]  # Tarjan's algorithm, walked without recursion
        if root in number:
            continue
        work = [(root, iter(after.get(root, ())))]
        number[root] = low[root] = len(number)
        path.append(root)
        on.add(root)
        while work:
            node, edges = work[-1]
            step = next(edges, None)
            if step is None:
                work.pop()
                if work:
                    low[work[-1][0]] = min(low[work[-1][0]], low[node])
                if low[node] == number[node]:
                    group = []
                    while True:
                        one = path.pop()
                        on.discard(one)
                        group.append(one)
                        if one == node:
                            break
                    if len(group) > 1 or node in after.get(node, ()):
                        found.append(tuple(sorted(group)))
            elif step not in number:
                number[step] = low[step] = len(number)
                path.append(step)
                on.add(step)
                work.append((step, iter(after.get(step, ()))))
            elif step in on:
                low[node] = min(low[node], number[step])
    return found


def in_order(nodes: Iterable[str], after: Mapping[str, Iterable[str]]) -> list[str] | None:
    """Put nodes in an order in which every edge leads forward; the given order is kept where it may be.

    Args:
        nodes: All nodes, in the order wished for.
        after: For each node, those that have to come later; others than the nodes are ignored.
    Returns: The order (Kahn, 1962); none where there is a circle.
    """
    left = list(nodes)
    inside = set(left)
    before: dict[str, set[str]] = {n: set() for n in left}
    for node, later in after.items():
        if node in inside:
            for one in later:
                if one in inside and one != node:
                    before[one].add(node)
                elif one == node:
                    return None
    found: list[str] = []
    while left:
        ready = next((n for n in left if not before[n]), None)
        if ready is None:
            return None
        left.remove(ready)
        found.append(ready)
        for one in left:
            before[one].discard(ready)
    return found


def components(count: int, edges: Iterable[tuple[int, int]]) -> list[list[int]]:
    """The groups of nodes that edges join, whichever way these run.

    Returns: Every node in one group, each group in ascending order.
    """
    lead = list(range(count))

    def root(n: int) -> int:
        while lead[n] != n:
            lead[n] = lead[lead[n]]
            n = lead[n]
        return n

    for a, b in edges:
        lead[root(a)] = root(b)
    groups: dict[int, list[int]] = {}
    for n in range(count):
        groups.setdefault(root(n), []).append(n)
    return list(groups.values())
