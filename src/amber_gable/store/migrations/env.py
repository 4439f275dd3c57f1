"""Alembic's entry: runs on the connection that Database.migrate hands over."""

from alembic import context

from amber_gable.store.tables import Table

context.configure(
    connection=context.config.attributes["connection"], target_metadata=Table.metadata, render_as_batch=True
)
context.run_migrations()
