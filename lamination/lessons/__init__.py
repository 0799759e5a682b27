"""A bench without butter: lessons, what a play of one comes to, and the best play of its day."""

from lamination.lessons.bench import SimulatedBench, bench_of
from lamination.lessons.best import BestPlay, Cost, Worths, best_play, costs_of, random_play
from lamination.lessons.choices import Choice, Decided, Decision
from lamination.lessons.harms import Harm
from lamination.lessons.inside import LeafMethod, LeavesAfter, seen_inside
from lamination.lessons.lesson import (
    DECISIONS_FORMAT,
    LESSON_FORMAT,
    Decisions,
    Goal,
    Hint,
    Lesson,
    Moods,
    checked,
    mood_of,
)
from lamination.lessons.made import lesson_of_plan, lesson_of_run, put_into_plan, usual_choices
from lamination.lessons.morning import (
    MORNING_FORMAT,
    Begins,
    Morning,
    MorningCost,
    MorningPlay,
    best_morning,
    morning_costs,
    morning_play,
)
from lamination.lessons.outcome import (
    OUTCOME_FORMAT,
    GoalLine,
    Outcome,
    goal_lines,
    outcome_of,
)
from lamination.lessons.piece import DrawnPiece, drawn_piece
from lamination.lessons.play import Played, played

__all__ = [
    "DECISIONS_FORMAT", "LESSON_FORMAT", "MORNING_FORMAT", "OUTCOME_FORMAT", "Begins", "BestPlay", "Choice",
    "Cost", "Decided", "Decision", "Decisions", "DrawnPiece", "Goal", "GoalLine", "Harm", "Hint",
    "LeafMethod", "LeavesAfter", "Lesson", "Moods", "Morning", "MorningCost", "MorningPlay", "Outcome",
    "Played", "SimulatedBench", "Worths", "bench_of", "best_morning", "best_play", "checked", "costs_of",
    "drawn_piece", "goal_lines", "lesson_of_plan", "lesson_of_run", "mood_of", "morning_costs",
    "morning_play", "outcome_of", "played", "put_into_plan", "random_play", "seen_inside", "usual_choices",
]  # fmt: skip
