"""The house's own certificate authority, and the certificate with which it speaks https in its network.

A browser trusts an address of a house's network only when somebody has told the tablet to trust whoever
vouches for it. So the house vouches for itself: it makes an authority once, which each tablet is told to
trust, and from it a certificate for the names it has now, made anew when they change or its time is up.

The authority can vouch for private addresses and for the house's own names and nothing else: whoever
stole its key could not pass for a bank.
"""

from __future__ import annotations

import datetime
import hashlib
import ipaddress
import os
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from cryptography import x509
from cryptography.exceptions import InvalidSignature
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_LASTS = datetime.timedelta(days=20 * 365)
# browsers refuse a certificate that is good for much longer than a year
LASTS = datetime.timedelta(days=390)
RENEWED_BEFORE = datetime.timedelta(days=30)
_CLOCKS_DIFFER = datetime.timedelta(days=1)
_PRIVATE_NAMES = ("local", "lan", "home.arpa", "internal", "home", "localhost")
_PRIVATE_NETWORKS = (
    "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8",
    "fc00::/7", "fe80::/10", "::1/128",
)  # fmt: skip


class CannotVouch(Exception):
    """Why the house's authority cannot vouch for a name, in a sentence."""


@dataclass(frozen=True)
class Papers:
    """Where the certificate, its key and the authority's certificate lie, and by what the last is known."""

    certificate: Path
    key: Path
    authority: Path
    fingerprint: str


def papers(
    folder: Path, named: Sequence[str], found: Sequence[str], now: datetime.datetime
) -> Papers:
    """The house's certificate: what lies in ``folder``, or made anew where that will not do.

    It is for the names that its owner gave it, ``named``, and for those under which it is ``found``; of the
    latter only those that its authority may vouch for. Raises :class:`CannotVouch` for one of the former.
    """
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    authority, authority_key = _authority(folder, [*named, *found], now)
    for name in named:
        if not _may_vouch(authority, name):
            raise CannotVouch(
                f"The house's authority was made before it was called {name}, and cannot vouch for that "
                "name. Take the name out of EIGHT_TURN_HOSTS, or delete the folder tls/ in DATA_DIR: a "
                "new authority is made at the next start, and every tablet is told once more to trust it."
            )
    names = list(dict.fromkeys([*named, *(n for n in found if _may_vouch(authority, n))]))
    certificate, key = folder / "house.crt", folder / "house.key"
    if not (key.exists() and _will_do(certificate, authority, names, now)):
        _certificate(folder, authority, authority_key, names, now)
    whole = authority.public_bytes(serialization.Encoding.DER)
    return Papers(certificate, key, folder / "authority.crt", fingerprint(whole))


def fingerprint(certificate: bytes) -> str:
    """By what a certificate (DER) is compared with what a screen shows: SHA-256, in pairs."""
    digest = hashlib.sha256(certificate).hexdigest().upper()
    return " ".join(digest[i : i + 4] for i in range(0, 32, 4))


def fingerprint_of(folder: Path) -> str | None:
    """By what the authority that lies in ``folder`` is known; None where there is none."""
    file = folder / "authority.crt"
    if not file.exists():
        return None
    found = x509.load_pem_x509_certificate(file.read_bytes())
    return fingerprint(found.public_bytes(serialization.Encoding.DER))


def _authority(
    folder: Path, names: Sequence[str], now: datetime.datetime
) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey]:
    file, key_file = folder / "authority.crt", folder / "authority.key"
    if file.exists() and key_file.exists():
        found = x509.load_pem_x509_certificate(file.read_bytes())
        key = serialization.load_pem_private_key(key_file.read_bytes(), None)
        if found.not_valid_after_utc > now and isinstance(key, ec.EllipticCurvePrivateKey):
            return found, key
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, f"Eight Turn, {_short(names)}")])
    public = key.public_key()
    made = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(public)
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - _CLOCKS_DIFFER)
        .not_valid_after(now + AUTHORITY_LASTS)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs_certificates=True), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(public), critical=False)
        .add_extension(x509.NameConstraints(_permitted(names), None), critical=True)
        .sign(key, hashes.SHA256())
    )
    _write_key(key_file, key)
    _replace(file, made.public_bytes(serialization.Encoding.PEM), 0o644)
    return made, key


def _certificate(
    folder: Path,
    authority: x509.Certificate,
    authority_key: ec.EllipticCurvePrivateKey,
    names: Sequence[str],
    now: datetime.datetime,
) -> None:
    key = ec.generate_private_key(ec.SECP256R1())
    subject = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, _short(names))])
    made = (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(authority.subject)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - _CLOCKS_DIFFER)
        .not_valid_after(min(now + LASTS, authority.not_valid_after_utc))
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(signs_certificates=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(
            x509.AuthorityKeyIdentifier.from_issuer_public_key(authority_key.public_key()),
            critical=False,
        )
        .add_extension(x509.SubjectAlternativeName(_general(names)), critical=False)
        .sign(authority_key, hashes.SHA256())
    )
    _write_key(folder / "house.key", key)
    chain = [made, authority]
    both = b"".join(c.public_bytes(serialization.Encoding.PEM) for c in chain)
    _replace(folder / "house.crt", both, 0o644)


def _will_do(
    file: Path, authority: x509.Certificate, names: Sequence[str], now: datetime.datetime
) -> bool:
    if not file.exists():
        return False
    found = x509.load_pem_x509_certificate(file.read_bytes())
    try:
        found.verify_directly_issued_by(authority)
    except (ValueError, TypeError, InvalidSignature):
        return False
    for_names = found.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    lasts = found.not_valid_after_utc > now + RENEWED_BEFORE
    return lasts and set(for_names) == set(_general(names))


def _usage(signs_certificates: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=True, content_commitment=False, key_encipherment=False,
        data_encipherment=False, key_agreement=False, key_cert_sign=signs_certificates,
        crl_sign=signs_certificates, encipher_only=False, decipher_only=False,
    )  # fmt: skip


def _address(name: str) -> ipaddress.IPv4Address | ipaddress.IPv6Address | None:
    try:
        return ipaddress.ip_address(name)
    except ValueError:
        return None


def _general(names: Sequence[str]) -> list[x509.GeneralName]:
    return [
        x509.IPAddress(address) if (address := _address(name)) else x509.DNSName(name)
        for name in names
    ]


def _permitted(names: Sequence[str]) -> list[x509.GeneralName]:
    networks = [ipaddress.ip_network(n) for n in _PRIVATE_NETWORKS]
    own = [n for n in names if not _address(n) and not _under(n, _PRIVATE_NAMES)]
    # an address of the open internet that this house has, and only that one
    networks += [
        ipaddress.ip_network(a)
        for n in names
        if (a := _address(n)) and not any(a in net for net in networks)
    ]
    return [
        *(x509.DNSName(n) for n in (*_PRIVATE_NAMES, *own)),
        *(x509.IPAddress(n) for n in networks),
    ]


def _under(name: str, tops: Sequence[str]) -> bool:
    return any(name == top or name.endswith(f".{top}") for top in tops)


def _may_vouch(authority: x509.Certificate, name: str) -> bool:
    permitted = authority.extensions.get_extension_for_class(x509.NameConstraints).value
    allowed = permitted.permitted_subtrees or []
    if address := _address(name):
        networks = [
            ipaddress.ip_network(str(n.value)) for n in allowed if isinstance(n, x509.IPAddress)
        ]
        return any(address in network for network in networks)
    return _under(name, [n.value for n in allowed if isinstance(n, x509.DNSName)])


def _short(names: Sequence[str]) -> str:
    return next(iter(names), "bakehouse")[:50]


def _write_key(file: Path, key: ec.EllipticCurvePrivateKey) -> None:
    pem = key.private_bytes(
        serialization.Encoding.PEM,
        serialization.PrivateFormat.PKCS8,
        serialization.NoEncryption(),
    )
    _replace(file, pem, 0o600)


def _replace(file: Path, content: bytes, mode: int) -> None:
    """Written whole before it has its name: a power cut leaves the one before."""
    half = file.with_name(f".{file.name}.half")
    half.unlink(missing_ok=True)
    with open(os.open(half, os.O_CREAT | os.O_EXCL | os.O_WRONLY, mode), "wb") as new:
        new.write(content)
    half.replace(file)
