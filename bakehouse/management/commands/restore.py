"""Put a copy in the place of the house."""

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError

from bakehouse.copies import CopyError, put_back


class Command(BaseCommand):
    help = "Put the copy FILE in the place of the house. What was there is kept beside it."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **_: Any) -> None:
        try:
            counts, before = put_back(file)
        except CopyError as wrong:
            raise CommandError(f"{wrong} Nothing was changed.") from None
        call_command("migrate", verbosity=0)
        plans, runs = counts.get("plans_planrecord", 0), counts.get("bench_run", 0)
        events = counts.get("bench_eventrecord", 0)
        self.stdout.write(f"Put back: {plans} plans, {runs} runs with {events} entries.")
        if before:
            self.stdout.write(f"What was there before is kept as {before}.")
        self.stdout.write(
            "The secret key is not in a copy, and stays as it is here: whoever was signed in at the time of "
            "the copy with this key is again, everybody else signs in anew. Passwords are in the copy.\n"
            "Tablets notice that a copy was put back. Each offers to send again what it had sent since the "
            "copy was made, and keeps what it had not sent yet; what the copy has already is passed over."
        )
