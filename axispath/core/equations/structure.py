"""Which equation determines which unknown, in which order, and where there are too many or too few.

Equations and unknowns are matched as far as they can be; what is over or under is found along
alternating chains, and the rest falls into the smallest parts that have to be solved at once (A.
L. Dulmage and N. S. Mendelsohn 1958, Coverings of bipartite graphs; I. S. Duff and J. K. Reid 1978,
ACM Transactions on Mathematical Software 4). None of it depends on the order of the equations.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from graphlib import TopologicalSorter

import numpy as np
from scipy.sparse import csr_matrix
from scipy.sparse.csgraph import connected_components


@dataclass(frozen=True, slots=True)
class Part:
    """Equations, by their indices, and as many unknowns that they determine together."""

    equations: tuple[int, ...]
    unknowns: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Structure:
    """``parts`` in the order in which they can be solved.

    ``checks`` are equations in which every unknown is determined by others already, each with the
    equations that it can contradict. ``loose`` are groups of equations with too few of them for the
    unknowns that they hold.
    """

    parts: tuple[Part, ...]
    checks: tuple[tuple[int, tuple[int, ...]], ...]
    loose: tuple[Part, ...]


def structure_of(names: Sequence[frozenset[str]], unknowns: Iterable[str]) -> Structure:
    """The structure of equations, given the unknowns in each."""
    letters = sorted(unknowns)
    matched = _matched(names, letters)
    owner = {name: index for index, name in matched.items()}
    under = _under(names, letters, owner)
    free = set(under[0])
    checks = tuple(
        (index, tuple(sorted(_above(index, names, owner))))
        for index in range(len(names))
        if index not in matched
    )
    solved = [index for index in matched if index not in under[1]]
    parts = _parts(names, matched, solved)
    return Structure(parts, checks, _loose(names, free, under[1]))


def _matched(names: Sequence[frozenset[str]], letters: list[str]) -> dict[int, str]:
    """As many equations as can be had, each with an unknown of its own.

    Equations with the fewest unknowns come first: once matched an equation stays so, and those
    that are left as checks are the ones that say most at once.
    """
    owner: dict[str, int] = {}
    for index in sorted(range(len(names)), key=lambda i: (len(names[i]), sorted(names[i]))):
        _augment(index, names, owner)
    return {index: name for name, index in owner.items()}


def _augment(index: int, names: Sequence[frozenset[str]], owner: dict[str, int]) -> None:
    """Match one more equation along an alternating chain, if there is one (H. W. Kuhn 1955)."""
    came: dict[str, int] = {}
    pending = [index]
    for current in pending:  # grows
        for name in sorted(names[current]):
            if name in came:
                continue
            came[name] = current
            if name not in owner:
                while True:
                    giver = came[name]
                    before = next((n for n, i in owner.items() if i == giver), None)
                    owner[name] = giver
                    if giver == index or before is None:
                        return
                    name = before
            pending.append(owner[name])


def _above(index: int, names: Sequence[frozenset[str]], owner: dict[str, int]) -> set[int]:
    """An equation, and all that determine what is in it."""
    found, pending = {index}, [index]
    while pending:
        for name in names[pending.pop()]:
            other = owner.get(name)
            if other is not None and other not in found:
                found.add(other)
                pending.append(other)
    return found


def _under(
    names: Sequence[frozenset[str]], letters: list[str], owner: dict[str, int]
) -> tuple[list[str], set[int]]:
    """The unknowns that are not determined, and the equations that hold one."""
    matched = {index: name for name, index in owner.items()}
    found = [letter for letter in letters if letter not in owner]
    equations: set[int] = set()
    for letter in found:  # grows
        for index, used in enumerate(names):
            if letter in used and index not in equations:
                equations.add(index)
                other = matched.get(index)
                if other is not None and other not in found:
                    found.append(other)
    return found, equations


def _parts(
    names: Sequence[frozenset[str]], matched: dict[int, str], solved: list[int]
) -> tuple[Part, ...]:
    if not solved:
        return ()
    place = {index: k for k, index in enumerate(solved)}
    owner = {matched[index]: index for index in solved}
    pairs = [
        (place[index], place[owner[name]])
        for index in solved
        for name in names[index]
        if name in owner and owner[name] != index
    ]
    shape = (len(solved), len(solved))
    rows, columns = [p for p, _ in pairs], [q for _, q in pairs]
    graph = csr_matrix((np.ones(len(pairs)), (rows, columns)), shape=shape)
    _, labels = connected_components(graph, connection="strong")
    together: dict[int, list[int]] = {}
    for k, label in enumerate(labels.tolist()):
        together.setdefault(label, []).append(solved[k])
    first = {label: min(indices) for label, indices in together.items()}
    before: dict[int, set[int]] = {first[label]: set() for label in together}
    for p, q in pairs:
        if labels[p] != labels[q]:
            before[first[int(labels[p])]].add(first[int(labels[q])])
    members = {first[label]: indices for label, indices in together.items()}
    return tuple(
        Part(tuple(sorted(members[one])), tuple(sorted(matched[i] for i in members[one])))
        for one in _ordered(before)
    )


def _ordered(before: dict[int, set[int]]) -> list[int]:
    """In an order in which everything stands after what it needs, as typed where that is open."""
    sorter = TopologicalSorter(before)
    sorter.prepare()
    ready: list[int] = []
    found = []
    while sorter.is_active():
        ready = sorted([*ready, *sorter.get_ready()])
        found.append(ready.pop(0))
        sorter.done(found[-1])
    return found


def _loose(
    names: Sequence[frozenset[str]], free: set[str], equations: set[int]
) -> tuple[Part, ...]:
    """The unknowns that are not determined, in groups that share equations."""
    groups: list[tuple[set[int], set[str]]] = [({i}, set(names[i]) & free) for i in equations]
    groups += [(set(), {name}) for name in free if not any(name in names[i] for i in equations)]
    merged: list[tuple[set[int], set[str]]] = []
    for indices, letters in groups:
        apart = []
        for other in merged:
            if other[1] & letters:
                indices, letters = indices | other[0], letters | other[1]
            else:
                apart.append(other)
        merged = [*apart, (indices, letters)]
    found = [Part(tuple(sorted(i)), tuple(sorted(letters))) for i, letters in merged]
    return tuple(sorted(found, key=lambda part: (part.equations, part.unknowns)))
