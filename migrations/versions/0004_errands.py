"""Long work: the queue's own tables, and what is asked for and made."""

import sqlalchemy as sa
from alembic import op
from procrastinate.schema import SchemaManager

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    # Sent as it is: its signs of per cent are no parameters.
    connection = op.get_bind().connection
    with connection.cursor() as cursor:
        cursor.execute(SchemaManager.get_schema())
    op.create_table(
        "errand",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("guest", sa.String(80), nullable=False),
        sa.Column("state", sa.String(12), nullable=False),
        sa.Column("done", sa.Integer, nullable=False, server_default="0"),
        sa.Column("parts", sa.Integer, nullable=False, server_default="1"),
        sa.Column("call", sa.LargeBinary, nullable=False),
        sa.Column("mimetype", sa.String(80), nullable=False, server_default=""),
        sa.Column("message", sa.String(500), nullable=False, server_default=""),
        sa.Column("content", sa.LargeBinary),
        sa.Column(
            "created", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False
        ),
    )
    op.create_index("errand_guest", "errand", ["guest", "state"])
    op.create_index("errand_created", "errand", ["created"])


def downgrade() -> None:
    raise NotImplementedError("restore a backup")
