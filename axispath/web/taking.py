"""Pictures and whole sheets to take away."""

from __future__ import annotations

from urllib.parse import quote

from flask import Blueprint, Response, request

from axispath.budgets import USUAL_SEARCH
from axispath.core.path.trails import trailed
from axispath.core.sheet.document import Document
from axispath.exchange.formats import FORMATS, Choice, made
from axispath.exchange.names import told_apart
from axispath.store import sheets
from axispath.web import errands
from axispath.web.asked import Taking, TakingMany, body
from axispath.web.computing import computed
from axispath.web.inside import VIEWS, answered_view
from axispath.web.person import own_person, store
from axispath.work.kinds import LONG
from axispath.work.protocol import NAMED, PARTS, called

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


@blueprint.post("/shelf/export")
def export_many() -> Response:
    """Several sheets as an errand, one after the other."""
    wanted = TakingMany.model_validate(body())
    person = own_person()
    with store().transaction() as database:
        found = [sheets.open_sheet(database, person, one).document for one in wanted.sheets]
    names = told_apart((one.name for one in found), FORMATS[wanted.format].ending)
    at = {"documents": found, "names": names}
    return errands.begin(called(answered_view, SEVERAL, at, request.get_data(), None, LONG.budget))


def one_of_several(documents: list[Document], names: list[str], part: int) -> Response:
    """One of them."""
    chosen = FORMATS[TakingMany.model_validate(body()).format]
    response = Response(made(documents[part], chosen, Choice()), mimetype=chosen.media)
    response.headers[PARTS] = str(len(documents))
    response.headers[NAMED] = quote(names[part])
    return response


SEVERAL = "one of several sheets"
VIEWS[SEVERAL] = one_of_several
