"""Practice and examinations: what was found, replies, sittings and their records."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0010"
down_revision = "0009"

NOW = sa.func.now()


def moment(name: str, nullable: bool = False) -> sa.Column:  # type: ignore[type-arg]
    default = None if nullable else NOW
    return sa.Column(name, sa.DateTime(timezone=True), server_default=default, nullable=nullable)


def upgrade() -> None:
    op.add_column("sheet", sa.Column("found", JSONB, server_default="[]", nullable=False))
    op.create_table(
        "sitting",
        sa.Column("id", sa.String(24), primary_key=True),
        sa.Column(
            "handout",
            sa.String(32),
            sa.ForeignKey("handout.token", ondelete="CASCADE"),
            nullable=False,
        ),
        sa.Column("person_id", sa.String(32), sa.ForeignKey("person.id", ondelete="SET NULL")),
        sa.Column("sheet_id", sa.String(16), sa.ForeignKey("sheet.id", ondelete="SET NULL")),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("extra", sa.Integer, server_default="0", nullable=False),
        sa.Column("away", sa.Boolean, server_default=sa.false(), nullable=False),
        sa.Column("locked", sa.Boolean),
        moment("started"),
        moment("seen"),
        moment("ended", nullable=True),
    )
    op.create_index("sitting_handout", "sitting", ["handout"])
    op.create_index("sitting_person", "sitting", ["person_id"])
    op.create_table(
        "reply",
        sa.Column("id", sa.BigInteger, primary_key=True, autoincrement=True),
        sa.Column("sheet_id", sa.String(16), sa.ForeignKey("sheet.id", ondelete="SET NULL")),
        sa.Column("sitting_id", sa.String(24), sa.ForeignKey("sitting.id", ondelete="CASCADE")),
        sa.Column("question", sa.String(12), nullable=False),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("verdict", sa.String(10), nullable=False),
        sa.Column("words", JSONB, nullable=False),
        sa.Column("found", JSONB, server_default="[]", nullable=False),
        sa.Column("change", sa.String(64), unique=True),
        moment("created"),
    )
    op.create_index("reply_sheet", "reply", ["sheet_id"])
    op.create_index("reply_sitting", "reply", ["sitting_id"])
    op.create_table(
        "entry",
        sa.Column(
            "sitting_id",
            sa.String(24),
            sa.ForeignKey("sitting.id", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("number", sa.Integer, primary_key=True),
        sa.Column("at", sa.String(40), nullable=False),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("detail", sa.String(300), nullable=False),
        sa.Column("before", sa.String(64), nullable=False),
        sa.Column("hash", sa.String(64), nullable=False),
    )


def downgrade() -> None:
    raise NotImplementedError("restore a backup")
