"""Where a test run spends its time: `make test-times`. Wall clock and processor time of every set-up, call and
tear-down, by folder and by test. What is wall but not processor time was spent waiting: for Chromium, a child
process, the disk, or the other worker. And what the whole machine spent: the shell's `time` leaves out whatever nobody
waits for at its end, which are Chromium's pages."""

import os
import time
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path, PurePosixPath

import pytest

SLOWEST = 40
Row = dict[str, list[float]]


class Times:
    """Collects on the workers what the main process prints; reports carry the figures from one to the other."""

    def __init__(self) -> None:
        self.tests: dict[str, Row] = defaultdict(lambda: defaultdict(lambda: [0.0, 0.0]))
        self.begun = _machine_s()

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_makereport(self, call: pytest.CallInfo[None]) -> Iterator[None]:
        report = yield
        report.processor_s = _processor_s(call)
        return report

    @pytest.hookimpl(wrapper=True, tryfirst=True)
    def pytest_runtest_setup(self) -> Iterator[None]:
        return (yield from _counted("setup"))

    @pytest.hookimpl(wrapper=True, tryfirst=True)
    def pytest_runtest_call(self) -> Iterator[None]:
        return (yield from _counted("call"))

    @pytest.hookimpl(wrapper=True, tryfirst=True)
    def pytest_runtest_teardown(self) -> Iterator[None]:
        return (yield from _counted("teardown"))

    def pytest_runtest_logreport(self, report: pytest.TestReport) -> None:
        phase = self.tests[report.nodeid][report.when or ""]
        phase[0] += report.duration
        phase[1] += getattr(report, "processor_s", 0.0)

    def pytest_terminal_summary(self, terminalreporter: pytest.TerminalReporter) -> None:
        write = terminalreporter.write_line
        folders: dict[str, list[Row]] = defaultdict(list)
        for test, row in self.tests.items():
            folders[str(PurePosixPath(test.split("::")[0]).parent)].append(row)
        write("")
        write(f"{'folder':18} {'tests':>6} {'set-up':>15} {'call':>15} {'tear-down':>15} {'wall s':>8} {'cpu s':>8}")
        for folder, rows in [*sorted(folders.items()), ("all", [r for rs in folders.values() for r in rs])]:
            wall, cpu = (sum(p[i] for r in rows for p in r.values()) for i in (0, 1))
            phases = [[sum(r[p][i] for r in rows) for i in (0, 1)] for p in ("setup", "call", "teardown")]
            words = " ".join(f"{f'{a:.1f} ({b:.1f})':>15}" for a, b in phases)
            write(f"{folder:18} {len(rows):6} {words} {wall:8.1f} {cpu:8.1f}")
        if self.begun is not None and (now := _machine_s()) is not None:
            write(f"the whole machine, whatever else it did: {now - self.begun:.0f} cpu s")
        write("")
        write(f"the slowest: wall s (cpu s) of {'set-up':>12} {'call':>14}")
        slowest = sorted(self.tests.items(), key=lambda t: -sum(p[0] for p in t[1].values()))
        for test, row in slowest[:SLOWEST]:
            words = " ".join(f"{f'{row[p][0]:.2f} ({row[p][1]:.2f})':>14}" for p in ("setup", "call"))
            write(f"{words}  {test}")


def _machine_s() -> float | None:
    """Processor time of all that ran since the machine was started; None where nobody counts it."""
    counted = Path("/proc/stat")
    if not counted.exists():
        return None
    user, nice, system, _, _, *interrupts = (int(n) for n in counted.read_text().splitlines()[0].split()[1:8])
    return (user + nice + system + sum(interrupts)) / os.sysconf("SC_CLK_TCK")


_SPENT: dict[str, float] = {}


def _counted(phase: str) -> Iterator[None]:
    begin = time.process_time()
    try:
        return (yield)
    finally:
        _SPENT[phase] = time.process_time() - begin


def _processor_s(call: pytest.CallInfo[None]) -> float:
    return round(_SPENT.pop(call.when, 0.0), 4)


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--times", action="store_true", help="print where the time went, by folder and by test")


def pytest_configure(config: pytest.Config) -> None:
    if config.getoption("--times"):
        config.pluginmanager.register(Times())
