"""Addresses of IPv4 and IPv6 with the length of their network: `192.168.1.5/24`."""

from __future__ import annotations

import ipaddress
import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_WELL_KNOWN = {
    "0.0.0.0": "every address of this machine",
    "127.0.0.1": "this machine itself",
    "::1": "this machine itself",
    "::": "every address of this machine",
}


def read(value: str, dialect: str = "") -> Reading:
    """The address, and the network that its length makes."""
    match = re.fullmatch(r"([0-9a-fA-F.:]+)(/\d{1,3}|/\d+\.\d+\.\d+\.\d+)?", value)
    if not match or not re.search(r"\d\.\d|:", match[1]):
        return NOTHING
    cutter = Cutter(value)
    if not match[2]:
        ipaddress.ip_address(value)
        return Reading([], _WELL_KNOWN.get(value, ""))
    network = ipaddress.ip_network(value, strict=False)
    if network.prefixlen == network.max_prefixlen:
        says = "just this address"
    elif network.prefixlen == 0:
        return Reading([], "every address")
    else:
        says = f"its network: {_extent(network)}"
    cutter.cut(
        len(match[1]), "the address" if match[1] != str(network.network_address) else "the network"
    )
    cutter.cut(len(value), says)
    return cutter.finish()


def _extent(network: ipaddress.IPv4Network | ipaddress.IPv6Network) -> str:
    """The first and the last address of a network, and how many there are."""
    extent = f"{network.network_address} to {network.broadcast_address}"
    if network.version == 4:
        return f"{extent}, {network.num_addresses} addresses"
    return extent
