"""Green wood of a species, and the indicative constants of the model, as frozen data."""

from __future__ import annotations

from ..base.frozen import dataclass

SPLITTING_CLASSES = ("very ready", "ready", "middling", "reluctant")
SUPPLENESS_CLASSES = ("supple", "average", "brittle")
GROUPS = ("conifer", "broadleaf", "spreading broadleaf")


@dataclass(frozen=True, slots=True)
class Wood:
    """Properties of green clear wood, with the handbook they come from.

    Attributes:
        rupture_Pa: modulus of rupture, by definition 6M/(b t^2).
        elasticity_Pa: modulus of elasticity along the grain.
        shear_Pa: shear strength along the grain.
        across_Pa: tension strength across the grain.
        density_kg_m3: green density with bark.
        basic_density_kg_m3: oven-dry mass over green volume.
        splitting, suppleness, group: one of the classes above.
        holding_Pa, splits_at_Pa: of a species that is unknown, the modulus of rupture by which its hinge holds longest,
            and with which its stem splits soonest, of all rows of its kind; none where the species is known.
        estimated: names of the attributes that are estimates rather than handbook values.
    """

    key: str
    name: str
    group: str
    rupture_Pa: float
    elasticity_Pa: float
    shear_Pa: float
    across_Pa: float
    density_kg_m3: float
    basic_density_kg_m3: float
    splitting: str
    suppleness: str
    source: str
    estimated: tuple[str, ...] = ()
    holding_Pa: float | None = None
    splits_at_Pa: float | None = None

    @property
    def moisture(self) -> float:
        """Water over oven-dry wood, by mass."""
        return self.density_kg_m3 / self.basic_density_kg_m3 - 1.0


@dataclass(frozen=True, slots=True)
class Indicative:
    """Constants fitted to practice rather than measured; kept in a data file a person may edit.

    The data file says for each what it is and where it comes from.
    """

    profile_exponent: dict[str, float]
    crown_share_conifer: float
    crown_share_bare: float
    crown_share_leaf: float
    crown_centre_conifer: float
    crown_centre_broadleaf: float
    crown_dead_share: float
    crown_load: dict[str, float]
    hinge_length_factor: float
    break_length_factor: float
    peak_share: float
    law_tail: float
    law_dead_factor: float
    law_peaks_at: dict[str, float]
    law_softens_over: dict[str, float]
    dead_strength_factor: float
    break_base_deg: dict[str, float]
    break_dead_factor: float
    fracture_energy_J_m2: dict[str, float]
    cracked_factor: float
    dead_fracture_factor: float
    tip_margin_deg: float
    wedge_friction: float
    stacked_friction: float
    blow_efficiency: float
    least_advance_m: float
    seating_blows: float
    most_blows: float
    push_N: float
    push_at_m: float
    lever_Nm: float
    lever_to_m: float
    sawdust_m: float
    rot_gives_m: float
    impact_factor: float
    break_by_class: dict[str, float]
    ground_N_m2: float
    crown_stops_J_m2: float
    slide_friction: float
    rolls_from_deg: float
    shutting_pull: float
    throw_share: float
    butt_speed_share: float
    reverse_slide_diameters: float

    def __hash__(self) -> int:
        return id(self)


@dataclass(frozen=True, slots=True)
class Strength:
    """What the hinge is reckoned with: the wood's values after condition is taken into account."""

    rupture_Pa: float
    elasticity_Pa: float
    shear_Pa: float


BRITTLE: dict[str, float] = {"live": 0.0, "dead": 1.0, "frozen sapwood": 0.5, "frozen": 1.0}
"""How far from green wood to brittle wood each condition is: frozen sapwood is half of what folds (judgement)."""


def brittle(condition: str, factor: float) -> float:
    """A factor of dead, dry or frozen wood, as far as a condition goes; 1 in green wood."""
    return 1.0 + (factor - 1.0) * BRITTLE[condition]


def working_strength(wood: Wood, condition: str, constants: Indicative) -> Strength:
    """Strength of the wood as it stands. Dead wood is reduced; dry or frozen wood gets no bonus.

    The factor for dead wood is indicative; its stiffness is that of live wood.
    """
    factor = constants.dead_strength_factor if condition == "dead" else 1.0
    return Strength(wood.rupture_Pa * factor, wood.elasticity_Pa, wood.shear_Pa * factor)
