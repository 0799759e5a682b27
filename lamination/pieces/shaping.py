"""Shaping: a card for every shape, in short steps, with its common faults."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.terms.trade import Worded


class Card(Worded):
    """How a cut piece is shaped."""

    FLAT = "flat", "as it is cut"
    CRESCENT = "crescent", "rolled triangle"
    ROLL = "roll", "rolled rectangle"
    POCKET = "pocket", "corners to the middle"
    PINWHEEL = "pinwheel", "pinwheel"
    TURNOVER = "turnover", "turned over"
    PLAIT = "plait", "plait"
    CASE = "case", "ring on a disc"
    SLICE = "slice", "slice of a coil"


@dataclass(frozen=True, slots=True)
class ShapingStep:
    """One step: what to do, and the name of its drawing."""

    text: str
    drawing: str


@dataclass(frozen=True, slots=True)
class ShapingCard:
    """How a piece is shaped. ``filling_pct``: the filling's usual share of the piece, from and to.

    ``seal``: where wash may seal, dough on dough only. ``faults``: what is seen, and why.
    """

    card: Card
    name: str
    steps: tuple[ShapingStep, ...]
    filling_pct: tuple[float, float] | None
    seal: str
    faults: tuple[tuple[str, str], ...]


def _card(
    card: Card,
    name: str,
    steps: tuple[tuple[str, str], ...],
    filling: tuple[float, float] | None,
    seal: str,
    *faults: tuple[str, str],
) -> ShapingCard:
    return ShapingCard(
        card, name, tuple(ShapingStep(t, d) for t, d in steps), filling, seal, faults
    )


# Source: trade practice.
CARDS: dict[Card, ShapingCard] = {
    c.card: c
    for c in (
        _card(
            Card.FLAT,
            "As it is cut",
            (
                ("Lift it with the wheel or a palette knife, not by its corners.", "lift"),
                (
                    "Lay it cut side free, top down: the side that was crushed least goes up.",
                    "turn_over",
                ),
                ("Dock it where it is to stay low.", "dock"),
            ),
            None,
            "Nothing is sealed: keep wash off the cut sides.",
            ("It leans as it bakes.", "Cut with a dull or twisted blade, or rested too little."),
            ("It is oval.", "It shrank after the cut: rest the sheet before, or allow for it."),
        ),
        _card(
            Card.CRESCENT,
            "Rolled triangle",
            (
                ("Notch the middle of the base.", "notch"),
                (
                    "Hold the base and draw the tip out by a third: no more than it gives.",
                    "stretch",
                ),
                (
                    "Spread the notch and roll from the base, tight at the start, straight.",
                    "roll_triangle",
                ),
                ("Tail underneath, in the middle of the tray side.", "tail"),
            ),
            (8, 18),
            "A touch of wash under the tail only.",
            (
                "The tail opens in the oven.",
                "It lies beside, not under; or flour kept it from sticking.",
            ),
            (
                "One wing is longer.",
                "The tip was not over the middle of the base as it was rolled.",
            ),
            ("The inside is a dense knot.", "Rolled too tight, or pressed with warm hands."),
        ),
        _card(
            Card.ROLL,
            "Rolled rectangle",
            (
                ("Lay the filling a thumb's width from the short edge.", "filling_edge"),
                ("Turn the edge over it and press lightly.", "turn_edge"),
                ("Roll to the end, straight, without pressing.", "roll_flat"),
                ("Seam underneath, in the middle.", "tail"),
            ),
            (15, 30),
            "A line of wash inside the last edge.",
            ("It unrolls.", "The seam is at the side, or the last edge is floury."),
            (
                "The filling burns at the ends.",
                "It reaches past the dough: shorter sticks, or a wider piece.",
            ),
        ),
        _card(
            Card.POCKET,
            "Corners to the middle",
            (
                ("Filling in the middle, not to the edges.", "filling_middle"),
                ("Two opposite corners in, one over the other.", "corners_two"),
                ("The other two over them; press the middle down to the tray.", "corners_four"),
            ),
            (20, 35),
            "Wash under each corner where it lies on dough.",
            ("It opens like a flower.", "Corners only laid on: press the middle right down."),
            ("The bottom is raw.", "Too much filling, or too wet."),
        ),
        _card(
            Card.PINWHEEL,
            "Pinwheel",
            (
                ("Cut from each corner two thirds of the way to the middle.", "pinwheel_cuts"),
                ("Every second point to the middle; press.", "pinwheel_fold"),
                ("Filling on the middle.", "filling_middle"),
            ),
            (15, 30),
            "A dot of wash under the four points.",
            ("A sail springs up.", "Its point was not pressed to the bottom."),
            ("The middle sinks.", "Cut too far in."),
        ),
        _card(
            Card.TURNOVER,
            "Turned over",
            (
                ("Filling on one half, two fingers from the edge.", "filling_half"),
                ("Brush the edge, never the cut side; fold over.", "fold_over"),
                ("Press inside the edge, not on it: the cut leaves stay free.", "press_inside"),
                ("Rest it; then one vent in the top.", "vent"),
            ),
            (30, 50),
            "A finger's width inside two edges.",
            ("It bursts at the side.", "No vent, or sealed over filling."),
            ("The edge does not lift.", "Pressed on the cut leaves, or wash ran over them."),
        ),
        _card(
            Card.PLAIT,
            "Plait",
            (
                ("Three strips, joined at the top.", "plait_three"),
                ("Outer over the middle, left and right in turn, cut sides up.", "plait_over"),
                ("Join the ends and tuck them under.", "tail"),
            ),
            (0, 20),
            "Wash under both ends.",
            ("It tears at the bends.", "Plaited too tight, or not rested."),
        ),
        _card(
            Card.CASE,
            "Ring on a disc",
            (
                ("Turn the disc over and dock it.", "turn_over"),
                ("Brush it, not to the rim.", "brush_disc"),
                ("Turn the ring over and lay it on, edge to edge.", "ring_on"),
                ("Chill; then a knife's back down the side at even steps.", "score_side"),
            ),
            None,
            "Between disc and ring, short of the rim.",
            ("It rises lopsided.", "Wash ran down the side, or the ring lies off the middle."),
            ("The middle comes up.", "The disc was not docked."),
        ),
        _card(
            Card.SLICE,
            "Slice of a coil",
            (
                ("Lay the slice on its cut side.", "lay_slice"),
                ("Tuck the end under it.", "end_under"),
                ("Press it flat with the palm, just enough to stand.", "press_flat"),
            ),
            (5, 30),
            "A touch of wash under the end only.",
            ("It opens in the oven.", "The end lay outside, or the coil was rolled loosely."),
            ("The middle climbs out.", "Rolled too tight at the start: leave it room."),
        ),
    )
}
