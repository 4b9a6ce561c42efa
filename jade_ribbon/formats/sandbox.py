"""Strangers' files are read apart: in a process of their own, with so much time and memory."""

import atexit
import logging
import multiprocessing
import resource
import threading
from collections.abc import Callable
from concurrent.futures import TimeoutError as TookTooLong
from typing import ParamSpec, TypeVar

from pebble import ProcessExpired, ProcessPool

from jade_ribbon.core.quantities.errors import InputError, refuse

P = ParamSpec("P")
R = TypeVar("R")

MOST_SECONDS = 15.0
"""An ordinary file takes a tenth of a second, the largest photograph five on a slow machine."""
MOST_MEMORY_BYTES = 640 * 1024 * 1024
"""The largest photograph allowed takes 240 MB unpacked, beside all that a reader has loaded."""
READERS = 2
FILES_EACH = 200
"""A reader is made anew after so many files."""
RUNAWAY = "cannot be read in {seconds:g} s and {megabytes} MB; accepted: a simpler one"

UNREADABLE = "is damaged and cannot be read; accepted: a sound file, saved anew"
LOG = logging.getLogger("jade_ribbon.formats")

_lock = threading.Lock()
_pool: ProcessPool | None = None


def _limit() -> None:
    """What a reader may use at most, whatever a library does with a file."""
    resource.setrlimit(resource.RLIMIT_DATA, (MOST_MEMORY_BYTES, MOST_MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


def _readers() -> ProcessPool:
    """The readers, made when first asked for; they go with the process that made them."""
    global _pool
    with _lock:
        if _pool is None or not _pool.active:
            _pool = ProcessPool(
                max_workers=READERS,
                max_tasks=FILES_EACH,
                initializer=_limit,
                context=multiprocessing.get_context("spawn"),
            )
        return _pool


def close() -> None:
    """End the readers."""
    global _pool
    with _lock:
        if _pool is not None:
            _pool.stop()  # type: ignore[no-untyped-call]
            _pool.join()
            _pool = None


atexit.register(close)


def work_apart(
    field: str, work: Callable[..., R], *args: object, limit_s: float | None = None
) -> R:
    """What a function gives, done in a process that is ended when it takes too much.

    Raises what it raises; InputError for the `field` when it takes over `limit_s` (`MOST_SECONDS`
    when None) or over `MOST_MEMORY_BYTES`.
    """
    limit = MOST_SECONDS if limit_s is None else limit_s
    future = _readers().schedule(work, args=args, timeout=limit)
    try:
        found: R = future.result()
    except (TookTooLong, MemoryError, ProcessExpired) as problem:
        megabytes = MOST_MEMORY_BYTES // 1024 // 1024
        raise refuse(field, RUNAWAY.format(seconds=limit, megabytes=megabytes)) from problem
    return found


def read_here(field: str, read: Callable[..., R], *args: object) -> R:
    """The same without a process of its own: for one file of whoever runs the program."""
    try:
        return read(*args)
    except InputError:
        raise
    except Exception as problem:
        raise refuse(field, UNREADABLE) from problem


def read_apart(field: str, read: Callable[..., R], *args: object) -> R:
    """What a reader makes of a stranger's file, in a process of its own; InputError otherwise.

    Whatever a library stumbles over in a damaged file, its sender is told that it cannot be read.
    """
    try:
        return work_apart(field, read, *args)
    except InputError:
        raise
    except Exception as problem:
        LOG.info("a %s could not be read: %r", field, problem)
        raise refuse(field, UNREADABLE) from problem
