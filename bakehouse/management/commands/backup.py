"""Copy the live database to a file, safely while people are working."""

import sqlite3
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import connection


class Command(BaseCommand):
    help = "Copy the live database to FILE. To restore, stop the application and put it back."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        if file.exists():
            raise CommandError(f"{file} exists already; a backup never overwrites.")
        connection.ensure_connection()
        copy = sqlite3.connect(file)
        try:
            connection.connection.backup(copy)
        finally:
            copy.close()
        self.stdout.write(f"{file}: {file.stat().st_size / 1024:.0f} kB")
