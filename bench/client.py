"""Somebody who is signed in to a benchmark's server and asks it things."""

import http.client
import json
from typing import Any

from bench.running import EMAIL, PASSWORD


class Client:
    """Somebody signed in to the workbench."""

    def __init__(self, port: int) -> None:
        self._port = port
        self._headers = {"Content-Type": "application/json"}
        reply, headers = self._ask("POST", "/api/session", {"email": EMAIL, "password": PASSWORD})
        self._headers |= {"Cookie": headers["Set-Cookie"].split(";")[0], "X-CSRF-Token": reply["csrf_token"]}

    def read(self, path: str) -> bytes:
        """Return what is downloaded from an address, of any length."""
        connection = http.client.HTTPConnection("127.0.0.1", self._port, timeout=300)
        connection.request("GET", path, headers=self._headers)
        content = connection.getresponse().read()
        connection.close()
        return content

    def _ask(self, method: str, path: str, body: Any = None) -> tuple[Any, Any]:
        content = None if body is None else json.dumps(body).encode()
        connection = http.client.HTTPConnection("127.0.0.1", self._port, timeout=60)
        connection.request(method, path, content, self._headers)
        reply = connection.getresponse()
        said = reply.read()
        connection.close()
        if reply.status != 200:
            raise RuntimeError(f"{path} answered {reply.status}: {said[:200]!r}")
        return json.loads(said), reply.headers

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        """Return what a request answers."""
        return self._ask(method, path, body)[0]
