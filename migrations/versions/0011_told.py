"""What a revision changed in the mathematics, in words."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    told = sa.Column("told", sa.String(300), server_default="", nullable=False)
    op.add_column("revision", told)


def downgrade() -> None:
    raise NotImplementedError("restore a backup")
