"""A plan followed through its day: every rest judged, every work timed, the proof."""

from lamination.warmth.bodies import Today
from lamination.warmth.changes import changes
from lamination.warmth.follow import follow
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
    "GROUNDS", "Cause", "Feel", "Fit", "Grounds", "Judgement", "Lesson", "ProbeReading", "Today",
    "WorkedWarmth", "changes", "follow", "judge_lock_in", "learn_place", "learned", "learned_reference",
    "read_logger_csv", "simulate_lesson", "work_warmth",
]  # fmt: skip
