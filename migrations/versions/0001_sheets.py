"""People, sheets and revisions."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0001"
down_revision = None


def _moment(name: str, nullable: bool = False) -> sa.Column:
    default = None if nullable else sa.func.now()
    return sa.Column(name, sa.DateTime(timezone=True), server_default=default, nullable=nullable)


def upgrade() -> None:
    op.create_table("person", sa.Column("id", sa.String(32), primary_key=True), _moment("created"))
    op.create_table(
        "sheet",
        sa.Column("id", sa.String(16), primary_key=True),
        sa.Column("person_id", sa.String(32), sa.ForeignKey("person.id", ondelete="CASCADE")),
        sa.Column("demo", sa.String(40), unique=True),
        sa.Column("name", sa.String(200), nullable=False),
        sa.Column("head", sa.Integer, nullable=False),
        sa.Column("view", JSONB, nullable=False),
        _moment("created"),
        _moment("changed"),
        _moment("deleted", nullable=True),
    )
    op.create_index("sheet_shelf", "sheet", ["person_id", "changed"])
    op.create_table(
        "revision",
        sa.Column("id", sa.BigInteger, primary_key=True, autoincrement=True),
        sa.Column(
            "sheet_id", sa.String(16), sa.ForeignKey("sheet.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("parent", sa.Integer),
        sa.Column("label", sa.String(200), nullable=False),
        sa.Column("document", JSONB, nullable=False),
        _moment("created"),
        sa.UniqueConstraint("sheet_id", "number", name="revision_number"),
    )


def downgrade() -> None:
    op.drop_table("revision")
    op.drop_table("sheet")
    op.drop_table("person")
