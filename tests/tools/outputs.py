"""Writes everything the program says about the demo jobs into a folder: pages, fragments, exports and commands.

Two folders, written before and after a change, are then compared with `diff -r`: what a change is not meant to touch is
byte-equal. The program is used from outside only, so that two versions of it can be compared:

    python -m tests.tools.outputs FOLDER                    this tree
    python -m tests.tools.outputs FOLDER --source OTHER     another checkout (its src folder is put first)
"""

import argparse
import os
import re
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from collections import Counter, deque
from html import unescape
from pathlib import Path
from urllib.parse import quote, urljoin, urlsplit

ROOT = Path(__file__).resolve().parents[2]
PORT, WEATHER_PORT = 8775, 8776
HOME = f"http://127.0.0.1:{PORT}"
JOBS = ("coopers-rise", "net-loft", "quarry-lane", "heron-deck", "feed-barn")
SAME_SHAPE = 4
"""Pages that differ by their query only are asked for so often: enough to see each kind, few enough to end."""
_LINK = re.compile(r'(?:href|hx-get|src|data-src|data-url|data-fetch)="([^"#]+)')
_CHANGES = (
    # names of shipped files and of the connection differ between versions and runs, what is said does not
    (re.compile(r"/static/[^\"' )]+"), "/static/…"),
    # how long a run took
    (re.compile(r"\d+\.\d s</td>"), "… s</td>"),
    # of a drawing only what is drawn: its header holds the time and new identifiers
    (re.compile(r"\A  0\r?\nSECTION.*?(?=ENTITIES)|(?<=ENDSEC)\s+0\s+SECTION\s+2\s+OBJECTS.*", re.DOTALL), ""),
)
_BINARY = ("image/jpeg", "application/zip", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet")


def main() -> None:
    parser = argparse.ArgumentParser(description="Write every page, export and command of the demo into a folder.")
    parser.add_argument("folder", type=Path)
    parser.add_argument("--source", type=Path, default=ROOT, help="the checkout to run (default: this one)")
    options = parser.parse_args()
    options.folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data:
        environment = os.environ | {"PYTHONPATH": str(options.source / "src"), "AMBER_GABLE_DATA": data}
        program = [sys.executable, "-m", "amber_gable.cli"]
        served = subprocess.Popen(
            [*program, "demo", "--port", str(PORT), "--weather-port", str(WEATHER_PORT)],
            env=environment, stdout=subprocess.DEVNULL,
        )  # fmt: skip
        try:
            _wait()
            pages = _crawl(options.folder)
        finally:
            served.terminate()
            served.wait()
        commands = _commands(options.folder, program, environment, Path(data))
    print(f"{pages} addresses and {commands} commands written to {options.folder}")


def _wait() -> None:
    for _ in range(240):
        try:
            urllib.request.urlopen(f"{HOME}/", timeout=30).read()
            return
        except urllib.error.URLError:
            time.sleep(0.5)
    raise SystemExit("the demo did not start")


def _crawl(folder: Path) -> int:
    """Every address that a page links to or fetches, beginning at the yard and at each job; breadth first, in order."""
    waiting = deque(["/", *(f"/jobs/{job}" for job in JOBS)])
    seen, shapes, count = set(waiting), Counter[str](), 0
    while waiting:
        address = waiting.popleft()
        body, kind = _settled(address)
        count += 1
        (folder / quote(address, safe="")[:200]).write_bytes(body)
        if "html" not in kind:
            continue
        for link in _LINK.findall(body.decode()):
            target = urlsplit(urljoin(f"{HOME}{address}", unescape(link)))
            found = target.path + (f"?{target.query}" if target.query else "")
            if target.netloc != urlsplit(HOME).netloc or "…" in found or found in seen:
                continue
            seen.add(found)
            shapes[target.path] += 1
            if shapes[target.path] <= SAME_SHAPE:
                waiting.append(found)
    return count


def _settled(address: str) -> tuple[bytes, str]:
    """What the address answers when nothing that it set going is still under way in the background."""
    answer = _asked(address)
    for _ in range(600):
        if "html" not in answer[1] or b"Under way (" not in _asked("/settings")[0]:
            break
        time.sleep(0.2)
        answer = _asked(address)
    return answer


def _asked(address: str) -> tuple[bytes, str]:
    request = urllib.request.Request(f"{HOME}{quote(address, safe='/?&=%,.:+~-')}")
    try:
        with urllib.request.urlopen(request, timeout=120) as answer:
            body, kind, status = answer.read(), answer.headers.get("content-type", ""), answer.status
    except urllib.error.HTTPError as error:
        body, kind, status = error.read(), error.headers.get("content-type", ""), error.code
    if kind.split(";")[0] in _BINARY:
        # Archives carry the time they were made at; their size tells whether something went missing.
        return f"{status} {kind} about {round(len(body), -2)} bytes\n".encode(), kind
    text = body.decode(errors="replace")
    for pattern, plain in _CHANGES:
        text = pattern.sub(plain, text)
    return f"{status} {kind}\n{text}".encode(), kind


def _commands(folder: Path, program: list[str], environment: dict[str, str], data: Path) -> int:
    """What the command line computes of each exported job, and of the week that the stand-in forecasts."""
    database = data / "demo.sqlite3"
    asked: dict[str, list[str]] = {
        "list-substrates": ["list", "substrates"],
        "list-products": ["list", "products"],
        "list-methods": ["list", "methods", "--json"],
        "schema-job": ["schema", "job"],
    }
    for job in JOBS:
        bundle = data / f"{job}.json"
        _run(program, ["export", job, "--database", str(database), "--output", str(bundle)], environment)
        (folder / f"export-{job}.json").write_bytes(bundle.read_bytes())
        for command in ("specify", "quantities", "estimate"):
            asked[f"{command}-{job}"] = [command, str(bundle), "--json"]
            asked[f"{command}-{job}-words"] = [command, str(bundle)]
    weather = data / "week.csv"
    weather.write_text(made_week())
    site = ["--lat", "45.25", "--lon", "-62.1", "--start", "2026-09-14", "--days", "5"]
    wall = ["--azimuth", "90", "--substrate", "wood-lap", "--colour", "#6b7a5e", "--method", "brush"]
    paint = ["--product", "exterior-acrylic-standard"]
    asked["windows"] = ["windows", "--weather", str(weather), *wall, *paint, *site, "--json"]
    asked["windows-members"] = [*asked["windows"], "--members", "20", "--seed", "7", "--events"]
    for job in JOBS:
        bundle = data / f"{job}.json"
        period = ["--weather", str(weather), "--start", "2026-09-14", "--days", "9"]
        asked[f"plan-{job}"] = ["plan", str(bundle), *period, "--json"]
    for name, arguments in asked.items():
        (folder / f"command-{name}").write_bytes(_run(program, arguments, environment).replace(str(data).encode(), b""))
    return len(asked) + len(JOBS)


def made_week() -> str:
    """Twelve days of hours with dew at night, a shower on the third and wind on the last: plain arithmetic."""
    lines = ["time,air_c,rh_pct,wind_m_s,wind_from_deg,cloud_pct,rain_mm"]
    for hour in range(12 * 24):
        day, of_day = divmod(hour, 24)
        warm = 14 + 5 * (1 - abs(of_day - 15) / 12)
        damp = 95 - 4 * (warm - 14) if of_day < 9 or of_day > 19 else 62
        rain = 2.0 if day == 3 and 10 <= of_day < 14 else 0.0
        wind = 8.0 if day == 9 else 3.0
        stamp = f"2026-09-{13 + day:02d}T{of_day:02d}:00-03:00"
        lines.append(f"{stamp},{warm:.2f},{damp:.1f},{wind},{225},{100 if rain else 30},{rain}")
    return "\n".join(lines) + "\n"


def _run(program: list[str], arguments: list[str], environment: dict[str, str]) -> bytes:
    done = subprocess.run([*program, *arguments], env=environment, capture_output=True)
    return done.stdout + done.stderr + f"\nexit {done.returncode}\n".encode()


if __name__ == "__main__":
    main()
