"""Hold a release together: versions that agree, a dated changelog, and the checksums of what is handed out."""

from __future__ import annotations

import hashlib
import re
import shutil
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


def troubles(root: Path, version: str) -> list[str]:
    """Why what stands in a folder is no release of a version, a sentence each."""
    found = []
    changes = (root / "CHANGELOG.md").read_text(encoding="utf-8")
    if not re.search(rf"^## {re.escape(version)} \(\d{{4}}-\d\d-\d\d\)$", changes, re.MULTILINE):
        found.append(f"CHANGELOG.md has no heading '## {version} (year-month-day)'; date it.")
    if f"\nversion: {version}\n" not in (root / "CITATION.cff").read_text(encoding="utf-8"):
        found.append(f"CITATION.cff does not say version {version}.")
    for part in (f"plain_compass-{version}-py3-none-any.whl", f"plain-compass_{version}_amd64.deb"):
        if not (root / "dist" / part).exists():
            found.append(f"dist/{part} is missing; `make wheel deb` makes it.")
    return found


def checksums(folder: Path) -> str:
    """Name and SHA-256 of every file of a folder, as ``sha256sum --check`` reads it."""
    parts = sorted(part for part in folder.iterdir() if part.is_file() and part.name != "SHA256SUMS")
    return "".join(f"{hashlib.sha256(part.read_bytes()).hexdigest()}  {part.name}\n" for part in parts)


def main() -> int:
    """Check, and write the checksums."""
    from plain_compass import __version__

    wrong = troubles(ROOT, __version__)
    if wrong:
        print("No release:", *wrong, sep="\n  ", file=sys.stderr)
        return 2
    dist = ROOT / "dist"
    shutil.copy(ROOT / "docs" / "handbook.pdf", dist / f"plain-compass-{__version__}-handbook.pdf")
    (dist / "SHA256SUMS").write_text(checksums(dist), encoding="utf-8")
    print((dist / "SHA256SUMS").read_text(encoding="utf-8"), end="")
    return 0


if __name__ == "__main__":
    sys.exit(main())
