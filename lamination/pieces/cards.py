"""Shaping: a card for every shape, in short steps, with its common faults."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.pieces.shaping import Card


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


CARDS: dict[Card, ShapingCard] = {
    c.card: c
    for c in (
        _card(
            Card.FLAT,
            "As it is cut",
            (
                ("Lift it with the wheel or a palette knife, not by its corners.", "lift"),
                (
                    "Turn it upside down, cut sides free: the side that was crushed least is then on top.",
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
        _card(
            Card.HALF_POCKET,
            "Two corners to the middle",
            (
                ("Filling in a line from corner to corner.", "filling_line"),
                ("One free corner over it, then the other over the first.", "corners_two"),
                ("Press where they meet, down to the tray.", "press_middle"),
            ),
            (20, 35),
            "Wash under the upper corner only.",
            ("It opens along the line.", "Only laid on: press it right down, or wet the corner."),
            ("Filling runs out at the ends.", "It reached past the folded corners."),
        ),
        _card(
            Card.BUTTERFLY,
            "Butterfly",
            (
                ("Roll it up from the short side.", "roll_flat"),
                ("Press a thin stick across the middle, right down.", "stick_across"),
                ("Draw the stick out: the cut faces open to both sides.", "wings_open"),
            ),
            (5, 20),
            "Nothing is sealed: the wings are cut faces.",
            ("It stays a roll.", "The stick was not pressed to the tray."),
            ("A wing tears off.", "Pressed with an edge, not with a round stick."),
        ),
        _card(
            Card.WHIRL,
            "Eight cuts, turned in",
            (
                ("Two cuts from each side towards the middle, leaving it whole.", "eight_cuts"),
                ("Turn every second point to the middle.", "points_in"),
                ("Press the middle down, filling on it.", "filling_middle"),
            ),
            (10, 25),
            "A dot of wash under the four points that are turned in.",
            ("The points spring up.", "Not pressed to the bottom, or floury."),
            ("It tears at the cuts.", "Cut too far in: leave a third of it whole."),
        ),
        _card(
            Card.FRAME,
            "Framed square",
            (
                ("Fold it to a triangle; cut along both sides, short of the tip.", "frame_cuts"),
                ("Open it: a square in a frame.", "frame_open"),
                ("Carry each corner of the frame over to the other side.", "frame_cross"),
                ("Filling inside the frame.", "filling_middle"),
            ),
            (15, 30),
            "Under the two corners that are carried over.",
            ("The frame slides off.", "Not wetted underneath, or the square was not cut straight."),
            ("The corners part.", "Cut right through at the tip: leave a thumb's width."),
        ),
        _card(
            Card.TWIST,
            "Twisted strip",
            (
                ("Lay it long before you, cut sides free.", "strip_flat"),
                (
                    "Hold both ends and turn them against each other, three or four times.",
                    "strip_turn",
                ),
                ("Press both ends to the tray.", "ends_down"),
            ),
            (0, 15),
            "Nothing but the ends on the tray.",
            ("It unwinds in the proof.", "The ends were not pressed down."),
            ("It tears.", "Turned too often, or the strip is too wide."),
        ),
        _card(
            Card.KNOT,
            "Knot",
            (
                ("Twist the strip a little.", "strip_turn"),
                ("Tie it loosely: one end through the loop.", "tie_loop"),
                ("Both ends underneath.", "end_under"),
            ),
            (0, 15),
            "Wash under both ends.",
            ("The middle stays raw.", "Tied too tight: leave a hole to rise into."),
            ("An end shows.", "Too short a strip, or it was not tucked under."),
        ),
        _card(
            Card.CROWN,
            "Crown in a cup of a tin",
            (
                ("Butter the cup; sugar it where the formula says so.", "cup_ready"),
                ("Corners up and together, or the coil cut side up, into the cup.", "into_cup"),
                ("Press the middle down to the bottom.", "press_middle"),
            ),
            (5, 25),
            "Nothing is sealed: it holds in the cup.",
            ("It climbs out.", "Too much dough for the cup, or the middle was not pressed down."),
            ("It sticks.", "Unmould while the sugar is hot; dry gloves."),
        ),
        _card(
            Card.LOAF,
            "Loaf in a tin",
            (
                ("Fold or plait it as long as the tin.", "plait_over"),
                ("Lay it in, seam or ends underneath.", "into_tin"),
                ("The tin is half full: it proofs to the rim.", "tin_half"),
            ),
            (0, 25),
            "Wash under the ends only; not on the rim of the tin.",
            ("It mushrooms.", "Too much dough for the tin, or proofed past the rim."),
            ("The sides are pale and fold in.", "Out of the tin too late, or baked too short."),
        ),
        _card(
            Card.BASE,
            "Thin docked base",
            (
                ("Turn it over on the tray.", "turn_over"),
                ("Dock it close, right to the edge.", "dock"),
                ("A sheet of paper and a rack or a tray on top.", "weighed_down"),
            ),
            None,
            "Nothing is sealed.",
            ("It domes.", "Not docked, or weighed down too late."),
            ("It is smaller than it was cut.", "It shrank: rest it after the roll."),
        ),
        _card(
            Card.FAN,
            "Folded to and fro in a tin",
            (
                ("Fold the strip to and fro, as wide as the tin, like a fan.", "to_and_fro"),
                ("Set it into the tin on its folds, leaves up.", "into_tin"),
                ("The tin is half full: it proofs to the rim.", "tin_half"),
            ),
            (0, 20),
            "Nothing is sealed: it holds in the tin.",
            (
                "It opens like a book and falls over.",
                "Too few folds for the tin, or set in loosely.",
            ),
            ("The bottom is raw.", "Packed too tight, or baked too short for its depth."),
        ),
        _card(
            Card.SPLIT,
            "Coil split and plaited",
            (
                ("Cut it along its length, not quite to one end.", "split_along"),
                ("Turn both cut sides up.", "cut_sides_up"),
                ("Lay one over the other to the end, cut sides always up.", "plait_over"),
                ("Press the ends together.", "ends_down"),
            ),
            None,
            "Only where the ends are pressed together.",
            ("What is inside runs out.", "Not chilled before it was split, or spread too thick."),
            ("The leaves are pressed shut.", "A blunt blade, or the cut sides were turned down."),
        ),
        _card(
            Card.SPLIT_KNOT,
            "Coil split and knotted",
            (
                ("Cut it along its length into two.", "split_along"),
                ("Turn the cut sides up and twist each half a little.", "cut_sides_up"),
                ("Tie it loosely: one end through the loop.", "tie_loop"),
                ("Both ends underneath.", "end_under"),
            ),
            None,
            "A touch of wash under both ends.",
            ("It unties in the proof.", "The ends were not tucked under."),
            ("The middle stays raw.", "Tied too tight: leave a hole to rise into."),
        ),
    )
}
