"""The kit carried to a job: saw, wedges, maul, jack and lever, with their bounds."""

from __future__ import annotations

from ..base.frozen import dataclass
from ..base.quantity import Kind, choice, quantity

SWINGS = {"short": "short, one hand", "full": "full swing", "over": "over the head"}
SWING_m_s = {"short": 5.5, "full": 8.0, "over": 10.0}
"""Speed of the maul's head at the wedge (indicative)."""


@dataclass(frozen=True, slots=True)
class Kit:
    """Saw, wedges and maul carried to the job."""

    bar_m: float = quantity(
        0.45, kind=Kind.LENGTH, low=0.1, high=2.0, label="bar", step=0.01, help="Usable length of the guide bar."
    )
    bar_width_m: float = quantity(
        0.09,
        kind=Kind.LENGTH,
        low=0.03,
        high=0.2,
        label="bar width",
        step=0.005,
        help="Width of the bar with its chain, as it lies in the kerf.",
    )
    kerf_m: float = quantity(
        0.008,
        kind=Kind.LENGTH,
        low=0.001,
        high=0.02,
        label="kerf",
        step=0.001,
        help="Height of the slot the chain leaves.",
    )
    wedge_length_m: float = quantity(
        0.20, kind=Kind.LENGTH, low=0.05, high=0.5, label="wedge length", step=0.01, help="Length of one wedge."
    )
    wedge_thickness_m: float = quantity(
        0.025,
        kind=Kind.LENGTH,
        low=0.005,
        high=0.1,
        label="wedge head",
        step=0.001,
        help="Thickness of one wedge at its head.",
    )
    wedge_width_m: float = quantity(
        0.07, kind=Kind.LENGTH, low=0.02, high=0.2, label="wedge width", step=0.005, help="Width of one wedge."
    )
    wedge_seat_m: float = quantity(
        0.08,
        kind=Kind.LENGTH,
        low=0.02,
        high=0.3,
        label="wedge seat",
        step=0.005,
        help="How far a wedge must be in before it carries.",
    )
    wedge_count: int = quantity(
        3, kind=Kind.COUNT, low=0, high=12, label="wedges carried", step=1, help="Number of wedges carried to the tree."
    )
    stackable: str = choice(
        "yes",
        {"yes": "two may be laid on each other", "no": "not to be stacked"},
        "wedges",
        "Ribbed ones stay together.",
    )
    pull_N: float = quantity(
        0.0,
        kind=Kind.FORCE,
        low=0.0,
        high=200_000.0,
        label="rope pull",
        step=500.0,
        help="Most that can be pulled on a rope with what is carried, friction taken off; nothing without a rope.",
    )
    jack_rise_m: float = quantity(
        0.0,
        kind=Kind.LENGTH,
        low=0.0,
        high=0.5,
        label="jack rise",
        step=0.01,
        help="How far the jack carried to the tree lifts behind the [hinge]; nothing without one.",
    )
    jack_N: float = quantity(
        100_000.0,
        kind=Kind.FORCE,
        low=0.0,
        high=1_000_000.0,
        label="jack force",
        step=10_000.0,
        help="Most that the jack lifts.",
    )
    lever: str = choice(
        "yes",
        {"yes": "a felling lever is carried", "no": "no felling lever"},
        "felling lever",
        "On a small stem a lever in the kerf tips what a push does not.",
    )
    maul_kg: float | None = quantity(
        None,
        kind=Kind.MASS,
        low=0.5,
        high=10.0,
        label="maul",
        step=0.25,
        optional=True,
        help="Mass of the maul; with the swing it gives the blow, and the energy below is not used.",
    )
    swing: str = choice("full", SWINGS, "swing", "How the maul is swung: it gives the speed of the blow.")
    maul_J: float = quantity(
        80.0,
        kind=Kind.ENERGY,
        low=20.0,
        high=250.0,
        label="maul blow",
        step=5.0,
        help="Energy of one blow: 50 to 140 J for a 2 to 3.5 kg maul.",
    )

    @property
    def blow_J(self) -> float:
        """Energy of one blow: m v^2/2 where the maul's mass is known, otherwise as typed."""
        return self.maul_J if self.maul_kg is None else self.maul_kg * SWING_m_s[self.swing] ** 2 / 2
