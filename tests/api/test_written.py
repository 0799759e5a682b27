"""What the front end's tests read is what the core writes."""

import importlib.util
import json
import math
import os
import re
from pathlib import Path

import pytest

from bakehouse.demo.teasel_lock import KITCHEN, PLANS
from lamination.plan import work
from lamination.steps import KINDS
from tests.written import FOLDER, texts

ROOT = Path(__file__).resolve().parents[2]
NAMES = ("runs.json", "panels.json", "numbers.json")


@pytest.fixture(scope="module")
def fresh():
    found = texts()
    if os.environ.get("WRITE_ANEW"):
        FOLDER.mkdir(parents=True, exist_ok=True)
        for name, text in found.items():
            (FOLDER / name).write_text(text)
    return {name: json.loads(text) for name, text in found.items()}


def apart(kept, now, at="$"):
    """Where two JSON values differ; another machine may round the last digits its own way."""
    if isinstance(now, dict) and isinstance(kept, dict) and now.keys() == kept.keys():
        return next((d for k in now if (d := apart(kept[k], now[k], f"{at}.{k}"))), None)
    if isinstance(now, list) and isinstance(kept, list) and len(now) == len(kept):
        each = enumerate(zip(kept, now, strict=True))
        return next((d for i, (k, n) in each if (d := apart(k, n, f"{at}[{i}]"))), None)
    if isinstance(now, float) and isinstance(kept, (int, float)):
        return None if math.isclose(now, kept, rel_tol=1e-9, abs_tol=1e-9) else at
    return None if now == kept else at


@pytest.mark.parametrize("name", NAMES)
def test_what_was_written_is_what_the_core_says_now(fresh, name):
    differs = apart(json.loads((FOLDER / name).read_text()), fresh[name])
    assert differs is None, f"{name} is stale at {differs}: run 'make written' and commit."


def test_every_sentence_is_listed():
    spec = importlib.util.spec_from_file_location("sentences", ROOT / "docs/list_sentences.py")
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    listed = (ROOT / "docs/sentences.md").read_text()
    assert listed == module.text(), "docs/sentences.md is stale: run 'make written' and commit."
    # the advice of a whole plan is among them, by its code
    codes = {n.code for plan in PLANS for n in work(plan, KITCHEN).notes}
    assert {c for c in codes if "-" not in c} <= set(re.findall(r"^- `([^`{]+)`", listed, re.M))


def test_every_kind_of_step_stands_in_the_plan(fresh):
    written = fresh["panels.json"]
    plans = (written["plan"], written["coiled"]["plan"])
    assert {s["do"] for plan in plans for s in plan["steps"]} == set(KINDS)
