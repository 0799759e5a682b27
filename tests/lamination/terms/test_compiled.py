"""Compiled loops: what only borrows arrays, and what makes them and says so."""

from pathlib import Path

import numpy as np
import pytest
from numba import njit
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


def before(of, i):
    return of[i - 1]


def test_an_index_is_taken_as_it_is_and_never_from_the_end():
    kept = np.array([1.0, 2.5, 4.0])
    made = compiled(takes("f8[::1]", "i8", gives="f8"))(before)
    assert [made(kept, i) for i in (1, 2, 3)] == [1.0, 2.5, 4.0]
    # what is read so lies before a slice: that is what is not asked about
    assert made(kept[1:], 0) == 1.0
    # whatever else numba compiles is as ever
    assert njit("f8(f8[::1], i8)")(before)(kept[1:], 0) == 4.0


@compiled(takes("f8", gives="f8"), inner=True)
def half(of):
    return of / 2


def quarter(of):
    return half(half(of)) + half(1)


def test_a_loop_within_others_is_compiled_with_them_for_its_one_signature_alone():
    for kept in (Path(__file__).parent / "__pycache__").glob("test_compiled.quarter*.nb?"):
        kept.unlink()  # by an earlier run
    assert not half.overloads
    made = compiled(takes("f8", gives="f8"))(quarter)
    assert made(6.0) == 2.0
    # a whole number is taken as what the signature says, and nothing is compiled for it
    assert [str(args) for args in half.overloads] == ["(float64,)"]
    with pytest.raises(TypeError, match="half is called by other loops alone"):
        half(6.0)
