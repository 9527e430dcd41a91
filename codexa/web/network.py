"""Who asks, as a network: what is counted where one machine could have many addresses."""

from functools import lru_cache
from ipaddress import IPv6Address, IPv6Network, ip_address

from flask import request

_HOUSE = 64  # bits; what an IPv6 household has to itself (RFC 6177)


@lru_cache(maxsize=10_000)
def network_of(address: str) -> str:
    """Return the network of an address: an IPv4 address itself, of an IPv6 address its /64."""
    try:
        found = ip_address(address.split("%", maxsplit=1)[0])
    except ValueError:
        return address[:60]
    if isinstance(found, IPv6Address):
        if found.ipv4_mapped is not None:
            return str(found.ipv4_mapped)
        return str(IPv6Network((found, _HOUSE), strict=False))
    return str(found)


def network() -> str:
    """Return the network that the request comes from."""
    return network_of(request.remote_addr or "")
