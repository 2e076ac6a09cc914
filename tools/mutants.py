"""Put a fixed set of slips into the code, one at a time, and see that a test fails for each: ``make mutants``.

Each slip is a place in a file, what stands there and what a tired person might have written, and the tests that cover the
file. The code is copied first; the checkout is never touched. Reports the survivors and exits with 1 when there are any.
Some ten minutes on two processors, so it is not part of what runs at every change.
"""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
CORE = "tests/core tests/validation"
FALL = "tests/fall tests/core"
JOB = "tests/job tests/measuring"
WORKERS = 2
"""Slips tried at once: one a processor of a small machine."""


@dataclass(frozen=True, slots=True)
class Slip:
    """One slip: in this file, instead of this, that; and the tests that have to notice."""

    file: str
    was: str
    slipped: str
    tests: str = CORE


SLIPS = (
    # Stumps, what they teach, the log
    Slip("core/stump/as_cut.py", "math.asin(min(max(as_cut.beside_m", "math.asin(min(max(-as_cut.beside_m", "tests/core/test_stump_why.py"),
    Slip("core/stump/factors.py", "-z if split else z", "z if split else -z", "tests/core/test_factors_and_mistakes.py"),
    Slip("core/stump/factors.py", "- b * GRID)", "+ b * GRID)", "tests/core/test_factors_and_mistakes.py"),
    Slip("core/stump/mistakes.py", "key=moved, reverse=True", "key=moved", "tests/core/test_factors_and_mistakes.py"),
    Slip("core/stump/told.py", "told.low_deg <= missed_deg", "told.low_deg >= missed_deg", "tests/core/test_factors_and_mistakes.py"),
    Slip("core/stump/quantities.py", "shipped, normal=learned(said[~out]", "shipped, normal=learned(said", "tests/log/test_demo_stumps.py"),
    Slip("core/stump/quantities.py", "records.classes[column]], dtype", "records.classes[column][::-1]], dtype", "tests/core/test_learning.py"),
    Slip("core/judge/chances.py", "(-width if name == AIM else width)", "0.0", "tests/log/test_demo_stumps.py"),
    Slip("core/fall/spread.py", "moved = moved + np.array(", "moved = moved - np.array(", "tests/log/test_demo_stumps.py"),
    Slip("job/spreads.py", "-over * plan.tree.height_m", "over * plan.tree.height_m", "tests/log/test_demo_stumps.py"),
    Slip("log/rows.py", "INSERT OR IGNORE INTO entries(", "INSERT OR REPLACE INTO entries(", "tests/log/test_store.py"),
    Slip("log/opening.py", "if version > VERSION:", "if version > VERSION + 1:", "tests/log/test_store.py"),
    Slip("log/opening.py", "kept = back_up(db, path, version)", "kept = path", "tests/log/test_store.py"),
    Slip("log/exchange.py", "harmless(value) if", "value if", "tests/log/test_exchange.py"),
    Slip("log/backtest.py", "records.first(at)", "records.first(len(entries))", "tests/log/test_demo_stumps.py"),
    Slip("app/frame/held_document.py", "if any(finding.is_pending for finding in before.result.findings):", "if False:", "tests/app/test_findings_column.py"),
    # Many trees
    Slip("core/block/precedence.py", "(along > 0) & (along", "(along > -99) & (along", "tests/core/test_block.py"),
    Slip("core/block/other_orders.py", "at[earlier] > at[later]", "at[earlier] < at[later]", "tests/core/test_other_orders.py"),
    Slip("core/block/other_orders.py", "abs(to - place), -abs(to - now)", "abs(to - now), 0", "tests/core/test_other_orders.py"),
    Slip("core/practice/scoring.py", "1.0 - (sure - float(hit)) ** 2", "1.0 - abs(sure - float(hit))", "tests/core/test_practice.py"),
    Slip("core/practice/learner.py", "FIRST_DAYS * 2.0 ** (row - 1)", "FIRST_DAYS * row", "tests/core/test_practice.py"),
    Slip("core/practice/learner.py", "key=lambda each: (each.low, each.count)", "key=lambda each: (-each.low, each.count)", "tests/core/test_practice.py"),
    Slip("core/practice/look.py", "weight_left_m=-east", "weight_left_m=east", "tests/job/test_practice_sets.py"),
    Slip("core/practice/stumps.py", "truth.share < LEAST_SHARE", "truth.share < 0.0", "tests/job/test_practice_sets.py"),
    Slip("core/practice/now.py", "max(LEAVES, found[GO_ON.key].worth)", "LEAVES", "tests/job/test_practice_sets.py"),
    Slip("core/fall/nominal.py", "return math.degrees(math.atan2(off, along)), True", "return math.degrees(math.atan2(-off, along)), True", "tests/job/test_practice_sets.py"),
    Slip("job/practice_set.py", "notes=\"\", readings=()", "readings=()", "tests/job/test_practice_sets.py"),
    Slip("core/block/hours.py", "return max(begun - self.break_min, done)", "return begun - self.break_min", "tests/core/test_hours_crew_kit.py"),
    Slip("core/block/whose.py", "graded.across_m > each", "graded.across_m < each", "tests/core/test_hours_crew_kit.py"),
    Slip("core/block/kit_sets.py", "heads = [each.wedge_head_m", "heads = [each.wedge_head_m * 2", "tests/core/test_hours_crew_kit.py"),
    Slip("core/block/kit.py", "bar >= across_m / 2", "bar >= across_m", "tests/core/test_hours_crew_kit.py"),
    Slip("core/block/cost.py", "stacked[None, None, :, :]", "stacked[:, :, None, None]", "tests/core/test_hours_crew_kit.py"),
    Slip("core/site/ways_off.py", "return -math.cos", "return math.cos", "tests/core/test_hours_crew_kit.py"),
    Slip("job/block_progress.py", "max((each.hour * 60.0", "min((each.hour * 60.0", "tests/job/test_block_in_words.py"),
    Slip("job/forecast_typed.py", "gust < speed", "gust > speed", "tests/job/test_block_in_words.py"),
    Slip("log/rows.py", 'facts = said + struct.pack("<d", float("nan") if took is None else took)', 'facts = said + struct.pack("<d", 0.0)', "tests/log/test_store.py"),
    Slip("core/block/forecast.py", "hour is None or limit_m_s is None", "limit_m_s is None", "tests/job/test_forecast.py"),
    Slip("core/block/days.py", "HOUR_MIN * (at // HOUR_MIN + 1)", "at + 1.0", "tests/job/test_forecast.py"),
    Slip("job/block.py", 'other.state == "hung" and', 'other.state == "down" and', "tests/job/test_block_of_a_job.py"),
    Slip("job/document.py", 'STANDS = ("standing", "hung", "off")', 'STANDS = ("standing",)', "tests/job/test_block_of_a_job.py"),
    # Ways out, what is known, why it lies there
    Slip("core/site/ways_out.py", "2 * (not self.free) + bool(", "2 * self.free + bool(", "tests/core/test_ground.py"),
    Slip("core/judge/unmeasured.py", "angle_deg == 0.0:", "angle_deg >= 0.0:", "tests/core/test_unmeasured.py"),
    Slip("core/stump/shares.py", "len(others) - len(before)", "len(others)", "tests/core/test_stump_why.py"),
    Slip("core/stump/as_cut.py", "(cut.lay_deg - as_cut.top_deg)", "(as_cut.top_deg - cut.lay_deg)", "tests/core/test_stump_why.py"),
    Slip("core/stump/why.py", "rest / per_spread * spread,", "rest * per_spread * spread,", "tests/core/test_stump_why.py"),
    # Drawings, paper, access
    Slip("app/drawing/labels.py", " and not any(map(box.intersects, stand)):", ":", "tests/app/test_labels.py"),
    Slip("app/drawing/fall/strobe_painter.py", "whole_s / step <= MOST", "whole_s / step >= MOST", "tests/app/test_fall_step.py"),
    Slip("app/frame/told.py", "worst.level != Level.CLEAR", "worst.level == Level.WATCH", "tests/app/test_access.py"),
    Slip("app/steps/ground/keys.py", "Key_Up: (0.0, 1.0)", "Key_Up: (0.0, -1.0)", "tests/app/test_ground_by_keys.py"),
    Slip("app/steps/card/painter.py", "if wanted.stump_page_on_paper:", "if wanted.with_stump_page:", "tests/app/test_paper.py"),
    Slip("app/text_size.py", "text_pt / USUAL_PT", "USUAL_PT / text_pt", "tests/app/test_access.py"),
    Slip("job/edits.py", 'with_answer(tree.around, LEAVE, "unknown")', "LEAVE", "tests/app/test_first_hour.py"),
    # Sectors, labels, the stump in the round
    Slip("core/advice/sectors.py", "if each.rank >= own.rank", "if each.rank <= own.rank", "tests/core/test_sectors.py"),
    Slip("core/advice/sectors.py", "2 if \"stack\" in spoke.way else 1", "1", "tests/core/test_sectors.py"),
    Slip("app/drawing/labels.py", "if page.contains(box):", "if True:", "tests/app/test_labels.py"),
    Slip("app/drawing/shapes/solid.py", "-(points[:, 0] - self.apex_m) * self.fall", "(points[:, 0] - self.apex_m) * self.fall", "tests/app/test_round.py"),
    Slip("app/drawing/round_painter.py", "near * self.sin_up", "near * self.cos_up", "tests/app/test_round.py"),
    Slip("app/drawing/round_painter.py", "(there - forward) * self.sin > 0", "(there - forward) * self.sin < 0", "tests/app/test_round.py"),
    Slip("core/base/frozen.py", "((name, held[name]) for name in names)", "(held)", "tests/core/test_frozen_values.py"),
    Slip("app/frame/overview_rows.py", "4: plan.tree.height_m", "4: plan.cut.lay_deg", "tests/app/test_overview_and_finder.py"),
    Slip("app/steps/cut/tiles.py", "self.close()\n        self.taken.emit(key)", "self.close()", "tests/app/test_form_tiles.py"),
    # Loads and wind
    Slip("core/mechanics/loads.py", "left_Nm=rope_Nm[1] + mean * gust.aside_left", "left_Nm=rope_Nm[1] - mean * gust.aside_left"),
    Slip("core/mechanics/loads.py", "forward_Nm=rope_Nm[0] - mean * against", "forward_Nm=rope_Nm[0] - wind * against"),
    Slip("core/mechanics/loads.py", "harmed_Nm=rope_Nm[0] - wind * against", "harmed_Nm=rope_Nm[0] - mean * against"),
    Slip("core/mechanics/loads.py", "following_Nm=wind * np.maximum(-gust.against, 0.0)", "following_Nm=0.0 * wind"),
    Slip("core/site/rigging.py", "lever * forward + sinks * fast_m[0]", "lever * forward - sinks * fast_m[0]"),
    Slip("core/judge/limits.py", "(np.abs(gust.aside_left), many.strength", "(0.5 * np.abs(gust.aside_left), many.strength"),
    Slip("core/judge/limits.py", "((against, back), (", "((0.5 * against, back), ("),
    Slip("core/site/wind.py", "AIR_kg_m3 / 2 * drag", "AIR_kg_m3 * drag"),
    Slip("core/site/wind.py", "gust = gust_ratio * speed_m_s", "gust = speed_m_s"),
    Slip("core/site/wind.py", "box / 2 if is_conifer else box * math.pi / 4", "box * math.pi / 4"),
    # Mass and balance
    Slip("core/tree/stem.py", "exponent) ** 2\n    mass", "exponent)\n    mass"),
    Slip("core/tree/stem.py", "lean.sweep_m * share**2", "lean.sweep_m * share"),
    Slip("core/tree/stem.py", "return Body(mass, up, lean_f + sweep_f, lean_l + sweep_l", "return Body(mass, up, lean_f, lean_l"),
    Slip("core/mechanics/law.py", "np.expm1(minus_x) * scale, 1.0)", "-np.expm1(minus_x), 1.0)"),
    Slip("core/mechanics/law.py", "tail + (1.0 - tail) *", "(1.0 - tail) *"),
    Slip("core/mechanics/law.py", "last = holds.shape[1] - 1 - holds[:, ::-1].argmax(axis=1)", "last = holds.argmax(axis=1)"),
    Slip("core/mechanics/mass.py", "still * (1.0 + still /", "still * (1.0 + 0.0 * still /"),
    Slip("core/mechanics/balance.py", "use[rows] = np.where(load.standing_Nm < 0, then, 0.0)", "use[rows] = 0.0"),
    Slip("core/mechanics/balance.py", "steady_Nm)\n\n\ndef balances_of", "0.0 * steady_Nm)\n\n\ndef balances_of"),
    Slip("core/mechanics/thinning.py", "ahead - of.weight_N * forward_m", "ahead"),
    Slip("core/mechanics/thinning.py", "strength.peak_Nm * shares**2", "strength.peak_Nm * shares"),
    Slip("core/tree/limbs.py", "limb.length_m / 3, over.lay_deg", "limb.length_m / 2, over.lay_deg"),
    # Face, hinge, splitting
    Slip("core/mechanics/face.py", "least(self.opening_deg, self.slot_deg)", "self.opening_deg"),
    Slip("core/mechanics/face.py", " + np.degrees(np.arctan2(designs.block_m, depth))", ""),
    Slip("core/mechanics/face.py", "front = apex - designs.overcut_m", "front = apex"),
    Slip("core/mechanics/use.py", "np.where(off_m >= 0, steady_left_Nm, -steady_left_Nm)", "steady_left_Nm"),
    Slip("core/mechanics/use.py", "+ (tilt / strength.break_angle_deg[:, None]) ** 2", "+ tilt / strength.break_angle_deg[:, None]"),
    Slip("core/mechanics/use.py", "np.hypot(carried, twisted)", "carried + twisted"),
    Slip("core/mechanics/use.py", "reach = np.minimum(closing_deg, needed)", "reach = needed"),
    Slip("core/mechanics/ligament.py", "1.0 / one - 1.0 / whole_m4", "1.0 / one - 0.0 / whole_m4"),
    Slip("core/mechanics/ligament.py", "/ (2 * np.where(stands", "/ (np.where(stands"),
    Slip("core/mechanics/splitting.py", "np.sqrt(diameter_m / 0.4), 0.7, 1.6)", "np.sqrt(diameter_m / 0.4), 0.7, 9.0)"),
    Slip("core/mechanics/splitting.py", "np.where(designs.held, bored, plain)", "bored"),
    Slip("core/mechanics/splitting.py", "kept.area_m2, 1.0) * STRAP_SHARE", "kept.area_m2, 1.0)"),
    Slip("core/design/cut.py", "return self.traits.kept_straps * self.strap_m", "return self.strap_m"),
    Slip("core/cuts/tapered_hinge.py", "(thin, THICKER * thin) if left else (THICKER * thin, thin)", "(THICKER * thin, thin) if left else (thin, THICKER * thin)"),
    Slip("core/cuts/plain_back.py", "split_index_plain > 1.0", "split_index_plain > 1.5"),
    Slip("core/tree/wood.py", 'if condition == "dead" else 1.0', 'if condition == "dead" else 0.9'),
    # Wedges and bar
    Slip("core/judge/limits.py", "np.diff(ahead, axis=1)) < wide)", "np.diff(ahead, axis=1)) < wide / 2)"),
    Slip("core/mechanics/wedge_plan.py", "np.maximum(constants.least_advance_m /", "np.maximum(0.5 * constants.least_advance_m /"),
    Slip("core/mechanics/wedge_plan.py", "blows / constants.most_blows)", "0.0 * blows)"),
    Slip("core/judge/limits.py", "SOUND_SEAT_LEAST / np.maximum(", "0.5 * SOUND_SEAT_LEAST / np.maximum("),
    Slip("core/mechanics/wedge_plan.py", "share = driven / np.maximum(table.room_m", "share = 0.5 * driven / np.maximum(table.room_m"),
    Slip("core/judge/limits.py", "np.minimum(use, SMALL_STEM_USE)", "use"),
    Slip("core/mechanics/wedge.py", "np.minimum(theta_go_deg + constants.tip_margin_deg, closing_deg)", "theta_go_deg + constants.tip_margin_deg"),
    Slip("core/mechanics/wedge.py", "together = np.where(used, arm, 0.0).sum(axis=1)", "together = np.where(used, arm, 0.0).max(axis=1, initial=0.0)"),
    Slip("core/mechanics/wedge.py", "kit.wedge_thickness_m - kit.kerf_m - constants.sawdust_m\n", "kit.wedge_thickness_m - kit.kerf_m\n"),
    Slip("core/judge/limits.py", "(bar_across_m(many) - bored)", "(bar_across_m(many) + bored)"),
    Slip("core/judge/limits.py", "/ (2 * bar_reach_m(many))", "/ (3 * bar_reach_m(many))"),
    Slip("core/judge/limits.py", "wide / np.maximum(bore_room_m(many)", "0.5 * wide / np.maximum(bore_room_m(many)"),
    # Ground
    Slip("core/site/hang_up.py", "(np.abs(aside) < footprint.crown_half_m + trees.radius_m)", "(np.abs(aside) < footprint.crown_half_m)"),
    Slip("core/site/hang_up.py", "along - trees.radius_m < footprint.length_m", "along < footprint.length_m"),
    Slip("core/site/hang_up.py", "np.abs(aside) - trees.radius_m - footprint.crown_half_m", "np.abs(aside) - footprint.crown_half_m"),
    Slip("core/site/ways_out.py", "(aside - half < HALF_WIDTH_M)", "(aside < HALF_WIDTH_M)"),
    Slip("core/site/ways_out.py", "(-off if side == \"left\" else off)", "(off if side == \"left\" else -off)"),
    Slip("core/site/ways_out.py", "plain * (1 + (DOWNHILL_LONGER - 1) * down)", "plain + 0.0 * down"),
    Slip("core/tree/soundness.py", "defect.length_m / 2 + reach_m", "defect.length_m + reach_m"),
    Slip("core/tree/soundness.py", "defect.length_m / 2 + reach_m", "reach_m"),
    Slip("core/judge/refusals.py", "slide_level(deg, case.constants) == Level.STOP", "slide_level(deg, case.constants) == Level.UNKNOWN"),
    Slip("core/design/checks.py", "if strap > 0.6 * room:", "if strap > 0.95 * room:"),
    Slip("core/design/checks.py", "apart & apart.T", "apart | apart.T"),
    Slip("core/site/rope.py", "1 + efficiency**2 + 2 * efficiency * cos", "1 + efficiency**2 - 2 * efficiency * cos"),
    Slip("core/site/rope.py", "math.exp(-BARK_FRICTION * turn_rad)", "math.exp(BARK_FRICTION * turn_rad)"),
    # Advice
    Slip("core/advice/survey.py", "for sign in (1, -1):", "for sign in (1,):", "tests/measuring tests/core"),
    Slip("core/advice/suggest.py", "DEPTH_BUYS = 0.5", "DEPTH_BUYS = 1.0"),
    Slip("core/judge/unmeasured.py", '"landing": ("height", "crown"),', '"landing": (),'),
    # Fall
    Slip("core/fall/spread.py", 'np.exp(by["mass"] + by["up"])', 'np.exp(by["up"] - by["mass"])', FALL),
    Slip("core/fall/spread.py", "{name: each.sign * of[row] for", "{name: of[row] for", FALL),
    Slip("core/fall/held.py", "law.tail * (1.0 - spent)", "law.tail", FALL),
    Slip("core/fall/spread.py", "TOGETHER * moved[:, strong] +", "0.0 * moved[:, strong] +", FALL),
    Slip("core/fall/reckon.py", "np.radians([planned.parts.hinge.steered_deg])", "0.0 * np.radians([planned.parts.hinge.steered_deg])", FALL),
    Slip("core/assess.py", 'WAITING = (Group.HINGE, Group.LANDING)', 'WAITING = (Group.HINGE,)', "tests/app/test_window.py"),
    # Words and files
    Slip("job/typed.py", "if METRES[name] >= before:", "if METRES[name] > 10 * before:", JOB),
    Slip("job/typed.py", "return _added(pieces, entry) / math.pi", "return _added(pieces, entry)", JOB),
    Slip("job/disk.py", "target = path.resolve() if path.is_symlink() else path", "target = path", JOB),
    Slip("job/disk.py", "if not over_read_only and not target.stat()", "if False and not target.stat()", JOB),
    Slip("job/csv_rows.py", "return f\"'{cell}\" if _RUN.match(cell) else cell", "return cell", JOB),
    Slip("job/own_constants.py", "if number and low <= value <= high:", "if number:", JOB),
    Slip("app/frame/recovery.py", "        if now == self.becoming:\n", "        if False:\n", "tests/app/test_kept_work.py"),
    Slip("app/frame/autosave.py", "if not self._timer.isActive():\n            self._timer.start", "if True:\n            self._timer.start", "tests/app/test_kept_work.py"),
    # Chances, duties, ways out
    Slip("core/judge/chances.py", "return math.erfc(-index / math.sqrt(2.0)) / 2", "return math.erfc(-index / math.sqrt(2.0))"),
    Slip("core/judge/chances.py", "found[strong, stiff] = found[stiff, strong] = TOGETHER", "found[strong, stiff] = found[stiff, strong] = 0.0"),
    Slip("core/judge/chances.py", "if use > 1.0 or chance > STOP_ABOVE:", "if chance > STOP_ABOVE:"),
    Slip("core/judge/chances.py", "-turned * each, now)", "turned * each, now)"),
    Slip("core/judge/states.py", "return 1.0 - bends - takes, 1.0 - bends + takes", "return (1.0 - bends - np.abs(takes),)"),
    Slip("core/judge/states.py", "np.maximum(many.wedge_plan.bring_rad - margin, 0.0)", "np.maximum(many.wedge_plan.bring_rad + 4 * margin, 0.0)"),
    Slip("core/judge/duties.py", "if (each.id, each.about) in ticked else each", "if each.id in {t.id for t in done} else each", "tests/core"),
    Slip("core/judge/who.py", "past = GRADES.index(found.grade) > GRADES.index(Grade(by.trained))", "past = False", "tests/core"),
    Slip("core/judge/findings.py", "rules = to_do if level == Level.CLEAR else alike", "rules = alike", "tests/core"),
    Slip("core/advice/mend.py", "if finding.level == Level.STOP and was.get(finding.id) != Level.STOP:", "if False:", "tests/core"),
    Slip("core/advice/mend.py", "finding.kind == FindingKind.LIMIT and finding.level != Level.CLEAR:", "finding.level == Level.STOP:", "tests/core"),
    Slip("core/advice/mend.py", "self._falls_well(change, wanted)", "True", "tests/core"),
    Slip("core/advice/worth.py", "wanted = CLEAR_BETA * spread", "wanted = CLEAR_BETA * way.spread", "tests/core"),
    Slip("core/advice/suggest.py", "not (is_clear and design.is_own),", "0,", "tests/core"),
    Slip("app/frame/mend_watch.py", "        self._forget()\n        self._key, self", "        self._key, self", "tests/app/test_findings_column.py"),
    Slip("core/tree/moved.py", "math.hypot(along, across_deg)", "along", "tests/core"),
    Slip("job/edits.py", "now = before if duty.done is not None else", "now = before if False else", "tests/core tests/job"),
)  # fmt: skip


def survives(slip: Slip, scratch: Path) -> bool:
    """Whether every test passes with the slip in a copy of the code."""
    copy = Path(tempfile.mkdtemp(dir=scratch))
    for folder in ("src", "tests", "tools"):
        shutil.copytree(ROOT / folder, copy / folder, ignore=shutil.ignore_patterns("__pycache__"))
    for name in ("pyproject.toml", "README.md", "Makefile"):
        shutil.copy(ROOT / name, copy / name)
    file = copy / "src" / "plain_compass" / slip.file
    text = file.read_text()
    if text.count(slip.was) != 1:
        raise SystemExit(f"{slip.file}: {slip.was!r} stands there {text.count(slip.was)} times; mend the list.")
    file.write_text(text.replace(slip.was, slip.slipped))
    scratch_settings = {"XDG_CONFIG_HOME": f"{copy}/config", "XDG_STATE_HOME": f"{copy}/state"}
    environment = os.environ | scratch_settings | {"PYTHONPATH": f"{copy}/src", "QT_QPA_PLATFORM": "offscreen"}
    command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *slip.tests.split()]
    told = subprocess.run(command, cwd=copy, env=environment, capture_output=True, check=False)
    shutil.rmtree(copy, ignore_errors=True)
    return told.returncode == 0


def main() -> int:
    """Try every slip, or those whose file name holds the word that is given."""
    wanted = [slip for slip in SLIPS if len(sys.argv) < 2 or sys.argv[1] in slip.file]
    with tempfile.TemporaryDirectory(prefix="plain-compass-slips-") as scratch, ThreadPoolExecutor(WORKERS) as pool:
        left = []
        for slip, survived in zip(wanted, pool.map(lambda slip: survives(slip, Path(scratch)), wanted), strict=True):
            print(f"{'SURVIVED' if survived else 'caught':<8} {slip.file}: {slip.slipped.strip()!r}", flush=True)
            if survived:
                left.append(slip)
    print(f"{len(wanted)} slips, {len(left)} survived.")
    return 1 if left else 0


if __name__ == "__main__":
    sys.exit(main())
