"""Settings for every test."""

import gc

import pytest
from hypothesis import settings as hypothesis_settings

# Time is measured by `make bench`, never asserted: a busy machine must not fail a true property.
hypothesis_settings.register_profile("ours", deadline=None, max_examples=10, derandomize=True)
hypothesis_settings.load_profile("ours")

# As in a house that is served: looking for rubbish among all that is remembered takes its time.
gc.set_threshold(20_000, 20, 100)


@pytest.fixture(autouse=True)
def quick_passwords(settings):
    """Hash passwords in a moment: what is tested is who may come in, not how long a guess takes."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
