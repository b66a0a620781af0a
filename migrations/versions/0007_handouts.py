"""Hand-outs, and the sheets of their visitors."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.create_table(
        "handout",
        sa.Column("token", sa.String(32), primary_key=True),
        sa.Column(
            "sheet_id", sa.String(16), sa.ForeignKey("sheet.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("number", sa.Integer),
        sa.Column("shows", JSONB, nullable=False),
        sa.Column("until", sa.DateTime(timezone=True)),
        sa.Column("revoked", sa.DateTime(timezone=True)),
        sa.Column(
            "created", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False
        ),
    )
    op.create_index("handout_sheet", "handout", ["sheet_id"])
    op.add_column(
        "sheet",
        sa.Column("handout", sa.String(32), sa.ForeignKey("handout.token", ondelete="CASCADE")),
    )
    op.create_index("sheet_handout", "sheet", ["handout"])


def downgrade() -> None:
    raise NotImplementedError("restore a backup")
