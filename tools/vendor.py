"""Copy the browser libraries that we ship out of their npm packages, with a manifest.

Needs npm and the network; run it only to change a version, and commit what it writes:

    .venv/bin/python tools/vendor.py
"""

from __future__ import annotations

import hashlib
import json
import subprocess
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
VENDOR = ROOT / "axispath" / "web" / "static" / "vendor"
TEST_VENDOR = ROOT / "tests" / "vendor"
PICTURE_FONTS = ROOT / "axispath" / "exchange" / "fonts"
ICONS = (
    "arrow-clockwise",
    "arrow-counterclockwise",
    "arrow-left",
    "arrow-right",
    "book",
    "bounding-box-circles",
    "chevron-down",
    "copy",
    "download",
    "exclamation-triangle",
    "eye",
    "eye-slash",
    "journals",
    "keyboard",
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
    "bootstrap": ("5.3.9", {"dist/css/bootstrap-reboot.min.css": "bootstrap-reboot.min.css"}),
    "bootstrap-icons": ("1.13.2", {f"icons/{name}.svg": f"{name}.svg" for name in ICONS}),
    "@alpinejs/csp": ("3.17.4", {"dist/module.esm.min.js": "alpine.esm.min.js"}),
    "katex": (
        "0.19.1",
        {
            "dist/katex.min.css": "katex.min.css",
            "dist/katex.min.js": "katex.min.js",
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
FOR_TESTS = {"axe-core": ("4.14.1", {"axe.min.js": "axe.min.js", "LICENSE": "LICENSE"})}


def main() -> None:
    """Fetch every package at its pinned version and copy the files listed."""
    for vendor, packages in ((VENDOR, PACKAGES), (TEST_VENDOR, FOR_TESTS)):
        manifest = []
        for package, (version, files) in packages.items():
            with tempfile.TemporaryDirectory() as scratch:
                root = unpacked(package, version, Path(scratch))
                manifest.append(copied(package, root, files, vendor))
                if FONT in package:
                    write_picture_fonts(root)
        (vendor / "manifest.json").write_text(json.dumps(manifest, indent=2) + "\n")


def write_picture_fonts(root: Path) -> None:
    """The interface's font as TrueType, which the writer of exported pictures reads."""
    from fontTools.ttLib import TTFont

    PICTURE_FONTS.mkdir(parents=True, exist_ok=True)
    for weight in (400, 700):
        font = TTFont(root / "files" / f"{FONT}-latin-{weight}-normal.woff")
        font.flavor = None
        font.save(PICTURE_FONTS / f"{FONT}-{weight}.ttf")


def unpacked(package: str, version: str, scratch: Path) -> Path:
    """The package's folder, freshly fetched."""
    packed = subprocess.run(
        ["npm", "pack", "--silent", f"{package}@{version}"],
        cwd=scratch,
        check=True,
        capture_output=True,
        text=True,
    ).stdout.split()[-1]
    subprocess.run(["tar", "-xzf", packed], cwd=scratch, check=True)
    return scratch / "package"


def copied(package: str, root: Path, files: dict[str, str], vendor: Path) -> dict[str, object]:
    """Copy files of one package; gives its line in the manifest."""
    about = json.loads((root / "package.json").read_text())
    folder = vendor / package.rpartition("/")[2].replace("csp", "alpine")
    hashes = {}
    for pattern, target in files.items():
        for source in sorted(root.glob(pattern)):
            place = folder / target / source.name if target.endswith("/") else folder / target
            place.parent.mkdir(parents=True, exist_ok=True)
            place.write_bytes(source.read_bytes())
            digest = hashlib.sha256(place.read_bytes()).hexdigest()
            hashes[str(place.relative_to(vendor))] = digest
    return {
        "package": package,
        "version": about["version"],
        "licence": about["license"],
        "files": hashes,
    }


if __name__ == "__main__":
    main()
