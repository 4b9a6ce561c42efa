"""An authority of the shop's own, and the certificate its server shows on the shop's network.

The authority can vouch for private addresses and local names only: a device that trusts it is not
exposed by it on the rest of the net. Source: RFC 5280, 4.2.1.10 "Name constraints".
"""

import ipaddress
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from cryptography import x509
from cryptography.exceptions import InvalidSignature
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_DAYS, SERVER_DAYS = 3650, 365
EARLIER = timedelta(days=1)
"""Valid from a day back: a phone's clock may be behind."""
RENEWED_DAYS = 30
PRIVATE = (
    "10.0.0.0/8",
    "172.16.0.0/12",
    "192.168.0.0/16",
    "169.254.0.0/16",
    "127.0.0.0/8",
    "fc00::/7",
    "fe80::/10",
    "::1/128",
)
LOCAL_NAMES = ("local", "lan", "home.arpa", "internal", "localhost")


@dataclass(frozen=True)
class Certificate:
    """A certificate and its key, both PEM."""

    certificate: bytes
    key: bytes

    @property
    def read(self) -> x509.Certificate:
        return x509.load_pem_x509_certificate(self.certificate)

    @property
    def fingerprint(self) -> str:
        """SHA-256 of the certificate, in groups as devices show it."""
        return self.read.fingerprint(hashes.SHA256()).hex(":").upper()

    @property
    def der(self) -> bytes:
        return self.read.public_bytes(serialization.Encoding.DER)


def _pem(key: ec.EllipticCurvePrivateKey) -> bytes:
    return key.private_bytes(
        serialization.Encoding.PEM,
        serialization.PrivateFormat.PKCS8,
        serialization.NoEncryption(),
    )


def _named(words: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, words[:64])])


def _usage(*, signs_others: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs_others,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        key_cert_sign=signs_others,
        crl_sign=signs_others,
        encipher_only=False,
        decipher_only=False,
    )


def is_vouched_for(name: str) -> bool:
    """Whether the authority may vouch for an address or a name.

    >>> [is_vouched_for(n) for n in ("192.168.1.7", "bench.local", "8.8.8.8", "example.com")]
    [True, True, False, False]
    """
    try:
        address = ipaddress.ip_address(name)
    except ValueError:
        return name.rsplit(".", 1)[-1] in LOCAL_NAMES or "." not in name
    return any(address in ipaddress.ip_network(net) for net in PRIVATE)


def make_authority(shop: str, names: Sequence[str], at: datetime) -> Certificate:
    """A new authority of a shop, bound to private addresses, local names and this machine's own."""
    key = ec.generate_private_key(ec.SECP256R1())
    name = _named(f"{shop} (this shop's own)")
    plain = {n for n in names if "." not in n and ":" not in n}
    permitted: list[x509.GeneralName] = [x509.DNSName(n) for n in (*LOCAL_NAMES, *sorted(plain))]
    permitted += [x509.IPAddress(ipaddress.ip_network(net)) for net in PRIVATE]
    certificate = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(at - EARLIER)
        .not_valid_after(at + timedelta(days=AUTHORITY_DAYS))
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs_others=True), critical=True)
        .add_extension(x509.NameConstraints(permitted, None), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .sign(key, hashes.SHA256())
    )
    return Certificate(certificate.public_bytes(serialization.Encoding.PEM), _pem(key))


def _general(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def make_server_certificate(
    authority: Certificate, names: Sequence[str], at: datetime
) -> Certificate:
    """A certificate for a server under these names and addresses.

    ValueError for one that is not private: the authority cannot vouch for it.
    """
    if strange := [n for n in names if not is_vouched_for(n)]:
        raise ValueError(f"{', '.join(strange)}: not an address or name of a shop's own network")
    key = ec.generate_private_key(ec.SECP256R1())
    signer = serialization.load_pem_private_key(authority.key, None)
    assert isinstance(signer, ec.EllipticCurvePrivateKey)
    issuer = authority.read
    certificate = (
        x509.CertificateBuilder()
        .subject_name(_named("Jade Ribbon of this shop"))
        .issuer_name(issuer.subject)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(at - EARLIER)
        .not_valid_after(at + timedelta(days=SERVER_DAYS))
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(signs_others=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(x509.SubjectAlternativeName([_general(n) for n in names]), critical=False)
        .add_extension(
            x509.AuthorityKeyIdentifier.from_issuer_public_key(signer.public_key()), critical=False
        )
        .sign(signer, hashes.SHA256())
    )
    return Certificate(certificate.public_bytes(serialization.Encoding.PEM), _pem(key))


def certificate_holds(
    server: Certificate, authority: Certificate, names: Sequence[str], at: datetime
) -> bool:
    """Whether a certificate is this authority's, has all names, and lasts a month yet."""
    read = server.read
    found = read.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    lasts = read.not_valid_after_utc - at > timedelta(days=RENEWED_DAYS)
    try:
        read.verify_directly_issued_by(authority.read)
    except (ValueError, TypeError, InvalidSignature):
        return False
    return lasts and set(map(_general, names)) <= set(found)
