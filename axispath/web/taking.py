"""Pictures and whole sheets to take away."""

from __future__ import annotations

from flask import Blueprint, Response

from axispath.budgets import USUAL_SEARCH
from axispath.core.path.trails import trailed
from axispath.exchange.formats import FORMATS
from axispath.web.asked import Taking, body
from axispath.web.computing import computed
from axispath.work.kinds import LONG

blueprint = Blueprint("taking", __name__, url_prefix="/api")


@blueprint.post("/sheets/<key>/export")
@computed(LONG, lengthy=True)
def export(key: str, part: int = 0) -> Response:
    """The plot as it is seen, or the whole sheet, as a file; it has one part."""
    # Matplotlib is loaded with the first picture: most processes never draw one.
    from axispath.exchange.picture.draw import picture
    from axispath.exchange.picture.seen import Seen
    from axispath.exchange.picture.sizes import sized

    wanted = Taking.model_validate(body())
    document = wanted.document(key)
    chosen = FORMATS[wanted.format]
    if chosen.make is not None:
        return Response(chosen.make(document, wanted.parts), mimetype=chosen.media)
    size = sized(wanted.width, wanted.height, wanted.measure, wanted.scale)
    seen = Seen(
        document,
        size.width,
        size.height,
        effort=USUAL_SEARCH,
        only=wanted.range(document),
        pinned=frozenset(wanted.pinned),
        trail=list(trailed(document, wanted.states)),
        reading=wanted.reading,
        held=wanted.held,
        tangent=wanted.tangent,
        area=wanted.area,
        against=wanted.against,
    )
    data = picture(seen, wanted.format, size.scale, wanted.theme, wanted.clear)
    return Response(data, mimetype=chosen.media)
