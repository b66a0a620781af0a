"""A fresh environment that has NumPy, SciPy and Matplotlib, what these need, and nothing else."""

import sys
import venv
from importlib.metadata import distribution
from pathlib import Path

from packaging.requirements import Requirement

WANTED = ("numpy", "scipy", "matplotlib")


def needed(names):
    """All packages that some need, themselves too."""
    found = {}
    waiting = list(names)
    while waiting:
        name = waiting.pop()
        if name.lower() in found:
            continue
        package = distribution(name)
        found[name.lower()] = package
        for line in package.requires or ():
            requirement = Requirement(line)
            if requirement.marker is None or requirement.marker.evaluate({"extra": ""}):
                waiting.append(requirement.name)
    return found


def environment(folder):
    """Make the environment in a folder; gives its Python. The packages are those at hand."""
    venv.create(folder, with_pip=False, symlinks=True)
    version = f"python{sys.version_info.major}.{sys.version_info.minor}"
    site = Path(folder) / "lib" / version / "site-packages"
    for package in needed(WANTED).values():
        for top in {file.parts[0] for file in package.files or () if file.parts[0] != ".."}:
            place = Path(package.locate_file(top))
            if place.exists() and not (site / top).exists():
                (site / top).symlink_to(place)
    return str(Path(folder) / "bin" / "python")
