"""Compiling a loop: for the few that are too slow in plain Python.

numba takes half a second to import, so whoever has such loops imports them when they are first needed.
What it compiles is kept in ``NUMBA_CACHE_DIR``, or beside the source.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar, cast

from numba import njit

_Loop = TypeVar("_Loop", bound=Callable[..., object])


def compiled(signature: str) -> Callable[[_Loop], _Loop]:
    """Compile a loop for its one signature, and keep what was compiled where that can be written."""

    def made(loop: _Loop) -> _Loop:
        try:
            fast = njit(signature, cache=True, nogil=True)(loop)
        except RuntimeError:  # nowhere to keep it: compiled at each start
            fast = njit(signature, nogil=True)(loop)
        return cast(_Loop, fast)

    return made
