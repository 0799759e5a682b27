"""Plan documents of older versions, read as today's.

A document is what JSON gives: groups, lists, texts and numbers. Anything that is no plan comes back
as it was, for whoever reads it to complain about.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import VERSION, newer
from lamination.terms.limits import Fault, Faults

_STEP = ("rest", "bench_min")


def migrated(document: Any) -> Any:
    """A plan document of an older version as one of the current version; anything else untouched.

    Version 1 had no formula, and a density it did not state was that of practice. Up to version 2 a
    sheet was cut into one shape, whose sizes stood in the cut itself. Up to version 3 a plan had fixed
    slots in place of steps; their names live on as the steps' ids, so that runs of such plans go on. Up to
    version 4 a rest had one place, and could begin and end in another.
    """
    if not isinstance(document, dict):
        return document
    version = document.get("version")
    if isinstance(version, int) and version > VERSION:
        # said first and alone: what else such a file holds cannot be judged here
        raise Faults(Fault("version", newer(version)))
    if version not in (1, 2, 3, 4):
        return document
    plan = dict(document)
    if version == 4:
        return _with_stays(plan)
    if plan["version"] == 1:
        for part, density in (("dough", 1120.0), ("butter", 940.0)):
            if isinstance(plan.get(part), dict):
                plan[part] = {"density_kg_m3": density} | plan[part]
    cut = plan.get("cut")
    if isinstance(cut, dict) and "products" not in cut:
        of_product = {key: cut[key] for key in ("shape", "base_mm", "height_mm") if key in cut}
        kept = {key: value for key, value in cut.items() if key not in of_product}
        plan["cut"] = {**kept, "products": [{"name": "Piece", **of_product}]}
    return _with_stays(_with_steps(plan))


def kitchen_of_then(document: Any, kitchen: Kitchen) -> Kitchen:
    """The kitchen in which a plan document of its version was worked, as far as rows were added since.

    Up to version 3 pieces that lie flat were taken to spread as much as rolled ones: fewer stood on a tray.
    """
    version = document.get("version") if isinstance(document, dict) else None
    if version not in (1, 2, 3) or "rise.flat_wide_pct" in kitchen.yours:
        return kitchen
    return kitchen.changed({"rise.flat_wide_pct": kitchen["rise.yeasted_wide_pct"]})


def _group(value: Any) -> dict[str, Any]:
    return value if isinstance(value, dict) else {}


def _with_steps(plan: dict[str, Any]) -> dict[str, Any]:
    slots = ("lock_in", "turns", "final", "cut", "finish")
    made = {key: value for key, value in plan.items() if key not in slots}
    formula = plan.get("formula")
    if isinstance(formula, dict):
        made["formula"] = {k: v for k, v in formula.items() if k not in ("preferments", "mixing")}
    dough = plan.get("dough")
    if isinstance(dough, dict):
        made["dough"] = {k: v for k, v in dough.items() if k not in _STEP}
    made["steps"] = list(_steps(plan, _group(formula), _group(dough)))
    return made


def _steps(plan: dict[str, Any], formula: dict[str, Any], dough: dict[str, Any]) -> Iterator[Any]:
    if formula:
        numbered = list(enumerate(formula.get("preferments") or [], 1))
        # the longest leads, so that each is ripe when the dough is mixed
        numbered.sort(key=lambda p: -_minutes(_group(p[1]).get("rest")))
        for j, preferment in numbered:
            yield _step(preferment, "preferment", f"preferment-{j}")
        yield _step(formula.get("mixing") or {}, "mix", "mix")
    yield {"do": "flatten", "id": "dough"} | {k: dough[k] for k in _STEP if k in dough}
    if "lock_in" in plan:
        yield _step(plan["lock_in"], "lock_in", "lock_in")
    turns = plan.get("turns")
    for n, turn in enumerate(turns if isinstance(turns, list | tuple) else [], 1):
        yield _step(turn, "turn", f"turn-{n}")
    if "final" in plan:
        yield _step(plan["final"], "last_sheet", "final")
    cut, finish = plan.get("cut"), plan.get("finish")
    if cut is not None:
        yield _step(_cut(cut), "cut", "cut")
        if finish is not None:
            yield from _finish(_group(finish))


def _with_stays(plan: dict[str, Any]) -> dict[str, Any]:
    steps = plan.get("steps")
    made = {**plan, "version": VERSION}
    if isinstance(steps, list | tuple):
        made["steps"] = [
            {**s, "rest": _stays(s["rest"])} if isinstance(s, dict) and _group(s.get("rest")) else s
            for s in steps
        ]
    return made


def _stays(rest: dict[str, Any]) -> dict[str, Any]:
    """What it lay on was the same all the while; a proofer's setting counted in the proofer."""
    lay = {k: rest[k] for k in ("on", "iced", "chilled") if k in rest}
    was_set = {k: rest[k] for k in ("air_c", "humidity_pct") if k in rest}
    first, last = _group(rest.get("first")), _group(rest.get("last"))
    main = {k: v for k, v in rest.items() if k not in {"first", "last", *lay, *was_set}}
    if isinstance(main.get("minutes"), int | float):
        main["minutes"] -= _minutes(first) + _minutes(last)
    stays = [
        lay | (was_set if stay.get("place") == "proofer" else {}) | stay
        for stay in (first, main, last)
        if stay or stay is main
    ]
    return {"stays": [s for s in stays if s.get("minutes") != 0] or stays[:1]}


def _step(slot: Any, do: str, key: str) -> Any:
    return {"do": do, "id": key} | slot if isinstance(slot, dict) else slot


def _minutes(rest: Any) -> float:
    minutes = _group(rest).get("minutes", 0)
    return minutes if isinstance(minutes, int | float) else 0.0


def _cut(cut: Any) -> Any:
    """A hole that only a ring has; a plait of the three strands it was drawn with."""
    if not isinstance(cut, dict) or not isinstance(cut.get("products"), list | tuple):
        return cut
    products = []
    for product in cut["products"]:
        if isinstance(product, dict):
            product = dict(product)
            if product.get("shape") != "ring":
                product.pop("hole_mm", None)
            if product.get("card") == "plait":
                product.setdefault("strands", 3)
        products.append(product)
    return {**cut, "products": products}


def _finish(finish: dict[str, Any]) -> Iterator[dict[str, Any]]:
    def step(do: str, names: dict[str, str]) -> dict[str, Any]:
        return {"do": do, "id": do} | {
            new: finish[old] for old, new in names.items() if old in finish
        }

    yield step("shape", {"rest": "rest", "shape_min": "bench_min"})
    if finish.get("wash", "egg") != "none":
        yield step("wash", {"wash": "wash", "coats": "coats", "wash_min": "bench_min"})
    yield step("bake", {"bake": "bake", "moulded": "moulded", "sugared": "sugared", "cool": "rest"})
    yield {"do": "look", "id": "look"}
