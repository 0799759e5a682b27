"""Addresses: the API, the admin, and the built front end for everything else."""

from django.contrib import admin
from django.urls import path, re_path

from bakehouse.api import api
from bakehouse.shell import service_worker, shell

# What Django answers outside any endpoint has the API's shape too.
handler400 = "bakehouse.api.not_understood"
handler404 = "bakehouse.api.nothing_here"
handler500 = "bakehouse.api.our_fault"

urlpatterns = [
    path("api/", api.urls),
    path("admin/", admin.site.urls),
    path("sw.js", service_worker),
    re_path(r"^(?!api/|admin/|static/).*$", shell),
]
