"""Long columns of numbers, each kept once by its content."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.create_table(
        "content",
        sa.Column("digest", sa.String(64), primary_key=True),
        sa.Column("body", sa.LargeBinary, nullable=False),
        sa.Column(
            "created", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False
        ),
    )
    op.create_table(
        "sheet_content",
        sa.Column(
            "sheet_id",
            sa.String(16),
            sa.ForeignKey("sheet.id", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("digest", sa.String(64), primary_key=True),
    )
    op.create_index("sheet_content_digest", "sheet_content", ["digest"])


def downgrade() -> None:
    raise NotImplementedError("restore a backup")
