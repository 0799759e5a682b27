"""Addresses: the API, the admin, and the built front end for everything else."""

from django.contrib import admin
from django.urls import path, re_path

from bakehouse.api import api
from bakehouse.shell import shell

urlpatterns = [
    path("api/", api.urls),
    path("admin/", admin.site.urls),
    re_path(r"^(?!api/|admin/|static/).*$", shell),
]
