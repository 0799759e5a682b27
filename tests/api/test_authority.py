"""The house's own authority and certificate: for which names, until when, and for nobody else."""

import datetime
from datetime import UTC, timedelta

import pytest
from cryptography import x509

from bakehouse.authority import CannotVouch, papers
from bakehouse.whereabouts import Where, found_under, split, web_address

NOW = datetime.datetime(2026, 12, 1, 5, 0, tzinfo=UTC)
FOUND = ["lockhouse", "lockhouse.local", "192.168.7.20", "localhost", "127.0.0.1"]


def certificate(made):
    return x509.load_pem_x509_certificate(made.certificate.read_bytes())


def names(made):
    held = certificate(made).extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    return {str(n.value) for n in held}


def test_a_certificate_is_for_all_names_and_its_keys_for_nobody_else(tmp_path):
    made = papers(tmp_path / "tls", ["bakehouse.lan"], FOUND, NOW)
    assert names(made) == {"bakehouse.lan", *FOUND}
    authority = x509.load_pem_x509_certificate(made.authority.read_bytes())
    certificate(made).verify_directly_issued_by(authority)
    for key in ("authority.key", "house.key"):
        assert (tmp_path / "tls" / key).stat().st_mode & 0o077 == 0
    assert len(made.fingerprint.split()) == 8


def test_it_stays_until_names_or_time_want_another_and_the_authority_stays_the_same(tmp_path):
    first = papers(tmp_path, ["bakehouse.lan"], FOUND, NOW)
    serial, known = certificate(first).serial_number, first.fingerprint
    again = papers(tmp_path, ["bakehouse.lan"], FOUND, NOW + timedelta(days=300))
    assert certificate(again).serial_number == serial
    soon_over = papers(tmp_path, ["bakehouse.lan"], FOUND, NOW + timedelta(days=370))
    assert certificate(soon_over).serial_number != serial
    moved = papers(tmp_path, ["bakehouse.lan"], [*FOUND, "10.0.0.9"], NOW + timedelta(days=371))
    assert "10.0.0.9" in names(moved)
    assert moved.fingerprint == known


def test_the_authority_vouches_for_private_addresses_and_its_own_names_alone(tmp_path):
    made = papers(tmp_path, ["bakehouse.example"], FOUND, NOW)
    authority = x509.load_pem_x509_certificate(made.authority.read_bytes())
    held = authority.extensions.get_extension_for_class(x509.NameConstraints)
    assert held.critical
    permitted = {str(n.value) for n in held.value.permitted_subtrees}
    assert {"bakehouse.example", "local", "192.168.0.0/16"} <= permitted
    assert not {"com", "0.0.0.0/0"} & permitted
    with pytest.raises(CannotVouch, match="cannot vouch for that name"):
        papers(tmp_path, ["bank.example"], FOUND, NOW)
    # an address that the machine only happens to have is left out, not refused
    away = papers(tmp_path, ["bakehouse.example"], [*FOUND, "203.0.113.9"], NOW)
    assert "203.0.113.9" not in names(away)


@pytest.mark.parametrize(
    ("listen", "both"), [("0.0.0.0:8443", ("0.0.0.0", 8443)), ("[::1]:80", ("::1", 80))]
)
def test_an_address_and_a_port_are_read(listen, both):
    assert split(listen) == both


@pytest.mark.parametrize("listen", ["8000", "here:port", "0.0.0.0:99999", "0.0.0.0:0"])
def test_what_is_no_address_and_port_is_said(listen):
    with pytest.raises(ValueError, match="is not an address and a port"):
        split(listen)


def test_where_it_is_found_hangs_on_where_it_listens():
    assert found_under("127.0.0.1:8000") == ["127.0.0.1", "localhost"]
    assert "localhost" in found_under("0.0.0.0:8000", ["bakehouse.lan"])
    assert found_under("0.0.0.0:8000", ["bakehouse.lan"])[0] == "bakehouse.lan"
    assert web_address("https", "bakehouse.lan", 443) == "https://bakehouse.lan"
    assert web_address("http", "::1", 8000) == "http://[::1]:8000"


def test_behind_a_proxy_only_the_names_that_were_given_count():
    told = {"EIGHT_TURN_LISTEN": "127.0.0.1:8000", "EIGHT_TURN_HOSTS": "bakery.example"}
    where = Where.of(told | {"EIGHT_TURN_HTTPS": "1"})
    assert (where.hosts, where.at("bakery.example"), where.welcome_port) == (
        ("bakery.example",), "https://bakery.example", None)  # fmt: skip
    own = Where.of(told | {"EIGHT_TURN_HTTPS": "house", "EIGHT_TURN_LISTEN": "0.0.0.0:8443"})
    assert own.welcome_at("bakery.example") == "http://bakery.example:8442"
    assert own.lines()[0] == "Eight Turn is at https://bakery.example:8443"
