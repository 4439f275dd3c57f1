"""The command line: compute from files, move jobs in and out, run the program. Bad input: one line, exit 2."""

import argparse
import atexit
import gc
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any, NoReturn

from pydantic import ValidationError

from amber_gable import __version__
from amber_gable.domain.errors import InputError, NoClimate, NoSteps, NotFound, UnknownCode, first_words
from amber_gable.plan_commands import add_plan, add_plan_check, add_solve_benchmark, bundle_of, whole
from amber_gable.weather_commands import add_outlook, add_windows, print_json


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> NoReturn:
        print(f"{self.prog}: {message}; see {self.prog} --help", file=sys.stderr)
        raise SystemExit(2)


def main(arguments: Sequence[str] | None = None) -> None:
    """Entry point of `amber-gable`."""
    # What is loaded stays: looking through it for garbage again and again would be a fifth of the start.
    gc.set_threshold(50_000, 20, 100)
    # And looking through it once more before it is thrown away with the process would be another.
    atexit.register(gc.freeze)
    options = _parser().parse_args(arguments)
    try:
        options.run(options)
    except ValidationError as error:
        print(f"amber-gable: {': '.join(first_words(error))}", file=sys.stderr)
        raise SystemExit(2) from None
    except (InputError, NotFound, NoSteps, NoClimate, UnknownCode) as error:
        print(f"amber-gable: {' '.join(str(error).split())}", file=sys.stderr)
        raise SystemExit(2) from None
    except BrokenPipeError:
        sys.stderr.close()
        raise SystemExit(1) from None


def _parser() -> argparse.ArgumentParser:
    parser = _Parser(prog="amber-gable", description="Exterior painting: quantities, weather windows and plans.")
    parser.add_argument("--version", action="version", version=__version__)
    commands = parser.add_subparsers(required=True, metavar="COMMAND", parser_class=_Parser)

    def command(name: str, run: Any, words: str) -> argparse.ArgumentParser:
        sub = commands.add_parser(name, help=words, description=words)
        sub.set_defaults(run=run)
        return sub

    add_windows(command)
    add_outlook(command)

    quantities = command("quantities", _quantities, "litres and containers of a job bundle")
    quantities.add_argument("job", type=Path)
    quantities.add_argument("--json", action="store_true")

    estimate = command("estimate", _estimate, "hours and materials of a job bundle, line by line, with their range")
    estimate.add_argument("job", type=Path)
    estimate.add_argument("--seed", type=whole, default=0, help="of the sample the ranges are told from (default 0)")
    estimate.add_argument("--buy-level", type=_level, help="of 100 jobs, in how many a paint is enough")
    estimate.add_argument("--json", action="store_true")

    specify = command("specify", _specify, "preparation, primer and coats of every part of a job bundle, with reasons")
    specify.add_argument("job", type=Path)
    specify.add_argument("--json", action="store_true")
    specify.add_argument("--kept", action="store_true", help="the steps kept in the file, not those derived anew")

    add_plan(command)
    add_plan_check(command)
    add_solve_benchmark(command)

    listing = command("list", _list, "codes that can be used")
    listing.add_argument("what", choices=("substrates", "products", "methods"))
    listing.add_argument("--json", action="store_true")

    schema = command("schema", _schema, "JSON Schema of a file format")
    schema.add_argument("what", choices=("job",))

    load = command("import", _import, "put a job bundle into the database")
    load.add_argument("job", type=Path)
    load.add_argument("--replace", action="store_true", help="overwrite a job that is there")
    save = command("export", _export, "write a job of the database as a bundle (to a .zip with its photos)")
    save.add_argument("id", help="the job's id")
    save.add_argument("--output", type=Path, help="a file; default: standard output")
    backup = command("backup", _backup, "copy the database, also while it is in use")
    backup.add_argument("file", type=Path)
    restore = command("restore", _restore, "put a backup in the database's place; stop the program first")
    restore.add_argument("file", type=Path)
    for sub in (load, save, backup, restore):
        sub.add_argument("--database", type=Path, help="default: the one `serve` uses")
    serve = command("serve", _serve, "run the program on 127.0.0.1 with your own database")
    serve.add_argument("--port", type=int)
    demo = command("demo", _demo, "run the program on sample data with a simulated forecast service")
    demo.add_argument("--reset-only", action="store_true", help="only put the sample data back as it was")
    demo.add_argument("--port", type=int)
    demo.add_argument("--weather-port", type=int)
    return parser


def _specify(options: argparse.Namespace) -> None:
    from amber_gable.services.specification.report import lines, specification

    report = specification(bundle_of(options.job), kept=options.kept)
    if options.json:
        print_json(report)
        return
    for line in lines(report):
        print(line)


def _quantities(options: argparse.Namespace) -> None:
    from amber_gable.services.quantities.quantities import job_quantities

    result = job_quantities(bundle_of(options.job))
    if options.json:
        print_json(result.as_json())
        return
    for line in result.lines:
        print(
            f"{line.product:28} {line.colour}  {line.coat:36} {line.area_m2:8.1f} m² "
            f"{line.coverage_m2_l:6.2f} m²/L  loss {line.loss_pct:4.0f} %  {line.litres:7.2f} L"
        )
    for stop in result.stops:
        print(f"{stop.face_name}, {stop.part_name}: {stop.said}")
    print()
    for order in result.orders:
        cans = ", ".join(f"{n} × {c.litres:g} L" for c, n in order.purchase.items)
        print(
            f"{order.product.code:28} {order.colour}  {order.litres:7.2f} L  {cans}  {order.cost}  "
            f"leftover {order.leftover_l:.2f} L"
        )


def _level(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        value = 0.0
    if not 50 <= value <= 99:
        raise argparse.ArgumentTypeError(f"“{text}” is no level from 50 to 99; write 80")
    return value


def _estimate(options: argparse.Namespace) -> None:
    from amber_gable.core.estimate.estimate import job_estimate
    from amber_gable.services.estimate.report import estimate_json, estimate_lines

    found = job_estimate(bundle_of(options.job), options.seed, options.buy_level)
    if options.json:
        print_json(estimate_json(found))
        return
    for line in estimate_lines(found):
        print(line)


def _list(options: argparse.Namespace) -> None:
    from amber_gable.domain.house.substrates import SUBSTRATES
    from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
    from amber_gable.domain.paint.method import Method

    names = {
        "substrates": {s.code: s.name for s in SUBSTRATES.values()},
        "products": {p.code: p.name for p in GENERIC_PRODUCTS.values()},
        "methods": {m.value: m.value for m in Method},
    }[options.what]
    if options.json:
        print_json({options.what: [{"code": code, "name": name} for code, name in names.items()]})
        return
    for code, name in names.items():
        print(f"{code:34} {name}")


def _schema(_: argparse.Namespace) -> None:
    from amber_gable.domain.job.job import JobBundle

    print_json(JobBundle.model_json_schema())


def _database(options: argparse.Namespace) -> Any:
    from amber_gable.services.opening import open_database
    from amber_gable.services.settings import Settings

    return open_database(options.database or Settings().database)


def _bytes(path: Path) -> bytes:
    from amber_gable.exchange.sizes import ZIP_LIMIT

    try:
        if path.stat().st_size > ZIP_LIMIT:
            raise InputError(path.name, "the file is larger than 100 MB", "bring the job without its photos")
        return path.read_bytes()
    except OSError as error:
        raise InputError(str(path), f"cannot be read ({error.strerror})", "check the name") from None


def _import(options: argparse.Namespace) -> None:
    from amber_gable.services.job.jobs import read_job
    from amber_gable.store.job.jobs import save_bundle

    bundle, photos = read_job(_bytes(options.job), options.job.name)
    with _database(options).writing() as session:
        save_bundle(session, bundle, photos, replace=options.replace)
    print(f"imported job '{bundle.job.id}': {bundle.job.name}")


def _export(options: argparse.Namespace) -> None:
    from amber_gable.exchange.job.bundle import dump_bundle
    from amber_gable.exchange.job.job_zip import dump_zip, without_photos
    from amber_gable.store.job.jobs import load_bundle
    from amber_gable.store.job.photos import all_photo_bytes

    zipped = options.output is not None and options.output.suffix == ".zip"
    with _database(options).reading() as session:
        try:
            bundle = load_bundle(session, options.id)
        except NotFound:
            raise InputError(f"job '{options.id}'", "is not in the database", "see the jobs list for ids") from None
        photos = all_photo_bytes(session, options.id) if zipped else {}
    text = dump_bundle(without_photos(bundle))
    if zipped:
        options.output.write_bytes(dump_zip(bundle, photos))
    elif options.output:
        options.output.write_text(text, encoding="utf-8")
    else:
        sys.stdout.write(text)


def _backup(options: argparse.Namespace) -> None:
    from amber_gable.services.settings import Settings
    from amber_gable.store.backup import back_up

    lacking = back_up(options.database or Settings().database, options.file)
    print(f"backed up to {options.file}{_lacking(lacking)}")


def _restore(options: argparse.Namespace) -> None:
    from amber_gable.services.clock import SystemClock
    from amber_gable.services.settings import Settings
    from amber_gable.store.backup import restore

    done = restore(options.file, options.database or Settings().database, SystemClock().now().astimezone())
    kept = f"; what was there is kept as {done.kept.name}" if done.kept else ""
    print(f"restored from {options.file}{kept}{_lacking(done.lacking)}")


def _lacking(photos: int) -> str:
    """Of photos whose picture is not there, where there are any."""
    return f"; pictures that are missing beside the database: {photos}" if photos else ""


def _serve(options: argparse.Namespace) -> None:
    from amber_gable.run import serve

    serve(options.port)


def _demo(options: argparse.Namespace) -> None:
    from amber_gable.run import demo, reset_demo

    if options.reset_only:
        reset_demo()
    else:
        demo(options.port, options.weather_port)


if __name__ == "__main__":
    main()
