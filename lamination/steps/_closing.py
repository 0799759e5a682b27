"""How each way of locking in is shut, and how long its dough sheet is, in words. Source: trade practice."""

from lamination.terms.trade import Method

CLOSING = {
    Method.HALF: "Butter on the near half. Bring the bare half over and seal the edge.",
    Method.TWO_THIRDS: "Butter on the near two thirds. The bare third comes over first, then the "
    "buttered third on top.",
    Method.HALF_STACKED: "Butter on the near half. Cut off the bare half and lay it on top: all four "
    "edges stay open.",
    Method.GATE: "Butter on the middle half. Bring both ends in until they meet, and seal the seam.",
    Method.OPEN_SIDED: "Butter on the middle half. Cut the bare ends off and lay them on top, side by "
    "side: butter shows at every edge.",
    Method.INVERSE: "Dough on the near half of the butter sheet. Bring the bare half over and seal it.",
    Method.DIAMOND: "Set the dough at 45° on the butter. Bring the four corners of the butter to the "
    "middle; press the seams shut.",
    Method.CROSS: "Butter on the thick middle. Bring the four thin flaps over it, one after the other, "
    "and seal the last.",
    Method.SHARE: "Butter from the near end. The far third comes over first, then the near third on top.",
    Method.SPREAD: "Spread the soft butter over the whole sheet, right to the edges.",
    Method.TWO_GO: "Lay it over the whole sheet. The other half waits for the second turn.",
    Method.NONE: "Dough on dough is one: the folds strengthen it, and make no leaves.",
    Method.LUMPS: "The lumps lie flat in it, and stay lumps.",
    Method.ENVELOPE: "Set the butter at 45° on the dough. Bring the four corners to the middle and "
    "seal the seams.",
}

DOUGH_SHEETS = {
    Method.HALF: "twice the block's length, margins included: the bare half comes over",
    Method.TWO_THIRDS: "one and a half times the block's length: the bare third comes over first",
    Method.HALF_STACKED: "twice the block's length, margins included: the bare half is laid on",
    Method.GATE: "twice the block's length: a bare quarter at each end folds in",
    Method.OPEN_SIDED: "twice the block's length: a bare quarter at each end is laid on",
    Method.INVERSE: "half the butter sheet's length: the butter goes round it",
    Method.DIAMOND: "butter ÷ √2, a square of dough laid at 45°",
    Method.CROSS: "the middle as large as the block, and a flap as large on each of its sides",
    Method.SHARE: "the block's length ÷ the share it covers",
    Method.SPREAD: "as long as the sheet the butter is spread on",
    Method.TWO_GO: "as long as the sheet the butter is laid on",
    Method.NONE: "as long as it is rolled",
    Method.LUMPS: "as long as the sheet it is first pressed to",
    Method.ENVELOPE: "block × √2 plus twice the overlap, a square laid at 45°",
}
