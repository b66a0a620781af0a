"""Receipts: which changes have been carried out, for those sent again after a lost answer."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.create_table(
        "receipt",
        sa.Column("change", sa.String(64), primary_key=True),
        sa.Column("person_id", sa.String(32), sa.ForeignKey("person.id", ondelete="CASCADE")),
        sa.Column("sheet_id", sa.String(16), sa.ForeignKey("sheet.id", ondelete="CASCADE")),
        sa.Column(
            "created", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False
        ),
    )
    op.create_index("receipt_created", "receipt", ["created"])


def downgrade() -> None:
    op.drop_table("receipt")
