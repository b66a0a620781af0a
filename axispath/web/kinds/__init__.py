"""The register of how lanes of each kind look on the page, by the keys of the kinds."""

from axispath.web.kinds.curve import CURVE
from axispath.web.kinds.data import DATA
from axispath.web.kinds.for_lines import FOR_LINES, RESTING
from axispath.web.kinds.function import FUNCTION
from axispath.web.kinds.list_of_values import LIST
from axispath.web.kinds.map import MAP
from axispath.web.kinds.number import NUMBER
from axispath.web.kinds.point import POINT
from axispath.web.kinds.register import Face
from axispath.web.kinds.relation import REGION, RELATION
from axispath.web.kinds.several import SEVERAL
from axispath.web.kinds.value import VALUE
from axispath.web.kinds.waiting import WAITING
from axispath.web.kinds.wrong import WRONG

FACES: dict[str, Face] = {
    "data": DATA,
    "function": FUNCTION,
    "parametric": CURVE,
    "polar": CURVE,
    "map": MAP,
    "relation": RELATION,
    "region": REGION,
    "several": SEVERAL,
    "number": NUMBER,
    "point": POINT,
    "value": VALUE,
    "list": LIST,
    "calculated": FOR_LINES,
    "resting": RESTING,
    "waiting": WAITING,
    "wrong": WRONG,
}
