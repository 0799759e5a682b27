"""A new password for somebody who forgot theirs, from the machine itself."""

import secrets
from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError
from django.db import transaction

from bakehouse.people.lockout import lift_locks
from bakehouse.people.staff_api import end_sessions

_SIGNS = "abcdefghjkmnpqrstuvwxyz23456789"


class Command(BaseCommand):
    help = "Give NAME a new password, which is printed, and let them in again where they were locked out."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("name")

    def handle(self, *args: Any, name: str, **_: Any) -> None:
        user = User.objects.filter(username__iexact=name).first()
        if user is None:
            known = ", ".join(User.objects.values_list("username", flat=True)) or "nobody"
            raise CommandError(f"There is nobody called {name} here. There is: {known}.")
        made = "-".join("".join(secrets.choice(_SIGNS) for _ in range(4)) for _ in range(3))
        with transaction.atomic():
            user.set_password(made)
            user.is_active = True
            user.save()
            end_sessions(user)
            lift_locks(user)
        self.stdout.write(f"The new password of {user.get_username()} is {made}")
        self.stdout.write("Change it after signing in: your name at the foot of every page.")
