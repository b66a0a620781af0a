"""What an operator asks: whether all is well, and how much there is to do."""

from __future__ import annotations

import os
import shutil
import time
from collections.abc import Iterable
from typing import Any

from flask import Blueprint, Flask, Response, current_app, g, jsonify, request
from flask.typing import ResponseReturnValue
from prometheus_client import CollectorRegistry, Counter, Histogram, generate_latest, multiprocess
from prometheus_client.core import CounterMetricFamily, GaugeMetricFamily, Metric
from sqlalchemy import text
from werkzeug.exceptions import NotFound

from axispath.store.database import StoreGone
from axispath.web.hosts import LOOPBACK
from axispath.web.person import store
from axispath.work.client import Broker, Here
from axispath.work.protocol import Busy

blueprint = Blueprint("operating", __name__)
LEAST_DISK = 200 << 20  # bytes free below which a disk is called full
SHARED = "PROMETHEUS_MULTIPROC_DIR"  # where the counts of all web processes come together

REQUESTS = Counter("axispath_requests", "Requests answered", ("route", "status"))
SECONDS = Histogram(
    "axispath_request_seconds",
    "Time to an answer",
    ("route",),
    buckets=(0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10, 30),
)


@blueprint.get("/health")
def health() -> ResponseReturnValue:
    """Whether this host can serve: 200, or 503 with what is missing."""
    found = {"database": _database(), "workers": _workers(), "disk": _disk()}
    return jsonify(found), 200 if set(found.values()) == {"ok"} else 503


def _database() -> str:
    try:
        with store().transaction() as session:
            session.execute(text("select 1"))
    except StoreGone:
        return "cannot be reached"
    return "ok"


def _broker() -> Broker | Here:
    broker: Broker | Here = current_app.extensions["broker"]
    return broker


def _workers() -> str:
    try:
        counts = _broker().tell("counts")
    except Busy:
        return "cannot be reached"
    return "ok" if counts["workers"] else "none"


def _disk() -> str:
    free = shutil.disk_usage(os.environ.get("AXISPATH_DISK", "/")).free
    return "ok" if free >= LEAST_DISK else f"{free >> 20} MB free"


@blueprint.get("/metrics")
def metrics() -> ResponseReturnValue:
    """Counts in the form that Prometheus reads; for this machine alone."""
    if request.remote_addr not in LOOPBACK or "X-Forwarded-For" in request.headers:
        raise NotFound
    registry = CollectorRegistry()
    if SHARED in os.environ:
        multiprocess.MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    else:
        registry.register(REQUESTS)
        registry.register(SECONDS)
    registry.register(_Work(_broker()))
    return Response(generate_latest(registry), mimetype="text/plain")


class _Work:
    """What the broker counts."""

    def __init__(self, broker: Broker | Here) -> None:
        self.broker = broker

    def collect(self) -> Iterable[Metric]:
        """The numbers of this moment; none where the broker does not answer."""
        try:
            counts: dict[str, Any] = self.broker.tell("counts")
        except Busy:
            return
        jobs = CounterMetricFamily("axispath_jobs", "Jobs asked for", labels=["kind"])
        for kind, count in counts["jobs"].items():
            jobs.add_metric([kind], count)
        yield jobs
        for name, told in (
            ("remembered", "Answers that were known"),
            ("refused", "Jobs refused because there was too much to do"),
            ("cut", "Jobs ended because they took too much"),
            ("replaced", "Workers replaced"),
            ("seconds", "Seconds that workers were busy"),
        ):
            yield CounterMetricFamily(f"axispath_work_{name}", told, counts[name])
        for name, told in (
            ("waiting", "Jobs waiting"),
            ("busy", "Workers busy"),
            ("workers", "Workers"),
        ):
            yield GaugeMetricFamily(f"axispath_work_{name}_now", told, counts[name])


def count(app: Flask) -> None:
    """Count every request and how long it took."""

    @app.before_request
    def begin() -> None:
        g.begun = time.monotonic()

    @app.after_request
    def end(response: Response) -> Response:
        route = request.endpoint or "none"
        REQUESTS.labels(route, response.status_code).inc()
        begun = g.get("begun")
        if begun is not None:
            SECONDS.labels(route).observe(time.monotonic() - begun)
        return response
