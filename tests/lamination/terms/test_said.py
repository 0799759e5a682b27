"""Sentences with marks: one fixture is read here and by the front end, and both must read it alike."""

import json
import re
from pathlib import Path

import pytest

from lamination.terms.said import MARK, counted, g, listed, mm, named, plain, span

FIXTURE = json.loads((Path(__file__).resolve().parents[2] / "said.json").read_text())


@pytest.mark.parametrize(("marked", "read"), FIXTURE["sentences"])
def test_sentences_are_read_out(marked, read):
    assert plain(marked) == read


@pytest.mark.parametrize(("minutes", "words"), FIXTURE["spans"])
def test_minutes_are_said_one_way(minutes, words):
    assert span(minutes) == words


def test_every_measure_is_one_mark():
    for text in (mm(8), mm(690.2, 513.3), g(2400)):
        assert MARK.fullmatch(text)


def test_what_a_person_typed_marks_nothing():
    assert named("{8|mm} of jam") == "8mm of jam"
    assert plain(named("{8|mm}")) == "8mm"


def test_counts_and_lists_read_as_english():
    assert counted(1, "tray") == "1 tray"
    assert listed(["a"]) == "a"
    assert listed(["a", "b", "c"], "or") == "a, b or c"
    assert not re.search(r"[{}|]", plain(f"Roll to {mm(8)}, then fold {g(12_000)}."))
