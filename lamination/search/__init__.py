"""Searches: folds for the layers wanted, layouts for the pieces wanted."""

from lamination.search.folds import Found, Search, Wish, suggest, with_turns
from lamination.search.layouts import Allotments, AllotSearch, allot

__all__ = [
    "AllotSearch", "Allotments", "Found", "Search", "Wish", "allot", "suggest", "with_turns",
]  # fmt: skip
