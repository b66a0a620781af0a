"""Browsers that are signed in, accounts, recovery codes, and waiting against guessing."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def _moment(name: str) -> sa.Column:
    return sa.Column(name, sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False)


def _person(**more: bool) -> sa.Column:
    return sa.Column(
        "person_id", sa.String(32), sa.ForeignKey("person.id", ondelete="CASCADE"), **more
    )


def upgrade() -> None:
    # Cookies of before name a person and no key; each is good until its first visit.
    op.add_column(
        "person", sa.Column("unkeyed", sa.Boolean, nullable=False, server_default=sa.true())
    )
    op.alter_column("person", "unkeyed", server_default=sa.false())
    op.create_table(
        "sign_in",
        sa.Column("key", sa.String(64), primary_key=True),
        sa.Column("number", sa.BigInteger, sa.Identity(), nullable=False, unique=True),
        _person(nullable=False),
        sa.Column("browser", sa.String(80), nullable=False, server_default=""),
        _moment("created"),
        _moment("seen"),
    )
    op.create_index("sign_in_person", "sign_in", ["person_id"])
    op.create_table(
        "account",
        _person(primary_key=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("called", sa.String(80), nullable=False, unique=True),
        sa.Column("passphrase", sa.String(200), nullable=False),
        _moment("created"),
    )
    op.create_table(
        "recovery_code",
        sa.Column("id", sa.BigInteger, primary_key=True, autoincrement=True),
        _person(nullable=False),
        sa.Column("code", sa.String(64), nullable=False),
    )
    op.create_index("recovery_code_person", "recovery_code", ["person_id"])
    op.create_table(
        "attempt",
        sa.Column("called", sa.String(64), primary_key=True),
        sa.Column("count", sa.Integer, nullable=False),
        sa.Column("until", sa.DateTime(timezone=True), nullable=False),
        _moment("last"),
    )


def downgrade() -> None:
    raise NotImplementedError("restore a backup")
