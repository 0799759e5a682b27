"""How far leaves stay apart: the share of them that do, and what so many of them open."""

from __future__ import annotations

import math

from lamination.kitchen.kitchen import Kitchen
from lamination.terms.trade import Family


def apart(dough_um: float, butter_um: float, yeasted: bool, kitchen: Kitchen) -> float:
    """The share of leaves so thick that stay apart, 0 to 1.

    In a yeasted dough, leaves of dough as thin as a large starch grain are torn by the proof and run
    together. A puff's stay apart as long as the butter between them is not too thin to part them.
    Source: the Kitchen's rows ``thinnest_leaf_um`` (published) and ``lesson.thinnest_butter_um``.

    >>> round(apart(20, 6, True, Kitchen()), 2), round(apart(108, 36, True, Kitchen()), 2)
    (0.5, 0.99)
    """
    if yeasted:
        return 1 / (1 + (kitchen["thinnest_leaf_um"] / max(dough_um, 1e-9)) ** 3)
    return 1 / (1 + (kitchen["lesson.thinnest_butter_um"] / max(butter_um, 1e-9)) ** 2)


def opens(
    many: float, dough_um: float, butter_um: float, family: Family, yeasted: bool, kitchen: Kitchen
) -> float:
    """What so many butter leaves open a crumb to, 0 to 1 of what the family's best does.

    A few open it nearly as far as many. A puff's thin leaves run together only until they are as thick as a
    large starch grain, so that ever more folds bring ever less.
    """
    few = kitchen.of_family(family, "butter_layers.low") * kitchen["lesson.few_leaves_share"]
    separate = apart(dough_um, butter_um, yeasted, kitchen)
    if not yeasted:
        many /= 1 + kitchen["thinnest_leaf_um"] / max(dough_um, 1e-9)
    return separate * (1 - math.exp(-many * separate / few))
