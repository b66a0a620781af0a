"""Letters with a link, for whoever has forgotten a passphrase and gave a mail address."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.add_column("account", sa.Column("mail", sa.String(200)))
    op.create_table(
        "letter",
        sa.Column("token", sa.String(64), primary_key=True),
        sa.Column(
            "person_id",
            sa.String(32),
            sa.ForeignKey("person.id", ondelete="CASCADE"),
            nullable=False,
        ),
        sa.Column(
            "created", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False
        ),
    )
    op.create_index("letter_person", "letter", ["person_id"])


def downgrade() -> None:
    raise NotImplementedError("restore a backup")
