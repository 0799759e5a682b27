"""Copy the live database, safely while people are working."""

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from bakehouse.copies import CopyError, copy_into, copy_to


class Command(BaseCommand):
    help = "Copy the house to FILE, or into a folder of which the latest copies are kept."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path, nargs="?")
        parser.add_argument("--into", type=Path, help="a folder for copies named after the moment")
        parser.add_argument("--keep", type=int, default=14, help="so many of them (default: 14)")

    def handle(self, *args: Any, file: Path | None, into: Path | None, keep: int, **_: Any) -> None:
        if (file is None) == (into is None):
            raise CommandError("Say one of two: a FILE, or --into FOLDER.")
        try:
            if into is not None:
                file, gone = copy_into(into, max(keep, 1))
                self.stdout.write(f"{gone} older copies taken away." if gone else "")
            elif file is not None:
                copy_to(file)
        except CopyError as wrong:
            raise CommandError(str(wrong)) from None
        assert file is not None
        self.stdout.write(f"{file}: {file.stat().st_size / 1024:.0f} kB, whole.")
