"""Fill an empty house with the bakehouse at Teasel Lock; leave one that has anything in it."""

from argparse import ArgumentParser
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError

from bakehouse.bench.models import Run
from bakehouse.people.models import House
from bakehouse.plans.models import PlanRecord


class Command(BaseCommand):
    help = (
        "Load the demo once: accounts, plans, two finished runs and one under way, a day of today."
    )

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument(
            "--without-today", action="store_true", help="what needs no compiled loops"
        )

    def handle(self, *args: Any, without_today: bool, **options: Any) -> None:
        # all that a demo is made of is imported only where it is asked for
        if not House.is_demo():
            from bakehouse.demo.teasel_lock import ACCOUNTS

            if User.objects.exclude(username__in=ACCOUNTS).exists():
                raise CommandError(
                    f"{settings.DATA_DIR} is a house in real use, not a demo. Nothing was changed. For "
                    "the demo say another place: make demo DATA_DIR=/tmp/demo"
                )
        from bakehouse.demo.fill import fill, fill_today

        if PlanRecord.objects.exists() or Run.objects.exists():
            self.stdout.write("The house has plans already: nothing loaded, nothing changed.")
            return
        self.stdout.write(fill())
        if not without_today:
            fill_today()
