"""The plain page of a house that speaks https: how a tablet is told, once, to trust it.

It is reached over http, by tablets that do not trust the house yet, and knows nothing of the house but its
certificate and its addresses. ``python -m bakehouse.welcome`` serves it beside the house (``serve.py``).
"""

from __future__ import annotations

import os
from collections.abc import Callable
from functools import cache
from html import escape
from pathlib import Path
from string import Template
from typing import Any

import segno
from cryptography import x509
from cryptography.hazmat.primitives import serialization

from bakehouse import whereabouts
from bakehouse.authority import fingerprint
from bakehouse.serve import data_dir, ends_with, server

Answer = tuple[int, str, bytes]
CERTIFICATE = "/bakehouse.crt"


def code_for(text: str) -> str:
    """A code to scan, as a drawing."""
    return str(
        segno.make(text, error="m").svg_inline(scale=5, border=2, omitsize=True, dark="#2b2420")
    )


@cache
def _authority() -> bytes:
    pem = (data_dir() / "tls" / "authority.crt").read_bytes()
    return x509.load_pem_x509_certificate(pem).public_bytes(serialization.Encoding.DER)


def page(host: str) -> bytes:
    """The page, as it reads for somebody who came to it by that name."""
    where = whereabouts.Where.of(os.environ)
    # the next tablet cannot come to this machine by the name it has for itself
    name = host if host in where.hosts and host not in whereabouts.LOOPBACK else where.best()
    here, there = where.welcome_at(name), where.at(name)
    template = Template((Path(__file__).parent / "welcome.html").read_text())
    return template.substitute(
        certificate=CERTIFICATE,
        sign=fingerprint(_authority()),
        here=escape(here),
        there=escape(there),
        code=code_for(here),
        others="".join(f"<li>{escape(a)}</li>" for a in where.addresses()),
    ).encode()


def answer(path: str, host: str) -> Answer:
    """What is answered at a path: the certificate at its own, the page at every other."""
    if path == CERTIFICATE:
        return 200, "application/x-x509-ca-cert", _authority()
    return 200, "text/html; charset=utf-8", page(host)


async def application(
    scope: dict[str, Any], receive: Callable[..., Any], send: Callable[..., Any]
) -> None:
    """The page and the certificate, to whoever asks."""
    if scope["type"] != "http":
        return
    headers = {k.decode("latin1").lower(): v.decode("latin1") for k, v in scope["headers"]}
    host = headers.get("host", "")
    bare = host.rpartition(":")[0].strip("[]") if ":" in host else host
    status, kind, body = answer(scope["path"], bare)
    await send({
        "type": "http.response.start",
        "status": status,
        "headers": [
            (b"content-type", kind.encode()),
            (b"content-length", str(len(body)).encode()),
            (b"cache-control", b"no-store"),
            (b"x-content-type-options", b"nosniff"),
            (b"content-security-policy", b"default-src 'none'; style-src 'unsafe-inline'"),
        ],
    })  # fmt: skip
    await send({"type": "http.response.body", "body": b"" if scope["method"] == "HEAD" else body})


def _made() -> Callable[..., Any]:
    ends_with(os.getppid())
    return application


if __name__ == "__main__":
    ends_with(os.getppid())
    where = whereabouts.Where.of(os.environ)
    assert where.welcome_port is not None
    server(where.listens, where.welcome_port).serve(target_loader=_made, wrap_loader=False)
