"""``plain-compass species``: the table of species with the source of each row, and rows of one's own taken in."""

from __future__ import annotations

import argparse
from pathlib import Path

from ..job.language import tr
from ..job.report import plain
from ..job.stamp import output_text
from ..job.tables import species_table, take_species_in


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add the arguments."""
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))
    parser.add_argument("--add", type=Path, metavar="FILE", help=tr("take rows of your own in from a CSV file"))


def run(arguments: argparse.Namespace) -> int:
    """List the species, or take some in."""
    if arguments.add is not None:
        taken = take_species_in(arguments.add)
        print(tr("{names} can be chosen now.", names=", ".join(wood.name for wood in taken)))
        return 0
    table = species_table().values()
    if arguments.json:
        print(output_text({"species": [plain(wood) for wood in table]}))
        return 0
    for wood in table:
        strong = tr(
            "{rupture_pa:5.0f} MPa {elasticity_pa:5.1f} GPa {density_kg_m3:5.0f} kg/m3",
            rupture_pa=wood.rupture_Pa / 1000000.0,
            elasticity_pa=wood.elasticity_Pa / 1000000000.0,
            density_kg_m3=wood.density_kg_m3,
        )
        print(f"{wood.key:<22}{strong}  {wood.splitting:<11} {wood.suppleness:<8} {wood.source}")
    return 0
