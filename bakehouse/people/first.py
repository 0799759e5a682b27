"""The code with which the first person comes into a new house."""

import os
import secrets

from django.conf import settings

_SIGNS = "ABCDEFGHJKMNPQRSTUVWXYZ23456789"


def code() -> str:
    """The code of this house: made once, readable by its owner only, gone when somebody came in."""
    path = settings.DATA_DIR / "first-code"
    if not path.exists():
        made = "-".join("".join(secrets.choice(_SIGNS) for _ in range(4)) for _ in range(2))
        with open(os.open(path, os.O_CREAT | os.O_WRONLY | os.O_TRUNC, 0o600), "w") as new:
            new.write(made)
    found: str = path.read_text().strip()
    return found


def code_is(said: str) -> bool:
    """Whether somebody read it off the terminal."""
    path = settings.DATA_DIR / "first-code"
    plain = said.strip().upper().replace(" ", "-")
    return path.exists() and secrets.compare_digest(plain.encode(), code().encode())


def forget_code() -> None:
    """Somebody came in: nobody else does so."""
    (settings.DATA_DIR / "first-code").unlink(missing_ok=True)
