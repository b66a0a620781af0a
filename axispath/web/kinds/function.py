"""Functions of x on the page."""

from axispath.web.kinds.register import Face

FUNCTION = Face("parts/kinds/function.html", "path")
