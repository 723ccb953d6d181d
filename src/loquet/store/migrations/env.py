"""Alembic's environment: online only, one transaction a migration."""

from alembic import context

from loquet.store.engine import make_engine
from loquet.store.tables import Base

with make_engine(context.config.attributes["url"]).connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
    with context.begin_transaction():
        context.run_migrations()
    connection.commit()
