"""Copy the browser libraries that we ship out of their npm packages, with a manifest.

Needs npm and the network; run it only to change a version, and commit what it writes:

    python3 tools/vendor.py
"""

from __future__ import annotations

import hashlib
import json
import subprocess
import tarfile
import tempfile
from pathlib import Path

VENDOR = Path(__file__).resolve().parents[1] / "axispath" / "web" / "static" / "vendor"
ICONS = (
    "arrow-clockwise",
    "arrow-counterclockwise",
    "arrow-left",
    "book",
    "bounding-box-circles",
    "copy",
    "exclamation-triangle",
    "eye",
    "eye-slash",
    "journals",
    "moon-stars",
    "pause-fill",
    "pencil",
    "play-fill",
    "plus-lg",
    "three-dots",
    "trash3",
    "x-lg",
    "zoom-in",
    "zoom-out",
)
FONT = "atkinson-hyperlegible"
PACKAGES = {
    "bootstrap": ("5.3.9", {"dist/css/bootstrap.min.css": "bootstrap.min.css"}),
    "bootstrap-icons": ("1.13.2", {f"icons/{name}.svg": f"{name}.svg" for name in ICONS}),
    "@alpinejs/csp": ("3.17.4", {"dist/module.esm.min.js": "alpine.esm.min.js"}),
    "katex": (
        "0.19.1",
        {
            "dist/katex.min.css": "katex.min.css",
            "dist/katex.mjs": "katex.mjs",
            "dist/fonts/*.woff2": "fonts/",
        },
    ),
    f"@fontsource/{FONT}": (
        "5.3.0",
        {
            f"files/{FONT}-{script}-{weight}-normal.woff2": f"{script}-{weight}.woff2"
            for script in ("latin", "latin-ext")
            for weight in (400, 700)
        },
    ),
}


def main() -> None:
    """Fetch every package at its pinned version and copy the files listed."""
    manifest = []
    for package, (version, files) in PACKAGES.items():
        with tempfile.TemporaryDirectory() as scratch:
            root = unpacked(package, version, Path(scratch))
            manifest.append(copied(package, root, files))
    (VENDOR / "manifest.json").write_text(json.dumps(manifest, indent=2) + "\n")


def unpacked(package: str, version: str, scratch: Path) -> Path:
    """The package's folder, freshly fetched."""
    packed = subprocess.run(
        ["npm", "pack", "--silent", f"{package}@{version}"],
        cwd=scratch,
        check=True,
        capture_output=True,
        text=True,
    ).stdout.split()[-1]
    with tarfile.open(scratch / packed) as archive:
        archive.extractall(scratch, filter="data")
    return scratch / "package"


def copied(package: str, root: Path, files: dict[str, str]) -> dict[str, object]:
    """Copy files of one package; gives its line in the manifest."""
    about = json.loads((root / "package.json").read_text())
    folder = VENDOR / package.rpartition("/")[2].replace("csp", "alpine")
    hashes = {}
    for pattern, target in files.items():
        for source in sorted(root.glob(pattern)):
            place = folder / target / source.name if target.endswith("/") else folder / target
            place.parent.mkdir(parents=True, exist_ok=True)
            place.write_bytes(source.read_bytes())
            digest = hashlib.sha256(place.read_bytes()).hexdigest()
            hashes[str(place.relative_to(VENDOR))] = digest
    return {
        "package": package,
        "version": about["version"],
        "licence": about["license"],
        "files": hashes,
    }


if __name__ == "__main__":
    main()
