"""Several machines on one: two web hosts, a proxy and a database host, and sixty people.

    sudo .venv/bin/python tools/hosts.py [SECONDS]

Each host is a network namespace with an address of its own. One web host is killed in the middle,
whole and at once. Counted is what no page could mend by itself: an answer that stays an error
although it is asked again as the page does, a change that is lost or there twice. Needs root,
iproute2, nginx and PostgreSQL.
"""

from __future__ import annotations

import contextlib
import ctypes
import http.client
import json
import os
import secrets
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from bench.load import Guest, drag, open_page, search  # noqa: E402

NET = "10.77.0"
HOSTS = {"db": 2, "web1": 11, "web2": 12, "proxy": 3, "people": 100}
PEOPLE = 60
NETWORK = 0x40000000  # CLONE_NEWNET
TRIES = 60  # times that a page asks again
PASSING = (429, 500, 502, 503, 504)
PROXY = """
pid {folder}/nginx.pid;
error_log {folder}/nginx.log;
worker_processes 1;
events {{ worker_connections 1024; }}
http {{
    access_log off;
    upstream axispath {{
        server {net}.11:8127 max_fails=2 fail_timeout=5s;
        server {net}.12:8127 max_fails=2 fail_timeout=5s;
        keepalive 64;
    }}
    server {{
        listen {net}.3:80;
        client_max_body_size 300k;
        location / {{
            proxy_pass http://axispath;
            proxy_http_version 1.1;
            proxy_set_header Connection "";
            proxy_set_header Host $host;
            proxy_set_header X-Forwarded-For $remote_addr;
            proxy_connect_timeout 3s;
            proxy_read_timeout 100s;
            proxy_next_upstream error timeout http_502 http_503 non_idempotent;
            proxy_next_upstream_tries 2;
        }}
    }}
}}
"""


def ip(*given: str, check: bool = True) -> None:
    """Run ip."""
    subprocess.run(["ip", *given], check=check, capture_output=True)


def build() -> None:
    """A bridge, and a namespace with an address for each host."""
    ip("link", "add", "apbridge", "type", "bridge")
    ip("link", "set", "apbridge", "up")
    for name, number in HOSTS.items():
        ip("netns", "add", f"ap-{name}")
        ip(
            "link",
            "add",
            f"ap-{name}-o",
            "type",
            "veth",
            "peer",
            "name",
            "eth0",
            "netns",
            f"ap-{name}",
        )
        ip("link", "set", f"ap-{name}-o", "master", "apbridge", "up")
        inside = ("-n", f"ap-{name}")
        ip(*inside, "addr", "add", f"{NET}.{number}/24", "dev", "eth0")
        ip(*inside, "link", "set", "eth0", "up")
        ip(*inside, "link", "set", "lo", "up")


def clear() -> None:
    """Take all of it away, with what runs in it."""
    for name in HOSTS:
        stop(name, signal.SIGKILL)
        ip("netns", "del", f"ap-{name}", check=False)
        ip("link", "del", f"ap-{name}-o", check=False)
    ip("link", "del", "apbridge", check=False)


def stop(host: str, how: signal.Signals) -> None:
    """A signal for all that runs on a host."""
    found = subprocess.run(["ip", "netns", "pids", f"ap-{host}"], capture_output=True, text=True)
    for pid in found.stdout.split():
        if int(pid) != os.getpid():
            with contextlib.suppress(ProcessLookupError):
                os.kill(int(pid), how)


def on(host: str, command: list[str], **more: object) -> subprocess.Popen[bytes]:
    """Start a program on a host."""
    return subprocess.Popen(["ip", "netns", "exec", f"ap-{host}", *command], **more)  # type: ignore[call-overload, no-any-return]


def database(folder: Path, password: str) -> str:
    """PostgreSQL on its host; gives its address."""
    programs = max(Path("/usr/lib/postgresql").iterdir()) / "bin"
    data = folder / "data"
    folder.chmod(0o755)
    data.mkdir()
    shutil.chown(data, "postgres", "postgres")
    as_owner = ["setpriv", "--reuid=postgres", "--regid=postgres", "--clear-groups"]
    note = folder / "password"
    note.write_text(password)
    note.chmod(0o644)
    user = ("-U", "axispath", "-A", "scram-sha-256", f"--pwfile={note}")
    subprocess.run(
        [*as_owner, programs / "initdb", "-D", data, *user],
        check=True,
        capture_output=True,
        cwd="/",
    )
    with (data / "pg_hba.conf").open("a") as out:
        out.write(f"host all all {NET}.0/24 scram-sha-256\n")
    given = ["-D", data, "-c", f"listen_addresses={NET}.2", "-c", "unix_socket_directories="]
    on("db", [*as_owner, programs / "postgres", *given, "-c", "max_connections=100"], cwd="/")
    return f"postgresql://axispath:{password}@{NET}.2/postgres"


def serve(host: str, address: str, key: str) -> None:
    """The application on a web host."""
    environment = {
        **os.environ,
        "DATABASE_URL": address,
        "AXISPATH_SECRET_KEY": key,
        "AXISPATH_HOST": f"{NET}.{HOSTS[host]}",
        "AXISPATH_PORT": "8127",
        "AXISPATH_BEHIND_PROXY": "1",
        "AXISPATH_EXACT": "0",
    }
    on(host, [str(ROOT / "axis-path"), "serve"], env=environment)


def wait_for(host: str) -> None:
    """Until a host says that all is well."""
    for _ in range(600):
        done = on("people", ["curl", "-sf", f"http://{NET}.{HOSTS[host]}:8127/health"],
                  stdout=subprocess.DEVNULL)  # fmt: skip
        if done.wait() == 0:
            return
        time.sleep(0.2)
    raise SystemExit(f"{host} did not start")


class Person(Guest):
    """A guest whose page asks again, as pages do."""

    def __init__(self, counts: Counter[str]) -> None:
        self.counts = counts
        super().__init__(80, f"{NET}.3")

    def ask(self, method: str, path: str, body: object = None) -> tuple[int, bytes]:
        """Asked again while the answer is a passing one."""
        for tried in range(TRIES):
            try:
                status, data = super().ask(method, path, body)
            except (OSError, http.client.HTTPException):
                self.line.close()
                status, data = 0, b""
            if status and status not in PASSING:
                return status, data
            self.counts[f"asked again after {status}"] += 1
            time.sleep(min(0.1 * (tried + 1), 1.0))
        self.counts["errors that stayed"] += 1
        return status, data


def person(counts: Counter[str], lock: threading.Lock, number: int, until: float) -> None:
    """One person: opens, drags, asks for landmarks, changes; and at the end counts the changes."""
    someone = Person(counts)
    made = 0
    k = number * 1000
    while time.monotonic() < until:
        for act in (open_page, drag, drag, drag, search):
            status, _ = act(someone, k)
            with lock:
                counts[f"{act.__name__}: {status}"] += 1
            k += 1
        note = {"do": "set note", "id": someone.sheet["lanes"][0]["id"], "note": f"{k}"}
        body = {
            "base": someone.sheet["head"],
            "edits": [note],
            "change": secrets.token_hex(16),
        }
        status, data = someone.ask("POST", f"/api/sheets/{someone.sheet['id']}/edits", body)
        with lock:
            counts[f"change: {status}"] += 1
        if status == 200:
            someone.sheet = json.loads(data)
            made += 1
    head = someone.sheet["head"]
    if head != made + 1 + len(someone.sheet["lanes"]):
        counts["changes lost or there twice"] += 1


def main() -> None:
    """Build, let people in, kill a host, and tell."""
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 40.0
    clear()
    folder = Path(tempfile.mkdtemp(prefix="axispath-hosts-", dir="/var/tmp"))
    try:
        build()
        password, key = secrets.token_hex(12), secrets.token_hex(32)
        address = database(folder, password)
        time.sleep(3)
        for host in ("web1", "web2"):
            serve(host, address, key)
            wait_for(host)
        (folder / "nginx.conf").write_text(PROXY.format(folder=folder, net=NET))
        on("proxy", ["nginx", "-c", str(folder / "nginx.conf"), "-g", "daemon off;"])
        time.sleep(1)
        # This process goes to where the people are.
        with Path("/run/netns/ap-people").open() as space:
            if ctypes.CDLL(None).setns(space.fileno(), NETWORK):
                raise SystemExit("the network of the people cannot be entered")
        told(seconds)
    finally:
        clear()
        shutil.rmtree(folder, ignore_errors=True)


def told(seconds: float) -> None:
    """Sixty people, one host killed half way; prints what they met."""
    counts: Counter[str] = Counter()
    lock = threading.Lock()
    until = time.monotonic() + seconds
    threads = [
        threading.Thread(target=person, args=(counts, lock, n, until)) for n in range(PEOPLE)
    ]
    for thread in threads:
        thread.start()
    time.sleep(seconds / 2)
    stop("web1", signal.SIGKILL)
    print("web1 is killed", flush=True)
    for thread in threads:
        thread.join()
    for name, count in sorted(counts.items()):
        print(f"{count:7d}  {name}")
    wrong = sum(
        count
        for name, count in counts.items()
        if "stayed" in name or "lost" in name or not (name.endswith(": 200") or "again" in name)
    )
    print("nothing that a page does not mend by itself" if not wrong else f"{wrong} things wrong")


if __name__ == "__main__":
    main()
