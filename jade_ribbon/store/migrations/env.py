"""Alembic's entry: migrates over the connection that `migrate` hands in."""

from alembic import context

from jade_ribbon.store.models import Base

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=Base.metadata,
    render_as_batch=True,
    compare_type=True,
    transaction_per_migration=False,
)
with context.begin_transaction():
    context.run_migrations()
