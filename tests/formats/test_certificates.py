"""The shop's own authority: good for private addresses only, renewed when it has to be."""

import ssl
import subprocess
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from cryptography import x509
from cryptography.hazmat.primitives.asymmetric import ec

from jade_ribbon.formats.certificates import (
    SERVER_DAYS,
    Certificate,
    certificate_holds,
    is_vouched_for,
    make_authority,
    make_server_certificate,
)

AT = datetime.now(UTC)
NAMES = ("192.168.1.7", "bench", "bench.local")


@pytest.fixture(scope="module")
def authority() -> Certificate:
    return make_authority("Yard", NAMES, AT)


@pytest.fixture(scope="module")
def server(authority: Certificate) -> Certificate:
    return make_server_certificate(authority, NAMES, AT)


def test_openssl_takes_the_server_under_every_name(
    authority: Certificate, server: Certificate, tmp_path: Path
) -> None:
    """As a device does that trusts the authority and nobody else."""
    for name, made in (("ca", authority), ("server", server)):
        (tmp_path / f"{name}.crt").write_bytes(made.certificate)
    for name in NAMES:
        kind = "-verify_ip" if name[0].isdigit() else "-verify_hostname"
        command = ["openssl", "verify", "-x509_strict", "-purpose", "sslserver", kind, name]
        files = ["-CAfile", str(tmp_path / "ca.crt"), str(tmp_path / "server.crt")]
        done = subprocess.run([*command, *files], capture_output=True, text=True, check=False)
        assert done.returncode == 0, done.stderr
    ssl.create_default_context(cadata=authority.certificate.decode())


def test_the_authority_cannot_vouch_for_the_rest_of_the_net(
    authority: Certificate, tmp_path: Path
) -> None:
    with pytest.raises(ValueError, match=r"example\.com"):
        make_server_certificate(authority, ("example.com",), AT)
    constraints = authority.read.extensions.get_extension_for_class(x509.NameConstraints)
    assert constraints.critical
    permitted = constraints.value.permitted_subtrees or []
    assert not any(str(p.value) in ("0.0.0.0/0", "::/0", "com") for p in permitted)
    basic = authority.read.extensions.get_extension_for_class(x509.BasicConstraints).value
    assert (basic.ca, basic.path_length) == (True, 0)


@pytest.mark.parametrize(
    ("name", "private"),
    [
        ("10.1.2.3", True),
        ("172.31.255.1", True),
        ("172.32.0.1", False),
        ("fd12::1", True),
        ("2001:db8::1", False),
        ("bench", True),
        ("bench.lan", True),
        ("bench.example.org", False),
    ],
)
def test_what_is_of_a_shops_own_network(name: str, private: bool) -> None:
    assert is_vouched_for(name) == private


def test_a_certificate_lasts_a_year_and_is_renewed_a_month_before(
    authority: Certificate, server: Certificate
) -> None:
    assert server.read.not_valid_after_utc - AT <= timedelta(days=SERVER_DAYS)
    assert certificate_holds(server, authority, NAMES, AT)
    assert not certificate_holds(server, authority, NAMES, AT + timedelta(days=SERVER_DAYS - 29))
    assert not certificate_holds(server, authority, (*NAMES, "192.168.1.8"), AT)
    assert not certificate_holds(server, make_authority("Yard", NAMES, AT), NAMES, AT)


def test_keys_are_strong_and_their_own(authority: Certificate, server: Certificate) -> None:
    key = authority.read.public_key()
    assert isinstance(key, ec.EllipticCurvePublicKey) and key.key_size >= 256
    assert authority.key != server.key
    assert len(authority.fingerprint.split(":")) == 32
