"""Every mark can say how this was worked out, and on which rows it rests."""

from lamination.kitchen import DEFAULTS
from lamination.warmth.grounds import GROUNDS
from lamination.warmth.windows import Cause


def test_every_cause_has_its_grounds_and_every_row_is_there():
    assert set(GROUNDS) == set(Cause) | {"clock"}
    for grounds in GROUNDS.values():
        assert grounds.says.endswith(".")
        assert grounds.rows
        assert all(row in DEFAULTS for row in grounds.rows)
