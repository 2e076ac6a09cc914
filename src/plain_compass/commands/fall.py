"""``plain-compass fall``: where one tree goes, and how sure that is."""

from __future__ import annotations

import argparse
from pathlib import Path

from ..core.assess import Assessment
from ..core.base.errors import InputError
from ..core.fall.fan import Fan
from ..core.fall.nominal import NominalFall, nominal_fall
from ..core.judge.fall import hit_chances, wrongs_told
from ..job.disk import write_atomically
from ..job.document import Job, TreePlan
from ..job.fall import SAMPLES, SEED, WRONGS, Draw, butt_words, fall_to_plain, fan_for, named_driver, samples_csv
from ..job.language import tr
from ..job.spreads import judged_tree
from ..job.stamp import output_text
from ..job.units import NEVER, chance_words
from .opening import by_stand_ins

MOST_SAMPLES = 200_000
"""Past this the chances no longer change in the digits that are written, and memory grows."""


def add_to(parser: argparse.ArgumentParser) -> None:
    """Add how many, from which seed, and in which form."""
    parser.add_argument(
        "--samples",
        type=int,
        default=SAMPLES,
        help=tr("likely falls to draw, 1 to {most_samples}", most_samples=MOST_SAMPLES),
    )
    parser.add_argument("--seed", type=int, default=SEED, help=tr("the same seed draws the same falls"))
    parser.add_argument("--json", action="store_true", help=tr("print one JSON object"))
    parser.add_argument("--csv", type=Path, metavar="FILE", help=tr("write every likely fall as a row"))
    parser.add_argument("--geojson", type=Path, metavar="FILE", help=tr("write the fan as GeoJSON"))
    parser.add_argument("--positions", action="store_true", help=tr("the fan in longitude and latitude"))


def run(job: Job, plan: TreePlan, arguments: argparse.Namespace) -> int:
    """Reckon and print the fall."""
    if not 1 <= arguments.samples <= MOST_SAMPLES:
        raise InputError("--samples", arguments.samples, kind="count", low=1, high=MOST_SAMPLES)
    if arguments.seed < 0:
        raise InputError("--seed", arguments.seed, kind="count", low=0, reason=tr("a seed is not negative"))
    result = judged_tree(job, plan.id)[0]
    lacking = by_stand_ins(plan)
    fall, fan = nominal_fall(result), fan_for(plan, result, Draw(arguments.samples, arguments.seed), job.hand)
    if arguments.csv:
        write_atomically(arguments.csv, samples_csv(plan, result, fan))
    if arguments.geojson:
        from ..job.fan_geojson import fan_geojson  # few ask for it

        write_atomically(arguments.geojson, fan_geojson(job, plan, result, fan, positions=arguments.positions))
    if arguments.json:
        whole = fall_to_plain(job, plan, result, fall, fan) | {"not_measured": lacking}
        print(output_text(whole, job.practice))
        return 0
    _tell(job, plan, result, fall, fan)
    return 0


def _tell(job: Job, plan: TreePlan, result: Assessment, fall: NominalFall, fan: Fan) -> None:
    show = job.speech.show
    print(
        tr(
            "{id}: lay {lay_deg}  (all of this is indicative)",
            id=plan.id,
            lay_deg=show(result.case.cut.lay_deg, "bearing"),
        )
    )
    ends = tr("hung") if fall.hangs_on is not None else tr("down")
    print(
        tr(
            "goes from {start_deg} of tilt, {ends} after {time_s}",
            start_deg=show(fall.start_deg, "angle"),
            ends=ends,
            time_s=show(fall.time_s, "time"),
        )
    )
    print(
        tr(
            "top then at {tip_speed_m_s}, {bearing_error_deg} of the lay",
            tip_speed_m_s=show(fall.tip_speed_m_s, "speed"),
            bearing_error_deg=show(fall.bearing_error_deg, "aside"),
        )
    )
    part, why = job.speech.say("[hinge]"), job.speech.named("lets_go_by", fall.hinge_broke_by)
    print(
        tr(
            "{part}: {why} at {hinge_broke_at_deg}; first contact: {first_contact}",
            part=part,
            why=why,
            hinge_broke_at_deg=show(fall.hinge_broke_at_deg, "angle"),
            first_contact=tr(fall.first_contact),
        )
    )
    print(tr("butt: {butt}", butt=butt_words(job.speech, fall)))
    low, middle, high = (show(value, "aside") for value in fan.off_deg)
    print(
        tr(
            "of {count} likely falls the middle lies {middle}, nine in ten between {low} and {high}",
            count=len(fan.samples),
            middle=middle,
            low=low,
            high=high,
        )
    )
    for chance in wrongs_told(result.findings, fan):
        words = job.speech.say(WRONGS[chance.key])
        print(f"  {words}: {(chance_words(chance.share) if chance.share > NEVER else tr('next to never'))}")
    for name, cost, chance in hit_chances(result, fan):
        print(tr("  hits {name} ({cost}): {chance}", name=name, cost=cost, chance=chance_words(chance.share)))
    for path, share in fan.drivers:
        print(
            tr(
                "  driven by {named_driver}: {share:.0f} %",
                named_driver=named_driver(plan, path, job),
                share=share * 100,
            )
        )
