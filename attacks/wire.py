"""A client over HTTP that asks as Flask's own test client does."""

import http.client
import json
from dataclasses import dataclass
from typing import Any

HEADERS = {"Content-Type": "application/json", "Sec-Fetch-Site": "same-origin"}


@dataclass(frozen=True)
class Heard:
    """An answer."""

    status_code: int
    data: bytes

    @property
    def text(self) -> str:
        return self.data.decode(errors="replace")

    def get_json(self) -> Any:
        return json.loads(self.data)


class Wire:
    """One connection to a served shop; OSError or HTTPException when it breaks."""

    def __init__(self, port: int, timeout: float = 20.0) -> None:
        self._connection = http.client.HTTPConnection("127.0.0.1", port, timeout=timeout)

    def ask(self, method: str, path: str, data: bytes | str | None = None) -> Heard:
        self._connection.request(method, path, data, HEADERS)
        answer = self._connection.getresponse()
        return Heard(answer.status, answer.read())

    def get(self, path: str) -> Heard:
        return self.ask("GET", path)

    def post(self, path: str, data: bytes | str = b"", content_type: str = "") -> Heard:
        return self.ask("POST", path, data)

    def patch(self, path: str, json: object) -> Heard:
        return self.ask("PATCH", path, _json(json))

    def delete(self, path: str) -> Heard:
        return self.ask("DELETE", path)

    def close(self) -> None:
        self._connection.close()


def _json(body: object) -> str:
    return json.dumps(body)
