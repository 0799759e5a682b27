"""The API's own addresses, which are imported when one of them is first asked for (``urls.py``)."""

from django.urls import path

from bakehouse.api import api

urlpatterns = [path("", api.urls)]
