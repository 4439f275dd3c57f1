"""The commands that plan a job in the weather of a file, check a plan, and solve published schedules: `plan`,
`plan-check` and `solve-benchmark`."""

import argparse
from datetime import date, datetime, time
from pathlib import Path
from typing import Any

from amber_gable.domain.errors import InputError
from amber_gable.weather_commands import Command, period, print_json, start_of, weather_of

FUTURES = 50
"""That are drawn where a plan is to be sure."""


def add_plan(command: Command) -> None:
    parser = command("plan", _plan, "place the operations of a job bundle in the weather of a file")
    parser.add_argument("job", type=Path)
    parser.add_argument("--weather", type=Path, required=True)
    parser.add_argument("--people", type=_people, help="hands, 1 to 40; default: the job's own")
    words = (
        "of fifty drawn futures, in what share a step must hold to be planned (0 to 1; default: the weather as it is)"
    )
    parser.add_argument("--floor", type=_share, help=words)
    words = "for looking for fewer days, in the solver's own steps (default 15; 0: earliest first)"
    parser.add_argument("--seconds", type=_seconds, default=15.0, help=words)
    parser.add_argument("--seed", type=whole, default=1, help="of the solver (default 1)")
    period(parser)


def add_plan_check(command: Command) -> None:
    parser = command(
        "plan-check", _plan_check, "hold a plan against the rules of the trade; exit 1 where it breaks one"
    )
    parser.add_argument("plan", type=Path, help="what `plan --json` wrote")
    parser.add_argument("job", type=Path)
    parser.add_argument("--weather", type=Path, required=True)
    parser.add_argument("--json", action="store_true")


def add_solve_benchmark(command: Command) -> None:
    words = "solve a published schedule (.sm or .rcp): its makespan, the bound and the status"
    parser = command("solve-benchmark", _solve_benchmark, words)
    parser.add_argument("file", type=Path)
    parser.add_argument("--seconds", type=_seconds, default=15.0)
    parser.add_argument("--seed", type=whole, default=1)
    parser.add_argument("--json", action="store_true")


def bundle_of(path: Path) -> Any:
    """The job of a file, with what is derived made complete. Raises InputError."""
    from amber_gable.core.specification.derived.completing import completed
    from amber_gable.core.weather.wall.compiled import go_without
    from amber_gable.exchange.files import read_text
    from amber_gable.exchange.job.bundle import load_bundle

    go_without()
    return completed(load_bundle(read_text(path), path.name))


def whole(text: str) -> int:
    try:
        value = int(text)
    except ValueError:
        value = -1
    if value < 0:
        raise argparse.ArgumentTypeError(f"“{text}” is no whole number from 0; write 7")
    return value


def _people(text: str) -> int:
    value = whole(text)
    if not 1 <= value <= 40:
        raise argparse.ArgumentTypeError(f"“{text}” people: 1 to 40 can be planned; write 3")
    return value


def _share(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = -1.0
    if not 0 < value <= 1:
        raise argparse.ArgumentTypeError(f"“{text}” is no share of the futures, over 0 to 1; write 0.7")
    return value


def _seconds(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = -1.0
    if not 0 <= value <= 3600:
        raise argparse.ArgumentTypeError(f"“{text}” is no time from 0 to 3600 seconds; write 15")
    return value


def _site(options: argparse.Namespace, first: date, days: int, people: int | None) -> tuple[Any, datetime, list[str]]:
    """The job in the weather of the file from that day on, when that begins, and what is said of the weather."""
    from amber_gable.core.climate.job_climate import site_climate
    from amber_gable.services.weather.held.far_away import away_words

    bundle = bundle_of(options.job)
    if people is not None:
        crew = bundle.job.crew.model_copy(update={"people": people})
        bundle = bundle.model_copy(update={"job": bundle.job.model_copy(update={"crew": crew})})
    series = weather_of(options.weather)
    far = away_words(series, bundle.property)
    begin = datetime.combine(first, time(), bundle.property.tz)
    notes = [*series.notes, *([f"the weather is of a place {far}"] if far else [])]
    return site_climate(bundle, series, begin, days), begin, notes


def _floor(options: argparse.Namespace, site: Any, begin: datetime) -> Any:
    from amber_gable.core.climate.job_climate import place_of
    from amber_gable.core.plan.floor import Floor
    from amber_gable.core.weather.futures.ensemble import drawn_weather

    series = weather_of(options.weather)
    place = place_of(site.bundle.property)
    return Floor(options.floor, drawn_weather(place, series, begin, options.days, FUTURES, options.seed))


def _plan(options: argparse.Namespace) -> None:
    from amber_gable.core.plan.build import plan_job, solved_plan

    start = start_of(options)
    site, begin, notes = _site(options, start, options.days, options.people)
    floor = None if options.floor is None else _floor(options, site, begin)
    if options.seconds:
        plan = solved_plan(site, begin, seconds=options.seconds, seed=options.seed, floor=floor)
    else:
        plan = plan_job(site, begin, floor=floor)
    found = plan.found
    if options.json:
        print_json(
            {
                "start": start.isoformat(),
                "days": options.days,
                "people": site.bundle.job.crew.people,
                "floor": options.floor,
                "tasks": [t.model_dump(mode="json") for t in plan.tasks],
                "finish": None if plan.finish is None else plan.finish.isoformat(),
                "unplaced": [u.model_dump(mode="json") for u in plan.unplaced],
                "site_days": plan.site_days,
                "status": found.status if found is not None else "earliest-first",
                "cost": found.cost if found is not None else None,
                "bound": found.bound if found is not None else None,
                "gap": round(found.gap, 4) if found is not None else None,
                "notes": notes,
            }
        )
        return
    print(f"Local times, {site.bundle.property.tz} ({begin:%Z}, UTC{begin:%z})")
    for t in plan.tasks:
        when = f"{t.start:%a %d %b %H:%M}-{t.end:%H:%M} {t.start:%Z}"
        print(f"{when}  {t.face_name}, {t.zone_name} {t.section}: {t.operation} ({t.people})")
    for u in plan.unplaced:
        print(f"not placed: {u.face_name}, {u.zone_name}: {u.operation}. {u.why}")
    how = "" if found is None else f", {found.status}" + (f", within {found.gap:.1%} of the best" if found.gap else "")
    print(f"{plan.site_days} days on site{how}")
    for note in notes:
        print(f"note: {note}")


def _plan_check(options: argparse.Namespace) -> None:
    from amber_gable.core.plancheck.planned import Planned
    from amber_gable.core.plancheck.rules import breaches
    from amber_gable.exchange.files import read_text
    from amber_gable.exchange.job.plan_file import read_plan

    file = read_plan(read_text(options.plan), options.plan.name)
    site, begin, _ = _site(options, file.start, file.days, file.people)
    plan = file.plan
    _of_this_job(plan, site.bundle, options)
    found = breaches(Planned(site, plan, begin))
    broken = [b for b in found if b.must]
    if options.json:
        print_json({"breaches": [{"rule": b.rule, "must": b.must, "words": b.words} for b in found]})
    else:
        for b in found:
            print(f"{b.rule}: {b.words}" if b.must else f"note: {b.rule}: {b.words}")
        if not broken:
            print(f"{len(plan.tasks)} tasks, no rule broken")
    if broken:
        raise SystemExit(1)


def _of_this_job(plan: Any, bundle: Any, options: argparse.Namespace) -> None:
    """Raises InputError for a plan of another job, or of the job as it was."""
    from amber_gable.core.work.steps import steps_of

    known = {f.part: {o.id for o in steps_of(bundle, f)} for f in bundle.job.finishes}
    for task in plan.tasks:
        for part in task.extent.parts if task.extent is not None else ():
            if not set(task.steps) <= known.get(part, set()):
                raise InputError(
                    options.plan.name,
                    f"“{task.operation}” on {task.zone_name} is no work of {options.job.name}",
                    "check which job the plan is of, or plan again",
                )


def _solve_benchmark(options: argparse.Namespace) -> None:
    from amber_gable.core.plan.benchmark import solve_project
    from amber_gable.exchange.files import read_text
    from amber_gable.exchange.schedules import read_project

    project = read_project(read_text(options.file), options.file.name)
    found = solve_project(project, options.seconds, options.seed)
    if options.json:
        print_json({"makespan": found.makespan, "bound": found.bound, "status": found.status})
        return
    print(f"makespan {found.makespan}, bound {found.bound}, {found.status}")
