"""Searches of one day abreast, each on a core, that go on from the best that one of them found."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor

from lamination.day.search import Search

# of the time: to begin anew, and the last of it, for tries only
_BEGINNING, _LAST_OF_ALL = 0.5, 0.25


def with_each(searches: Sequence[Search], run: Callable[[Search], object]) -> None:
    """Do something with each of several searches at once, each on a core."""
    with ThreadPoolExecutor(len(searches)) as pool:
        for _ in pool.map(run, searches):
            pass


def side_by_side(searches: Sequence[Search], run: Callable[[Search], object]) -> None:
    """Let searches of one day run at once, each on a core; all go on from the best that one found."""
    with_each(searches, run)
    best = min(searches, key=lambda search: search.cost)
    for search in searches:
        if search is not best:
            search.restore(best.as_it_lies())


def look(
    searches: Sequence[Search],
    until: float,
    stop: Callable[[], bool],
    anew: bool = False,
    *,
    disturbed: bool = False,
) -> None:
    """Look for better from where the first lies, until a moment of the monotonic clock.

    ``anew``: all give way to each other before, wherever that leads. ``disturbed``: the day went otherwise
    than it was arranged, and in the last of the searches all give way to each other for that.
    """
    for search in searches[1:]:
        search.restore(searches[0].as_it_lies())
    now = time.monotonic()
    begun = now + _BEGINNING * (until - now)
    if anew:
        side_by_side(searches, lambda search: search.begin_anew(begun, stop))
    ends = until - _LAST_OF_ALL * (until - time.monotonic())

    def run(search: Search) -> None:
        if disturbed and search is searches[-1]:
            search.all_give_way(begun, stop)
        search.explore(ends, stop)

    side_by_side(searches, run)
    side_by_side(searches, lambda search: search.improve(until, stop, making_way=True))
