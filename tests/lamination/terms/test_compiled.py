"""Compiled loops: by their signature, and those that others call."""

from pathlib import Path

import numpy as np

from lamination.terms.compiled import compiled, inlined, takes


def doubled(of):
    found = np.empty(len(of))
    for i in range(len(of)):
        found[i] = 2 * of[i]
    return found


def total(of):
    found = 0.0
    for i in range(len(of)):
        found += of[i]
    return found


def test_a_loop_may_make_an_array():
    made = compiled(takes("f8[::1]", gives="f8[::1]"))(doubled)
    assert made(np.array([1.0, 2.5])).tolist() == [2.0, 5.0]


def test_a_loop_that_only_borrows_gives_what_it_finds():
    made = compiled(takes("f8[::1]", gives="f8"))(total)
    kept = np.array([1.0, 2.5])
    assert [made(kept) for _ in range(3)] == [3.5] * 3
    assert made(np.empty(0)) == 0.0


@inlined
def half(of):
    return of / 2


def quarter(of):
    return half(half(of)) + half(1)


def test_a_loop_within_others_is_compiled_with_them_and_is_plain_python_by_itself():
    for kept in (Path(__file__).parent / "__pycache__").glob("test_compiled.quarter*.nb?"):
        kept.unlink()  # by an earlier run
    made = compiled(takes("f8", gives="f8"))(quarter)
    assert made(6.0) == 2.0
    assert half(6.0) == 3.0
    assert not list((Path(__file__).parent / "__pycache__").glob("test_compiled.half*.nb?"))
