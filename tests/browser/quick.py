"""A house that is tested hashes a password in a moment, not in the second that a guess should take."""

from bakehouse.settings import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
