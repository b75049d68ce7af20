"""Ports that do not meet each other, nor what the kernel gives out."""

from pathlib import Path

from kumpan.tools.cluster import IN_THE_FILE, OURS, with_ports
from kumpan.tools.ports import free_ports


def test_ports_are_all_different_and_below_those_of_outgoing_connections() -> None:
    found = free_ports(200)
    assert len(set(found)) == 200
    lowest = int(Path("/proc/sys/net/ipv4/ip_local_port_range").read_text().split()[0])
    assert max(found) < lowest


def test_a_new_port_is_not_replaced_again() -> None:
    """33110 begins with a port that stands in the file."""
    own = {port: 33110 + number for number, port in enumerate(IN_THE_FILE)}
    text = with_ports(OURS.read_text(), own)
    for port in own.values():
        assert str(port) in text
    assert not any(f":{port}\n" in text or f" {port}\n" in text for port in IN_THE_FILE)
