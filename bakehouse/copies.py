"""Copies of the house: made while people work, checked, kept for a while, and put back."""

from __future__ import annotations

import contextlib
import os
import sqlite3
import threading
import time
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

from django.conf import settings
from django.db import DatabaseError, connection, connections
from django.db.migrations.loader import MigrationLoader

from bakehouse.life import begin

_PREFIX, _ENDING = "eight-turn-", ".sqlite3"
_EVERY_S, _LOOK_S = 24 * 3600, 600
_BESIDE = ("-wal", "-shm", "-journal")


class CopyError(Exception):
    """Why a copy could not be made or put back, in a sentence."""


def the_database() -> Path:
    """The file that holds the house."""
    return Path(str(connection.settings_dict["NAME"]))


def _read_only(file: Path) -> sqlite3.Connection:
    """A path may have any sign in it that an address has."""
    return sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro", uri=True)


@contextlib.contextmanager
def _opened(file: Path) -> Iterator[sqlite3.Connection]:
    database = _read_only(file)
    try:
        yield database
    finally:
        database.close()


def _counts(database: sqlite3.Connection) -> dict[str, int]:
    tables = [
        name
        for (name,) in database.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
        if not name.startswith("sqlite_")
    ]
    return {t: database.execute(f'SELECT count(*) FROM "{t}"').fetchone()[0] for t in tables}


def checked(file: Path) -> dict[str, int]:
    """How many rows each table of a copy holds. Raises :class:`CopyError` for what is no whole house."""
    if not file.is_file():
        raise CopyError(f"There is no file {file}.")
    try:
        with _opened(file) as database:
            found = database.execute("PRAGMA integrity_check").fetchone()[0]
            if found != "ok":
                raise CopyError(f"{file} is damaged: {found}.")
            counts = _counts(database)
    except sqlite3.DatabaseError:
        raise CopyError(f"{file} is no database.") from None
    if not counts.get("django_migrations") or "plans_planrecord" not in counts:
        raise CopyError(f"{file} holds no bakehouse.")
    return counts


def copy_to(file: Path) -> dict[str, int]:
    """Copy the house to a file, for its owner's eyes only; returns what is in it, counted in the copy.

    Raises :class:`CopyError`: no such folder, the file is there already, nothing to copy, a bad copy.
    """
    if file.exists():
        raise CopyError(f"{file} exists already; a backup never overwrites.")
    if not file.parent.is_dir():
        raise CopyError(f"There is no folder {file.parent}. Make it first.")
    if not _made():
        raise CopyError(
            f"There is no house in {settings.DATA_DIR}. Is DATA_DIR what the application runs with?"
        )
    half = file.with_name(f".{file.name}.half")
    half.unlink(missing_ok=True)
    os.close(os.open(half, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600))
    try:
        copy = sqlite3.connect(half)
        try:
            connection.ensure_connection()
            connection.connection.backup(copy)
            # one file, without a journal beside it
            copy.execute("PRAGMA journal_mode=DELETE")
        finally:
            copy.close()
        counts = checked(half)
        half.rename(file)
    finally:
        half.unlink(missing_ok=True)
    return counts


def _made() -> bool:
    name = str(connection.settings_dict["NAME"])
    if "mode=memory" not in name and not Path(name).is_file():
        return False
    return "django_migrations" in connection.introspection.table_names()


def copy_into(folder: Path, keep: int) -> tuple[Path, int]:
    """A copy named after the moment, and only the latest so many kept; returns it, and how many went."""
    file = folder / f"{_PREFIX}{datetime.now(UTC):%Y%m%d-%H%M%S}{_ENDING}"
    copy_to(file)
    old = sorted(folder.glob(f"{_PREFIX}*{_ENDING}"))[:-keep] if keep else []
    for one in old:
        one.unlink()
    return file, len(old)


def put_back(file: Path) -> tuple[dict[str, int], Path | None]:
    """Put a copy in the place of the house; returns what is in it, and where the house before is kept.

    A house that is damaged is set aside untouched, file by file. Raises :class:`CopyError` for what is no
    copy, or one that a newer version made; then nothing is changed.
    """
    counts = checked(file)
    known = set(MigrationLoader(None).disk_migrations)
    with _opened(file) as database:
        applied = set(database.execute("SELECT app, name FROM django_migrations"))
        made_at = _latest(database)
    ours = {app for app, _ in known}
    newer = sorted(f"{app} {name}" for app, name in applied - known if app in ours)
    if newer:
        raise CopyError(
            f"{file} was made by a newer Eight Turn ({newer[-1]}). Use that to read it."
        )
    aside = _kept_before()
    if aside is None:
        aside = _set_aside(the_database())
    connections.close_all()
    house = the_database()
    os.close(os.open(house, os.O_CREAT | os.O_WRONLY, 0o600))
    # into the file that is there: whoever has it open sees the other house from the next look on
    source, target = _read_only(file), sqlite3.connect(house)
    try:
        source.backup(target)
    finally:
        source.close()
        target.close()
    begin(made_at)
    return counts, aside


def _kept_before() -> Path | None:
    """A copy of the house as it is; None where there is none, or it is damaged."""
    before = _free("before-restore")
    try:
        if not _made():
            return None
        copy_to(before)
    except (CopyError, DatabaseError, sqlite3.Error, OSError):
        return None
    return before


def _free(name: str) -> Path:
    """A path beside the house that nothing has yet."""
    now = f"{datetime.now(UTC):%Y%m%d-%H%M%S}"
    folder = the_database().parent
    paths = (
        folder / f"{name}-{now}{again}{_ENDING}" for again in ("", *map("-{}".format, range(2, 99)))
    )
    return next(p for p in paths if not p.exists())


def _set_aside(house: Path) -> Path | None:
    """Give the files of a damaged house other names, untouched; returns the first, if there are any."""
    connections.close_all()
    files = [f for f in (house, *(house.with_name(house.name + e) for e in _BESIDE)) if f.exists()]
    # what holds nothing, nobody misses
    if not any(f.stat().st_size for f in files):
        for empty in files:
            empty.unlink()
        return None
    aside = _free("damaged")
    for file in files:
        file.rename(aside.with_name(aside.name + file.name.removeprefix(house.name)))
    return aside


def _latest(database: sqlite3.Connection) -> datetime | None:
    """When the last entry came in that a copy has; whatever came later it does not have."""
    found = database.execute(
        "SELECT max(received_at) FROM bench_eventrecord"
        if "bench_eventrecord" in _counts(database)
        else "SELECT NULL"
    ).fetchone()[0]
    return datetime.fromisoformat(found).replace(tzinfo=UTC) if found else None


def keep_copies(folder: Path, keep: int) -> threading.Thread:
    """Copy the house every day while the application runs, for those who have nothing else that does."""

    def look() -> None:
        while True:
            latest = max(
                (f.stat().st_mtime for f in folder.glob(f"{_PREFIX}*{_ENDING}")), default=0
            )
            if time.time() - latest > _EVERY_S:
                try:
                    copy_into(folder, keep)
                except (CopyError, OSError, sqlite3.Error) as wrong:
                    print(f"No copy was made: {wrong}", flush=True)
                finally:
                    connections.close_all()
            time.sleep(_LOOK_S)

    thread = threading.Thread(target=look, name="copies", daemon=True)
    thread.start()
    return thread
