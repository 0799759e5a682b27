"""A plan followed through its day: every rest judged, every work timed, the proof."""

from lamination.warmth.bodies import Around, Today
from lamination.warmth.changes import changes
from lamination.warmth.follow import body_before, follow
from lamination.warmth.grounds import GROUNDS, Grounds
from lamination.warmth.judge import Feel, Judgement, judge_lock_in
from lamination.warmth.learn import (
    Fit,
    Lesson,
    ProbeReading,
    learn_place,
    learned,
    read_logger_csv,
    simulate_lesson,
)
from lamination.warmth.proof import learned_reference
from lamination.warmth.warmth import WorkedWarmth, work_warmth
from lamination.warmth.windows import Cause

__all__ = [
    "GROUNDS", "Around", "Cause", "Feel", "Fit", "Grounds", "Judgement", "Lesson", "ProbeReading", "Today",
    "WorkedWarmth", "body_before", "changes", "follow", "judge_lock_in", "learn_place", "learned",
    "learned_reference", "read_logger_csv", "simulate_lesson", "work_warmth",
]  # fmt: skip
