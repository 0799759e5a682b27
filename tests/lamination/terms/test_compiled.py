"""Compiled loops: what only borrows arrays, and what makes them and says so."""

import numpy as np
import pytest
from numba.core.errors import TypingError

from lamination.terms.compiled import compiled, takes


def doubled(of):
    found = np.empty(len(of))
    for i in range(len(of)):
        found[i] = 2 * of[i]
    return found


def halved(of):
    found = np.empty(len(of))
    for i in range(len(of)):
        found[i] = of[i] / 2
    return found


def total(of):
    found = 0.0
    for i in range(len(of)):
        found += of[i]
    return found


def test_a_loop_that_makes_an_array_must_say_so():
    with pytest.raises(TypingError):
        compiled(takes("f8[::1]", gives="f8[::1]"))(
            halved
        )  # what was compiled once is kept: never this one
    made = compiled(takes("f8[::1]", gives="f8[::1]"), makes=True)(doubled)
    assert made(np.array([1.0, 2.5])).tolist() == [2.0, 5.0]


def test_a_loop_that_only_borrows_gives_what_it_finds():
    made = compiled(takes("f8[::1]", gives="f8"))(total)
    kept = np.array([1.0, 2.5])
    assert [made(kept) for _ in range(3)] == [3.5] * 3
    assert made(np.empty(0)) == 0.0
