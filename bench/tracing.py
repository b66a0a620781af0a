"""Where the time of a page goes, from the browser's own trace."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Iterable
from typing import Any

CATEGORIES = ("devtools.timeline", "disabled-by-default-devtools.timeline", "toplevel", "cc", "viz")
# What the browser calls its work, and under what it is counted here.
PARTS = {
    "scripts": (
        "FunctionCall",
        "EvaluateScript",
        "FireAnimationFrame",
        "TimerFire",
        "EventDispatch",
    ),
    "promises": ("RunMicrotasks", "v8.callFunction"),
    "style": ("UpdateLayoutTree", "Document::recalcStyle", "ScheduleStyleRecalculation"),
    "layout": ("Layout", "LocalFrameView::layout", "IntersectionObserverController"),
    "paint": ("Paint", "PrePaint", "Layerize", "UpdateLayer", "CompositeLayers"),
    "commit": ("Commit", "ProxyMain::BeginMainFrame::commit", "ThreadProxy::commit"),
    "network": ("ResourceReceivedData", "ResourceReceiveResponse", "ResourceFinish"),
    "collecting": ("MinorGC", "MajorGC", "V8.GCScavenger"),
}
OF = {name: part for part, names in PARTS.items() for name in names}


def main_thread(trace: bytes) -> dict[str, float]:
    """Milliseconds of the page's main thread by part; what has no part is “else”."""
    events: list[dict[str, Any]] = json.loads(trace)["traceEvents"]
    named = {
        (e["pid"], e["tid"]): e["args"].get("name", "")
        for e in events
        if e.get("name") == "thread_name"
    }
    mains = [at for at, name in named.items() if name == "CrRendererMain"]
    busiest: dict[str, float] = {}
    for main in mains:
        mine = [e for e in events if (e["pid"], e["tid"]) == main and e.get("ph") == "X"]
        found = _own_times(mine)
        if sum(found.values()) > sum(busiest.values(), 0.0):
            busiest = found
    return busiest


def _own_times(events: Iterable[dict[str, Any]]) -> dict[str, float]:
    """The time of each event without that of those inside it, summed up by part."""
    total: Counter[str] = Counter()
    stack: list[tuple[float, str]] = []
    for event in sorted(events, key=lambda e: (e["ts"], -e.get("dur", 0))):
        start, length = event["ts"], event.get("dur", 0)
        while stack and stack[-1][0] <= start:
            stack.pop()
        part = OF.get(event["name"]) or (stack[-1][1] if stack else "else")
        if stack:
            total[stack[-1][1]] -= length
        total[part] += length
        stack.append((start + length, part))
    return {part: micro / 1000 for part, micro in total.most_common()}
