"""Settings for every test, and what is left to the night."""

import gc
import os

import pytest
from hypothesis import settings as hypothesis_settings

# Time is measured by `make bench`, never asserted: a busy machine must not fail a true property.
hypothesis_settings.register_profile("ours", deadline=None, max_examples=10, derandomize=True)
# At night with other seeds each time, and more of them.
hypothesis_settings.register_profile("night", deadline=None, max_examples=100, print_blob=True)
NIGHTLY = bool(os.environ.get("NIGHTLY"))
hypothesis_settings.load_profile("night" if NIGHTLY else "ours")

# As in a house that is served: looking for rubbish among all that is remembered takes its time.
gc.set_threshold(20_000, 20, 100)


def pytest_collection_modifyitems(config, items):
    """What is one more of a kind that the gate tries already waits for `make nightly`."""
    if NIGHTLY:
        return
    later = [item for item in items if item.get_closest_marker("nightly")]
    config.hook.pytest_deselected(items=later)
    items[:] = [item for item in items if item not in later]


@pytest.fixture(autouse=True)
def quick_passwords(settings):
    """Hash passwords in a moment: what is tested is who may come in, not how long a guess takes."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
