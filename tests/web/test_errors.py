"""What is not there is a 404, what is wrong is told, and everything else is a logged fault with a number."""

import logging
import re
from typing import Any

import pytest
from fastapi import FastAPI
from fastapi.routing import APIRoute
from fastapi.testclient import TestClient

from amber_gable.domain.errors import NotFound, Refused, StaleEdit

RISE = {"job_id": "coopers-rise", "kind": "zone", "id_": "front-siding"}
# Which names of an address are wrong.
WRONG = [
    {"job_id": "nowhere"},
    {"kind": "chimney"},
    {"id_": "nowhere"},
    {"kind": "item"},
    {"step": "nowhere"},
    {"code": "nowhere"},
]


# The list of jobs asks it of a card that another tab may just have deleted, and waits for nothing then.
GONE_IS_NO_FAULT = "/yard/waits/{job_id}"


def _routes(app: FastAPI) -> list[tuple[str, str]]:
    return [(m, r.path) for r in app.routes if isinstance(r, APIRoute) for m in r.methods & {"GET", "POST"}]


@pytest.mark.usefixtures("indoors")
@pytest.mark.parametrize("wrong", WRONG, ids=str)
def test_no_address_with_a_wrong_name_is_a_fault_of_the_program(
    app: FastAPI, client: TestClient, wrong: dict[str, str]
) -> None:
    routes = _routes(app)
    assert len(routes) > 150
    for method, path in routes:
        names = re.findall(r"{(\w+)(?::\w+)?}", path)
        if not set(names) & set(wrong):
            continue
        values = dict.fromkeys(names, "nowhere") | RISE | wrong
        address = re.sub(r"{(\w+)(?::\w+)?}", lambda m, v=values: v[m.group(1)], path)
        for form in ({}, {"version": "1"}):
            answer = client.request(method, address, data=form if method == "POST" else None)
            assert answer.status_code < 500, f"{method} {address} {form}"
            if wrong.get("job_id") and path != GONE_IS_NO_FAULT:
                assert answer.status_code in (404, 422), f"{method} {address}"


RAISED: list[tuple[Exception, int, str]] = [
    (NotFound("face", "north"), 404, "no face “north”"),
    (Refused({"name": "is needed"}), 422, "name: is needed"),
    (StaleEdit("North", {"name": ("N", "North")}), 409, "N there, North here"),
    (KeyError("a slip of ours"), 500, "went wrong in the program"),
    (ValueError("a slip of ours"), 500, "went wrong in the program"),
]


@pytest.mark.parametrize(("error", "status", "words"), RAISED, ids=lambda v: type(v).__name__)
def test_each_kind_of_error_has_its_answer(
    client: TestClient,
    monkeypatch: pytest.MonkeyPatch,
    caplog: pytest.LogCaptureFixture,
    error: Exception,
    status: int,
    words: str,
) -> None:
    def fail(*_: Any, **__: Any) -> None:
        raise error

    monkeypatch.setattr("amber_gable.web.routes.quantities.load_job", fail)
    with caplog.at_level(logging.ERROR, "amber_gable"):
        answer = client.get("/jobs/coopers-rise/quantities")
    assert answer.status_code == status
    assert words in answer.text
    logged = [r for r in caplog.records if r.name == "amber_gable"]
    assert bool(logged) == (status == 500)
    if status == 500:
        number = re.search(r"number ([0-9a-f]{8})", answer.text)
        assert number and number.group(1) in logged[0].getMessage()
        assert logged[0].exc_info and logged[0].exc_info[1] is error
        assert "a slip of ours" not in answer.text
