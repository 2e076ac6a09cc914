"""Put the checkout itself on the environment's path and write the ``plain-compass`` command.

Does what an editable install does, without a build tool that would have to be fetched first.
"""

from __future__ import annotations

import sys
import sysconfig
from pathlib import Path

SOURCE = Path(__file__).resolve().parent.parent / "src"
COMMAND = """#!{python}
import sys

from plain_compass.cli import main

sys.exit(main())
"""


def main() -> None:
    """Write the path file and the command into the running environment."""
    paths = sysconfig.get_paths()
    (Path(paths["purelib"]) / "plain_compass_checkout.pth").write_text(f"{SOURCE}\n", encoding="utf-8")
    command = Path(paths["scripts"]) / "plain-compass"
    command.write_text(COMMAND.format(python=sys.executable), encoding="utf-8")
    command.chmod(0o755)


if __name__ == "__main__":
    main()
