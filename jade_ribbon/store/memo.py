"""What was worked out from a shop's file, kept in memory while the file is still the same."""

import threading
from typing import Any


class Memo:
    """Values by name, each with the mark of what it was made from."""

    def __init__(self) -> None:
        self._kept: dict[str, tuple[object, Any]] = {}
        self._lock = threading.Lock()

    def get(self, name: str, mark: object) -> Any:
        """What was kept under a name for just this mark; None otherwise."""
        with self._lock:
            kept = self._kept.get(name)
        return kept[1] if kept is not None and kept[0] == mark else None

    def latest(self, name: str) -> Any:
        """What was kept under a name last, whatever its mark; None for nothing."""
        with self._lock:
            kept = self._kept.get(name)
        return None if kept is None else kept[1]

    def keep(self, name: str, mark: object, value: Any) -> None:
        with self._lock:
            self._kept[name] = (mark, value)

    def clear(self) -> None:
        with self._lock:
            self._kept.clear()
