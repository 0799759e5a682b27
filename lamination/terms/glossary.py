"""The words of the trade in a sentence or two, for whoever meets one for the first time."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Term:
    """A word: what it means, and what else it is called.

    ``key``: ``step.turn``, ``fold.letter``, ``method.gate``, or the word itself. ``forms``: how else it
    stands in a sentence.
    """

    key: str
    name: str
    says: str
    also: tuple[str, ...] = ()
    forms: tuple[str, ...] = ()


# Source of all: trade practice, in our own words. Names of steps, folds and lock-ins are the trade's
# own and stand with them; here they are empty.
GLOSSARY: tuple[Term, ...] = (
    Term("step.preferment", "", "A part of the flour, water and yeast that ripens for hours before "
         "the dough is mixed: for taste, and for a dough that stretches.", ("poolish", "sponge")),
    Term("step.mix", "", "All that the dough is made of becomes one, only as far as it needs: the "
         "turns knead it too.", ("détrempe, when it is done",)),
    Term("step.flatten", "", "The dough lies down to a slab, so that it is cold through by the time "
         "the butter goes in.", ("slab", "first chill")),
    Term("step.plain_turn", "", "The dough is rolled and folded without butter: it gains strength and "
         "no layers."),
    Term("step.crank", "", "A hand roller with numbered gaps makes strips thinner, one setting after "
         "another."),
    Term("step.lock_in", "", "The butter is shut in the dough. From here on there are layers.",
         ("lamination begins", "beurrage")),
    Term("step.turn", "", "One roll and one fold. Every turn multiplies the butter layers.",
         ("tourage, all of them",)),
    Term("step.more_butter", "", "A second butter goes in after the first turns, of its own kind and "
         "mass."),
    Term("step.divide", "", "The package is cut in two: one part goes on, the other is put away."),
    Term("step.last_sheet", "", "The last roll, to the thickness it is cut at. It needs to shrink "
         "before the knife.", ("final sheet", "sheeting out")),
    Term("step.lay_double", "", "The sheet is folded or laid on itself, and cut two at a time."),
    Term("step.strew", "", "Sugar, crumbs, a filling or soft butter over the sheet, rolled in or "
         "rolled up."),
    Term("step.roll_up", "", "The sheet becomes a coil that is sliced: whirls and snails.",
         ("coil", "log")),
    Term("step.cut", "", "Pieces are marked from one straight edge and cut with a blade that presses, "
         "not drags: a dragged edge is glued shut."),
    Term("step.shape", "", "Pieces are rolled, folded or filled. The cut edges stay clean so that "
         "the leaves can open.", ("make-up", "façonnage")),
    Term("step.wash", "", "Egg, milk or syrup over the top, never down the cut edges: it glues the "
         "leaves.", ("dorure",)),
    Term("step.bake", "", "The water in butter and dough turns to steam and lifts the leaves, then "
         "they dry and set."),
    Term("step.fry", "", "Pieces are fried in hot fat in place of baked: its heat sets the leaves before the "
         "butter runs."),
    Term("step.offcuts", "", "What is left over becomes something else, with fewer leaves and more of "
         "them merged.", ("trimmings", "rework")),
    Term("step.look", "", "One is cut across and looked at: the crumb says what the turns did."),
    Term("step.again", "", "Pieces baked before are filled, topped and baked once more."),
    Term("step.own", "", "A step in your own words, with its minutes, where nothing else says it."),
    Term("fold.half", "", "In two: twice the layers."),
    Term("fold.letter", "", "In three, as a letter: the far third over, the near third on top. Three "
         "times the layers.", ("tour simple", "three-fold")),
    Term("fold.book", "", "Both ends to the middle, then shut: four times the layers. The ends meet on "
         "the spine.", ("tour double", "four-fold")),
    Term("fold.offset_book", "", "A book whose ends meet off the middle, so that their seam is not on "
         "the spine.", ("off-centre double",)),
    Term("method.half", "", "Butter on half of the dough; the other half comes over."),
    Term("method.half_stacked", "", "As half, but cut at the crease and laid on: every edge is open."),
    Term("method.two_thirds", "", "Butter on two thirds, folded in three: two butter layers at once.",
         ("English way",)),
    Term("method.envelope", "", "A square of butter set askew on a square of dough; four corners come "
         "to the middle.", ("French way",)),
    Term("method.gate", "", "Butter in the middle; the ends of the dough come from both sides and meet "
         "over it."),
    Term("method.open_sided", "", "Butter between two sheets of dough, all its edges to be seen."),
    Term("method.inverse", "", "The butter is outside, with flour in it, and the dough within: shorter, "
         "and it shrinks less.", ("inverse puff",)),
    Term("method.diamond", "", "Inverse, the dough set askew on a square of butter."),
    Term("method.cross", "", "The dough thick in its middle, four thin flaps round it: an even wrap "
         "round a square of butter."),
    Term("method.share", "", "Butter over a share of the sheet, the bare rest folded over it first."),
    Term("method.spread", "", "Soft butter spread over the whole sheet."),
    Term("method.two_go", "", "Half of the butter now, the other half before the next fold."),
    Term("method.lumps", "", "Butter in lumps mixed with the flour, rolled into flakes: quick puff.",
         ("rough puff", "blitz")),
    Term("method.none", "", "No butter: a dough that is only rolled and folded."),
    Term("butter_layers", "Butter layers", "How many times one meets butter from top to bottom. Dough "
         "on dough closes up, so there are fewer leaves than multiplying alone gives.", ("leaves, when "
         "the dough between is counted too",), ("butter layer",)),
    Term("leaf", "Leaf", "One layer of dough or of butter, as thick as it is rolled. Where dough comes "
         "on dough the two become one.", ("layer",), ("leaves",)),
    Term("package", "Package", "The dough as it lies after the lock-in or a fold, before it is rolled "
         "again.", ("pâton",)),
    Term("open_ends", "Open ends", "The sides on which the leaves can be seen. It is rolled towards "
         "them: a closed side holds it back."),
    Term("relaxing", "Relaxing", "Rolled dough pulls back until it has rested. Rolled too soon it tears "
         "its leaves or comes out short.", ("the gluten's rest",), ("relax", "relaxes", "relaxed")),
    Term("margin", "Bare margin", "Dough left without butter round the block. It seals, and it is a "
         "place with fewer layers later.", (), ("margin",)),
    Term("plaque", "Plaque", "Butter as it is bought for this: a flat sheet, cut or rolled to the block.",
         ("butter sheet", "plaquette")),
    Term("straight_edge", "The straight edge", "All marks are measured from one edge that was cut "
         "straight; measured from each other, their errors add up.", ("datum",), ("straight edge",)),
    Term("kerf", "Lost per cut", "What the blade presses flat or takes away between two pieces."),
)  # fmt: skip
