"""Bringing a shop's file to the newest schema, with a backup taken first."""

import functools
import logging
from pathlib import Path
from typing import TYPE_CHECKING

from sqlalchemy import Connection, inspect

from jade_ribbon.store.database import Store
from jade_ribbon.store.files import UnusableFileError, backup, before_migration, check_ours, is_new

if TYPE_CHECKING:
    from alembic.config import Config

MIGRATIONS = Path(__file__).parent / "migrations"


def config_for(connection: Connection | None = None) -> "Config":
    """Alembic's configuration without an ini file; the connection is ours."""
    from alembic.config import Config  # only where there is something to migrate

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS).replace("%", "%%"))
    config.attributes["connection"] = connection
    return config


@functools.cache
def revisions() -> tuple[str, ...]:
    """Every revision of the schema, oldest first: the numbers that the migrations' names begin by.

    Read off their names, so that a file of the newest schema is opened without the library.
    """
    return tuple(sorted(p.name.split("_")[0] for p in MIGRATIONS.glob("versions/[0-9]*_*.py")))


def newest_revision() -> str:
    return revisions()[-1]


def current_revision(store: Store) -> str | None:
    """The revision that a file says it has; None of one without tables."""
    with store.engine.connect() as connection:
        if not inspect(connection).has_table("alembic_version"):
            return None
        found: str | None = connection.exec_driver_sql(
            "SELECT version_num FROM alembic_version"
        ).scalar()
        return found


def opened(file: Path) -> Store:
    """A shop's file made ready: new, or ours and sound, brought to the newest schema.

    UnusableFileError for another program's file, a damaged one, or one of a newer version.
    """
    if not is_new(file):
        check_ours(file, quick=True)
    store = Store(file)
    try:
        now = current_revision(store)
        if now is not None and now not in revisions():
            newest = newest_revision()
            raise UnusableFileError(
                f"{file} was written by a newer version of this application ({now}; this one "
                f"knows up to {newest}): use that version"
            )
        migrate(store)
    except BaseException:
        store.close()
        raise
    return store


def migrate(store: Store, revision: str = "head") -> Path | None:
    """Migrate; the path of the backup taken, or None when there was nothing to lose or do.

    Foreign keys are off while tables are rebuilt, then checked; a violation rolls back.
    """
    logging.getLogger("alembic").setLevel(logging.WARNING)
    before = current_revision(store)
    if revision == "head" and before == newest_revision():
        return None
    from alembic import command

    saved = None
    if before is not None:
        saved = before_migration(store.file, before)
        backup(store.file, saved, over=True)
    with store.engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA foreign_keys=OFF")
        connection.rollback()
        raw = connection.connection.dbapi_connection
        assert raw is not None
        raw.execute("PRAGMA foreign_keys=OFF")
        try:
            with connection.begin():
                run = command.downgrade if _is_down(before, revision) else command.upgrade
                run(config_for(connection), revision)
                broken = connection.exec_driver_sql("PRAGMA foreign_key_check").fetchall()
                if broken:
                    raise RuntimeError(f"migration leaves broken references: {broken[:5]}")
        finally:
            raw.execute("PRAGMA foreign_keys=ON")
    return saved


def _is_down(before: str | None, revision: str) -> bool:
    if before is None:
        return False
    named = revision.isdigit() and revision < before
    return named or revision == "base" or revision.startswith("-")
