"""Running the application under gunicorn: one worker, four threads."""

import gc
import logging
from pathlib import Path
from typing import Any

from flask import Flask
from gunicorn.app.base import BaseApplication

from jade_ribbon.api.app import create_app


class Server(BaseApplication):
    """Gunicorn with its settings in code."""

    def __init__(self, app: Flask, host: str, port: int) -> None:
        self._app, self._bind = app, f"{host}:{port}"
        super().__init__()

    def load_config(self) -> None:
        for key, value in {
            "bind": self._bind,
            "workers": 1,
            "threads": 4,
            "loglevel": "warning",
            "graceful_timeout": 5,
        }.items():
            self.cfg.set(key, value)

    def load(self) -> Any:
        return self._app


YOUNG_OBJECTS = 20_000


def settle() -> None:
    """Leave what was loaded at the start out of every later search for garbage.

    A plan makes some thousands of small records: searched for by age alone, they cost a tenth of
    each answer.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(YOUNG_OBJECTS, 50, 100)


def serve(file: Path, host: str, port: int) -> None:
    """Serve a shop's file until stopped."""
    logging.basicConfig(level=logging.WARNING)
    app = create_app(file)
    app.extensions["store"].close()
    settle()
    Server(app, host, port).run()
