"""Under which names and addresses this machine is found in the house's own network."""

from __future__ import annotations

import ipaddress
import socket
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import ifaddr

LISTEN = "127.0.0.1:8000"
LOOPBACK = ("localhost", "127.0.0.1", "::1")
EVERYWHERE = ("0.0.0.0", "::", "")


def split(listen: str) -> tuple[str, int]:
    """Address and port of ``address:port``. Raises ValueError with a sentence."""
    address, colon, port = listen.rpartition(":")
    if not colon or not port.isdigit() or not 0 < int(port) < 65_536:
        raise ValueError(f"“{listen}” is not an address and a port, as 0.0.0.0:8000 is.")
    return address.strip("[]") or "0.0.0.0", int(port)


def own_names() -> list[str]:
    """What this machine is called, and what it is called where names are asked of the network itself."""
    name = socket.gethostname().lower().rstrip(".")
    if not name or name in LOOPBACK:
        return []
    return [name] if "." in name else [name, f"{name}.local"]


def own_addresses() -> list[str]:
    """This machine's addresses in its networks, without those that are only its own."""
    found = []
    for adapter in ifaddr.get_adapters():
        for ip in adapter.ips:
            plain = ip.ip if isinstance(ip.ip, str) else ip.ip[0]
            address = ipaddress.ip_address(plain)
            # nobody types one of the long ones
            if address.version == 4 and not (address.is_loopback or address.is_link_local):
                found.append(str(address))
    return sorted(dict.fromkeys(found))


def found_under(listen: str, named: Sequence[str] = ()) -> list[str]:
    """Every name and address by which the house is reached when it listens there, the best one first.

    ``named``: names that its owner gave it. One that listens to this machine alone is found nowhere else.
    """
    address, _ = split(listen)
    if address in LOOPBACK:
        return list(dict.fromkeys([*named, "127.0.0.1", "localhost"]))
    here = own_addresses() if address in EVERYWHERE else [address]
    # a number is found by every tablet, a name only where the network tells it
    return list(dict.fromkeys([*named, *here, *reversed(own_names()), *LOOPBACK]))


def web_address(scheme: str, host: str, port: int) -> str:
    """An address as it is typed into a browser."""
    usual = port == (443 if scheme == "https" else 80)
    bare = f"[{host}]" if ":" in host else host
    return f"{scheme}://{bare}" if usual else f"{scheme}://{bare}:{port}"


@dataclass(frozen=True)
class Where:
    """Where the house is found: how it is spoken to, where it listens, and by which names."""

    scheme: str
    listens: str
    port: int
    welcome_port: int | None
    hosts: tuple[str, ...]

    @classmethod
    def of(cls, environment: Mapping[str, str]) -> Where:
        """As the environment says. Raises ValueError with a sentence."""
        listen = environment.get("EIGHT_TURN_LISTEN") or LISTEN
        listens, port = split(listen)
        https = environment.get("EIGHT_TURN_HTTPS", "")
        welcome = environment.get("EIGHT_TURN_WELCOME") or str(port - 1)
        named = [n for n in environment.get("EIGHT_TURN_HOSTS", "").split(",") if n]
        return cls(
            "https" if https else "http",
            listens,
            443 if https == "1" else port,  # the proxy's
            split(f"{listens}:{welcome}")[1] if https == "house" else None,
            tuple(named) if named and https == "1" else tuple(found_under(listen, named)),
        )

    def at(self, host: str) -> str:
        """The house's address by a name."""
        return web_address(self.scheme, host, self.port)

    def welcome_at(self, host: str) -> str:
        """The address of the page that says how a tablet is told to trust it. There must be one."""
        assert self.welcome_port is not None
        return web_address("http", host, self.welcome_port)

    def addresses(self) -> list[str]:
        """Its addresses as they are typed into a browser, the best first; those of the machine itself only
        where it has no others.
        """
        others = [h for h in self.hosts if h not in LOOPBACK]
        return [self.at(h) for h in others or self.hosts[:1]]

    def best(self) -> str:
        """The name by which another machine finds it, if any does."""
        return next((h for h in self.hosts if h not in LOOPBACK), self.hosts[0])

    def lines(self) -> list[str]:
        """What a terminal says of it."""
        said = [f"Eight Turn is at {self.addresses()[0]}"]
        said += [f"            and {address}" for address in self.addresses()[1:]]
        if self.welcome_port is not None:
            said.append(f"A tablet learns to trust it at {self.welcome_at(self.best())}")
        return said
