"""The book that answers: what was seen, why it may have come out so, what was different."""

from lamination.findings.different import Difference, Feature, different, features, score
from lamination.findings.evidence import Evidence
from lamination.findings.ranking import NextTime, Ranked, WhySo, put_into, why
from lamination.findings.record import RECORD_FORMAT, Record
from lamination.findings.table import BakeCause, Finding, Likelihood, met_after, priors
from lamination.findings.teaching import Taught, taught

__all__ = [
    "RECORD_FORMAT", "BakeCause", "Difference", "Evidence", "Feature", "Finding", "Likelihood", "NextTime",
    "Ranked", "Record", "Taught", "WhySo", "different", "features", "met_after", "priors", "put_into",
    "score", "taught", "why",
]  # fmt: skip
