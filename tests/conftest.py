"""Settings for every test."""

from hypothesis import settings

# Time is measured by `make bench`, never asserted: a busy machine must not fail a true property.
settings.register_profile("ours", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("ours")
