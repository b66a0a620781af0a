"""Revisions packed against snapshots, the weight of sheets, and when people were last here."""

import sqlalchemy as sa
from alembic import op
from backports import zstd

revision = "0003"
down_revision = "0002"

LEVEL, SMALL, SHARE = 6, 400, 4
HISTORY = sa.text("select id, number, document::text from revision where sheet_id = :s order by id")
PUT = sa.text("update revision set body = :body, base = :base where id = :id")


def upgrade() -> None:
    op.add_column("revision", sa.Column("body", sa.LargeBinary))
    op.add_column("revision", sa.Column("base", sa.Integer))
    op.add_column(
        "revision", sa.Column("joined", sa.Boolean, nullable=False, server_default=sa.false())
    )
    op.add_column("sheet", sa.Column("weight", sa.BigInteger, nullable=False, server_default="0"))
    op.add_column(
        "person",
        sa.Column("seen", sa.DateTime(timezone=True), nullable=False, server_default=sa.func.now()),
    )
    connection = op.get_bind()
    for (sheet,) in connection.execute(sa.text("select id from sheet")).all():
        weight = _pack(connection, sheet)
        put = sa.text("update sheet set weight = :weight where id = :id")
        connection.execute(put, {"weight": weight, "id": sheet})
    op.alter_column("revision", "body", nullable=False)
    op.drop_column("revision", "document")
    # Packed already: PostgreSQL need not try again.
    op.execute("alter table revision alter column body set storage external")


def _pack(connection: sa.Connection, sheet: str) -> int:
    """Pack the history of a sheet; gives its bytes."""
    weight = 0
    snapshot, base, size = b"", None, 0
    for id_, number, text in connection.execute(HISTORY, {"s": sheet}).all():
        data = text.encode()
        body = b""
        if base is not None:
            body = zstd.compress(data, LEVEL, zstd_dict=zstd.ZstdDict(snapshot, is_raw=True))
        if base is None or (len(body) > SMALL and len(body) * SHARE > size):
            body = zstd.compress(data, LEVEL)
            snapshot, base, size = data, number, len(body)
            connection.execute(PUT, {"body": body, "base": None, "id": id_})
        else:
            connection.execute(PUT, {"body": body, "base": base, "id": id_})
        weight += len(body)
    return weight


def downgrade() -> None:
    raise NotImplementedError("packed histories are not unpacked again; restore a backup")
