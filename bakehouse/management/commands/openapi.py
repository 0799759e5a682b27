"""What the API understands and answers, for whoever generates from it."""

import json
from typing import Any

from django.core.management.base import BaseCommand
from ninja.responses import NinjaJSONEncoder


class Command(BaseCommand):
    help = "Print the API's OpenAPI schema."

    def handle(self, *args: Any, **options: Any) -> None:
        from bakehouse.api import api

        self.stdout.write(json.dumps(api.get_openapi_schema(), cls=NinjaJSONEncoder))
