"""Compiling a loop: for the few that are too slow in plain Python.

numba takes half a second to import, so whoever has such loops imports them when they are first needed.
What it compiles is kept in ``NUMBA_CACHE_DIR``, or beside the source. A loop that calls those of another
file has them in it: all are kept under a name made from all of the files, so that none is ever old.
"""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any, TypeVar, cast

from numba import config, njit, typeof, types
from numba.core.registry import CPUDispatcher
from numba.np import arrayobj

_Loop = TypeVar("_Loop", bound=Callable[..., object])
_Loops: Any = CPUDispatcher
_config: Any = config  # it makes its names when it is imported
_njit: Any = njit  # what its runtime counts is turned off by an option that its types do not name
_indexing: Any = arrayobj
_LAMINATION = Path(__file__).parents[1]
# the files with compiled loops, what is compiled into them, and this one, which says how
SOURCES = (
    "day/by_minute.py",
    "day/eased.py",
    "day/loom.py",
    "day/loops.py",
    "day/lowest.py",
    "day/moves.py",
    "day/net.py",
    "day/reach.py",
    "day/tries.py",
    "day/working.py",
    "heat/stepping.py",
    "materials/thermal.py",
    "terms/compiled.py",
)


def _kept_under() -> Path:
    """Where what is compiled is kept."""
    made = hashlib.sha1(usedforsecurity=False)
    for name in SOURCES:
        made.update((_LAMINATION / name).read_bytes())
    kept = Path(_config.CACHE_DIR) if _config.CACHE_DIR else _LAMINATION / "__pycache__"
    return kept / made.hexdigest()[:12]


_config.CACHE_DIR = str(_kept_under())


def compiled(
    signature: object, *, makes: bool = False, inner: bool = False
) -> Callable[[_Loop], _Loop]:
    """Compile a loop for its one signature, and keep what was compiled where that can be written.

    An index below nothing is none: a loop must not count from an array's end. ``makes``: it makes arrays,
    or gives one back. Any other only borrows what it is given, and is compiled without counting who holds
    which array: the counting takes ten times as long as what it does. ``inner``: only other loops call it.
    It is compiled into them when they are, and never by itself: a start has half as many to read.
    """

    def made(loop: _Loop) -> _Loop:
        if inner:
            slow: Any = _njit(nogil=True, _nrt=makes, **_NOT_BY_ITSELF)(loop)
            slow.__class__, slow.signature = _Inner, signature
            return cast(_Loop, slow)
        with _as_it_is():
            try:
                fast = _njit(signature, cache=True, nogil=True, _nrt=makes)(loop)
            except RuntimeError:  # nowhere to keep it: compiled at each start
                fast = _njit(signature, nogil=True, _nrt=makes)(loop)
        return cast(_Loop, fast)

    return made


_NOT_BY_ITSELF = {"no_cpython_wrapper": True, "no_cfunc_wrapper": True}


class _Inner(_Loops):  # type: ignore[misc]
    """A loop that is compiled for its one signature when another is compiled that calls it."""

    signature: object

    def __call__(self, *_: object) -> None:
        raise TypeError(f"{self.py_func.__name__} is called by other loops alone")

    def compile(self, _: object) -> Any:
        found = super().compile(self.signature)
        self.disable_compile()
        return found


@contextmanager
def _as_it_is() -> Iterator[None]:
    """Compile every index as it is, without asking whether it counts from the end.

    The asking takes a third of the time of the loops that arrange a day, and numba has no option for it.
    """

    def index(context: Any, builder: Any, kind: Any, value: Any, _: object) -> Any:
        return context.cast(builder, value, kind, types.intp if kind.signed else types.uintp)

    asks = _indexing.fix_integer_index
    _indexing.fix_integer_index = index
    try:
        yield
    finally:
        _indexing.fix_integer_index = asks


def takes(*examples: object, gives: object = "void") -> object:
    """The signature of a loop that takes things like some examples, and numbers or arrays.

    Those, and ``gives``, are named as in a signature that is written out: ``i8``, ``f8``, ``i8[::1]``.
    """

    def known(one: object) -> Any:
        like: Any = typeof
        return _named(one) if isinstance(one, str) else like(one)

    return known(gives)(*(known(one) for one in examples))


def _named(name: str) -> Callable[..., object]:
    of, array, dims = name.partition("[")
    found = getattr(types, of)
    if array:
        found = found[:, ::1] if dims.startswith(":,") else found[::1]
    return cast(Callable[..., object], found)
