"""Options of the test run. What tests share stands in tests/fixtures.py, which the process that only hands tests to the
workers need not load."""

import gc

import pytest
from hypothesis import settings

# What a run loads and collects stays to its end, a million objects: looked through again and again for nothing.
gc.set_threshold(50_000, 20, 100)

settings.register_profile("repeatable", derandomize=True, deadline=None, max_examples=40)
settings.register_profile("long", deadline=None, max_examples=1000)
settings.load_profile("repeatable")

pytest_plugins = ["tests.times"]


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--long", action="store_true", help="also the full grids of what runs coarser every day")


def pytest_configure(config: pytest.Config) -> None:
    hands_out = getattr(config.option, "numprocesses", None) and not hasattr(config, "workerinput")
    if not hands_out:
        config.pluginmanager.import_plugin("tests.fixtures")
        if getattr(config.option, "testmon", False):
            config.pluginmanager.get_plugin("tests.fixtures").EACH_BY_ITSELF.append(True)


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    if not config.getoption("--long"):
        long = [i for i in items if i.get_closest_marker("long")]
        config.hook.pytest_deselected(items=long)
        items[:] = [i for i in items if i not in long]
