"""A plan followed through its day: every rest judged, every work timed, the proof."""

from lamination.warmth.bodies import Around, Today
from lamination.warmth.changes import changes
from lamination.warmth.follow import body_before, follow
from lamination.warmth.followed import Followed, Stretch
from lamination.warmth.grounds import GROUNDS, Grounds
from lamination.warmth.judge import Bend, Feel, Judgement, judge_lock_in, stood_on_the_bench
from lamination.warmth.learn import (
    Fit,
    PlaceReadings,
    ProbeReading,
    learn_place,
    learned,
    read_logger_csv,
    simulated_readings,
)
from lamination.warmth.proof import learned_reference, limit_of
from lamination.warmth.rests import proof_marks, usual_yeast
from lamination.warmth.warmth import WorkedWarmth, work_warmth
from lamination.warmth.windows import Cause

__all__ = [
    "GROUNDS", "Around", "Bend", "Cause", "Feel", "Fit", "Followed", "Grounds", "Judgement",
    "PlaceReadings", "ProbeReading", "Stretch", "Today", "WorkedWarmth", "body_before", "changes", "follow",
    "judge_lock_in", "learn_place", "learned", "learned_reference", "limit_of", "proof_marks",
    "read_logger_csv", "simulated_readings", "stood_on_the_bench", "usual_yeast", "work_warmth",
]  # fmt: skip
