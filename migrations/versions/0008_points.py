"""Named points in the history of a sheet, and labels of one's own on the shelf."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.add_column("revision", sa.Column("name", sa.String(80)))
    op.add_column("sheet", sa.Column("labels", sa.String(300), nullable=False, server_default=""))
    op.add_column("sheet", sa.Column("content", sa.Text, nullable=False, server_default=""))
    op.add_column("sheet", sa.Column("summary", sa.String(200), nullable=False, server_default=""))


def downgrade() -> None:
    raise NotImplementedError("restore a backup")
