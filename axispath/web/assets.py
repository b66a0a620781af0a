"""Static files under an address that changes with their contents, so that browsers keep them."""

from __future__ import annotations

import gzip
import hashlib
import posixpath
import re
from collections.abc import Callable
from functools import cache
from pathlib import Path

import brotli  # type: ignore[import-untyped]
import rjsmin  # type: ignore[import-untyped]
from flask import Flask, Response, request, url_for
from markupsafe import Markup
from werkzeug.exceptions import NotFound
from werkzeug.security import safe_join

STATIC = Path(__file__).parent / "static"
KINDS = {
    ".css": "text/css",
    ".js": "text/javascript",
    ".mjs": "text/javascript",
    ".svg": "image/svg+xml",
    ".woff2": "font/woff2",
}
LIBRARIES = ("vendor/katex/katex.min.js", "vendor/katex/katex.min.css")  # that come later
KEPT = "public, max-age=31536000, immutable"


@cache
def version() -> str:
    """A short digest of all static files."""
    digest = hashlib.sha256()
    for file in sorted(STATIC.rglob("*")):
        if file.is_file():
            digest.update(str(file.relative_to(STATIC)).encode())
            digest.update(file.read_bytes())
    return digest.hexdigest()[:12]


def asset(name: str) -> str:
    """The address of a static file."""
    return url_for("versioned", wanted=version(), name=name)


@cache
def icon(name: str) -> Markup:
    """An icon as inline SVG, coloured by the text around it, silent for screen readers."""
    text = (STATIC / "vendor" / "bootstrap-icons" / f"{name}.svg").read_text()
    return Markup(text.replace("<svg ", '<svg aria-hidden="true" focusable="false" ', 1))


IMPORTED = re.compile(r"""^(?:import|export)\b[^;]*?["'](\.[^"']+)["'];""", re.MULTILINE)


@cache
def modules(name: str) -> tuple[str, ...]:
    """A script and all that it imports, so that a page can ask for all of them at once."""
    found: dict[str, None] = {}
    pending = [name]
    while pending:
        one = pending.pop(0)
        if one in found:
            continue
        found[one] = None
        text = (STATIC / one).read_text()
        pending += [
            posixpath.normpath(f"{posixpath.dirname(one)}/{part}")
            for part in IMPORTED.findall(text)
        ]
    return tuple(found)


PACKED: dict[str, Callable[[bytes], bytes]] = {
    "br": lambda data: bytes(brotli.compress(data, quality=10)),
    "gzip": lambda data: gzip.compress(data, 9, mtime=0),
}


@cache
def _content(file: str, how: str) -> bytes:
    """A static file as it is sent, packed once for all requests."""
    data = Path(file).read_bytes()
    if not how:
        return data
    return PACKED[how](without_comments(data) if _is_ours(file) else data)


def pack() -> None:
    """Pack what the page of a sheet is made of, before anybody asks for it."""
    styles = (str(file.relative_to(STATIC)) for file in STATIC.glob("css/*.css"))
    for name in (*modules("js/main.js"), *LIBRARIES, *styles):
        _content(str(STATIC / name), "br")


def without_comments(script: bytes) -> bytes:
    """A script without comments and indentation, which are a third of what is sent."""
    return bytes(rjsmin.jsmin(script))


def _is_ours(file: str) -> bool:
    """Whether a file is a script that is kept as it was written; libraries come shortened."""
    return file.endswith(".js") and (STATIC / "js") in Path(file).parents


def serve_versioned(app: Flask) -> None:
    """Serve /static/VERSION/NAME; scripts import one another by relative address."""
    app.jinja_env.globals.update(asset=asset, icon=icon, modules=modules)

    @app.get("/assets/<wanted>/<path:name>")
    def versioned(wanted: str, name: str) -> Response:
        file = safe_join(str(STATIC), name)
        kind = KINDS.get(Path(name).suffix)
        if file is None or kind is None or not Path(file).is_file():
            raise NotFound
        packable = Path(name).suffix != ".woff2"
        how = (packable and request.accept_encodings.best_match(list(PACKED))) or ""
        response = Response(_content(file, how), mimetype=kind)
        if how:
            response.headers["Content-Encoding"] = how
        response.vary.add("Accept-Encoding")
        # A page of another version gets what there is now, but must not keep it under that name.
        response.headers["Cache-Control"] = KEPT if wanted == version() else "no-cache"
        return response
