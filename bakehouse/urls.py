"""Addresses: the API, the admin where it is asked for, and the built front end for everything else."""

from django.conf import settings
from django.contrib import admin
from django.urls import URLResolver, path, re_path
from django.urls.resolvers import RoutePattern

from bakehouse.shell import service_worker, shell

# What Django answers outside any endpoint has the API's shape too.
handler400 = "bakehouse.api.not_understood"
handler404 = "bakehouse.api.nothing_here"
handler500 = "bakehouse.api.our_fault"

urlpatterns = [
    # by its name: the page is answered before all that the API needs has been imported
    URLResolver(RoutePattern("api/"), "bakehouse.addresses"),
    *([path("admin/", admin.site.urls)] if settings.ADMIN else []),
    path("sw.js", service_worker),
    re_path(r"^(?!api/|admin/|static/).*$", shell),
]
