"""A passkey in software: makes and shows itself as a browser would hand it on (Web Authentication, level 2)."""

import base64
import hashlib
import json
import secrets

import cbor2
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec


def _text(content):
    return base64.urlsafe_b64encode(content).decode().rstrip("=")


class Passkey:
    """A passkey of a host; `origin` is what the page that it is shown to says that it is."""

    def __init__(self, host="localhost", origin="http://localhost"):
        self.host, self.origin = host, origin
        self.id, self.uses = secrets.token_bytes(16), 0
        self.key = ec.generate_private_key(ec.SECP256R1())

    def made(self, options):
        """Return the new passkey, as the page sends it."""
        numbers = self.key.public_key().public_numbers()
        public = cbor2.dumps({1: 2, 3: -7, -1: 1, -2: numbers.x.to_bytes(32), -3: numbers.y.to_bytes(32)})
        data = self._data(0x45) + bytes(16) + len(self.id).to_bytes(2) + self.id + public
        attestation = cbor2.dumps({"fmt": "none", "attStmt": {}, "authData": data})
        client = self._client("webauthn.create", options)
        return self._sent({"attestationObject": _text(attestation), "clientDataJSON": _text(client)})

    def shown(self, options):
        """Return what it signs, as the page sends it."""
        self.uses += 1
        data, client = self._data(0x05), self._client("webauthn.get", options)
        signed = self.key.sign(data + hashlib.sha256(client).digest(), ec.ECDSA(hashes.SHA256()))
        told = {"authenticatorData": data, "clientDataJSON": client, "signature": signed}
        return self._sent({name: _text(each) for name, each in told.items()})

    def _data(self, flags):
        return hashlib.sha256(self.host.encode()).digest() + bytes([flags]) + self.uses.to_bytes(4)

    def _client(self, kind, options):
        return json.dumps({"type": kind, "challenge": options["challenge"], "origin": self.origin}).encode()

    def _sent(self, response):
        return {"id": _text(self.id), "rawId": _text(self.id), "type": "public-key", "response": response}
