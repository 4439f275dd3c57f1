"""The firm's own cans: put on the shelf, counted, taken first by jobs, booked, labelled."""

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.estimate.estimate import Order
from amber_gable.services.company.stock import stock, stock_for
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.quantities.quantities import kept_quantities
from tests.clients import submit
from tests.web.forms import said_on

PAGE, RISE = "/stores/stock", "/jobs/coopers-rise/quantities"
CAN = {"product": "skerry-housecoat", "colour": "#e9dcc1", "size_l": "18.927", "litres": "12", "batch": "K7",
       "place": "shed, left", "good_until": "", "units": "metric"}  # fmt: skip


def _housecoat(ctx: Context, job: str = "coopers-rise") -> Order:
    orders = kept_quantities(job_view(ctx, job)).orders
    return next(o for o in orders if (o.product.code, o.colour) == ("skerry-housecoat", "#e9dcc1"))


def test_a_can_on_the_shelf_is_taken_first_and_what_is_bought_is_less(client: TestClient, ctx: Context) -> None:
    before = _housecoat(ctx)
    assert "It is can 1 :" in said_on(client.post(PAGE, data=CAN).text)
    after = _housecoat(ctx)
    assert [c.number for c in after.stock] == [1]
    assert after.cost < before.cost
    assert after.purchase.held_l >= after.need.wanted_l + after.reserve_l
    page = said_on(client.get(RISE).text)
    assert "From your own shelf first: can 1 (12.00 L, batch K7, shed, left)" in page
    cost = kept_quantities(job_view(ctx, "coopers-rise")).cost
    assert f"80 of 100 jobs {cost:.2f}" in page, "the levels are reckoned with it too"
    # Another colour, an old can, and another job's are none of it.
    submit(client, PAGE, data=CAN | {"colour": "#22382f"})
    submit(client, PAGE, data=CAN | {"good_until": "2026-09-13"})
    assert [c.number for c in _housecoat(ctx).stock] == [1]
    assert "was good until 2026-09-13" in said_on(client.get(PAGE).text)


def test_a_booked_can_is_one_jobs_alone_and_comes_back_with_what_is_left(client: TestClient, ctx: Context) -> None:
    submit(client, PAGE, data=CAN)
    submit(client, f"{RISE}/book", data={"can-1": "1"})
    assert [c.job for c in _housecoat(ctx).stock] == ["coopers-rise"]
    assert "booked" in said_on(client.get(RISE).text)
    assert stock_for(job_view(ctx, "net-loft")) == ()
    stale = client.post("/jobs/net-loft/quantities/book", data={"can-1": "1"})
    assert stale.status_code == 422 and "can 1 was booked to another job meanwhile" in stale.text
    submit(client, f"{PAGE}/1", data={"litres": "3.5", "place": "van", "job": "", "units": "metric"})
    (line,) = stock(ctx).lines
    assert (line.can.litres, line.can.place, line.can.job, line.can.batch) == (3.5, "van", None, "K7")
    assert stock_for(job_view(ctx, "net-loft"))


def test_an_empty_can_goes_off_the_shelf_and_can_be_brought_back_and_no_number_is_given_twice(
    client: TestClient, ctx: Context
) -> None:
    submit(client, PAGE, data=CAN)
    gone = client.post(f"{PAGE}/1/drop")
    assert "Can 1 is off the shelf" in said_on(gone.text) and stock(ctx).lines == ()
    assert "It is can 2 :" in said_on(client.post(PAGE, data=CAN).text)
    submit(client, f"{PAGE}/1/back")
    assert [x.can.number for x in stock(ctx).lines] == [1, 2]
    submit(client, f"{PAGE}/1", data={"litres": "0", "place": "", "job": "", "units": "metric"})
    assert [x.can.number for x in stock(ctx).lines] == [2], "counted, and nothing in it"
    for path in ("/77/drop", "/x/drop", "/999999/back"):
        assert client.post(f"{PAGE}{path}").status_code == 404


@pytest.mark.parametrize(
    ("field", "typed", "words"),
    [
        ("product", "", "choose what is in it"),
        ("product", "nothing", "choose what is in it"),
        ("colour", "green", "choose the colour in it"),
        ("size_l", "", "is needed"),
        ("size_l", "0", "is no can"),
        ("size_l", "1e9", "“e9” is not a unit"),
        ("litres", "19.5", "19.5 L do not go into it"),
        ("litres", "-1", "is no can"),
        ("good_until", "next spring", "is not a day"),
        ("batch", "x" * 41, "at most 40"),
    ],
)
def test_what_is_no_can_is_refused_beside_its_field(
    client: TestClient, ctx: Context, field: str, typed: str, words: str
) -> None:
    answer = client.post(PAGE, data=CAN | {field: typed})
    assert answer.status_code == 422
    assert words in said_on(answer.text)
    assert 'value="shed, left"' in answer.text, "what was typed stays"
    assert stock(ctx).lines == ()


def test_gallons_are_gallons_and_labels_carry_their_number(client: TestClient, ctx: Context) -> None:
    submit(client, PAGE, data=CAN | {"size_l": "5", "litres": "", "units": "us"})
    (line,) = stock(ctx).lines
    assert line.can.litres == line.can.size_l == pytest.approx(5 * 3.785412, rel=1e-5)
    labels = client.get(f"{PAGE}/labels").text
    assert labels.count("<svg") - labels.count("swatch") >= 1 and "batch K7" in said_on(labels)
    assert "style=" not in labels


def test_a_lighter_can_of_the_same_paint_may_be_retinted_and_a_darker_one_not(client: TestClient, ctx: Context) -> None:
    submit(client, PAGE, data=CAN | {"colour": "#fbf6ea"})
    submit(client, PAGE, data=CAN | {"colour": "#55606a"})
    page = said_on(client.get(RISE).text)
    assert "Can 1 (12.00 L) has another, lighter colour" in page and "Can 2" not in page
    assert "never matches to the eye" in page, "the risk is said where it is chosen"
    wanted = {"number": "1", "product": "skerry-housecoat", "colour": "#e9dcc1"}
    submit(client, f"{RISE}/retint", data=wanted)
    (can,) = _housecoat(ctx).stock
    assert (can.number, can.batch) == (1, "retinted K7")
    assert client.post(f"{RISE}/retint", data=wanted | {"colour": "#123456"}).status_code == 404
    for number in ("2", "77", "1"):
        refused = client.post(f"{RISE}/retint", data=wanted | {"number": number})
        assert refused.status_code == 422, "darker; not there; done already"
        assert f"can {number} cannot be tinted to this colour" in refused.text


def test_no_pail_is_larger_than_is_wished(client: TestClient, ctx: Context) -> None:
    submit(client, f"{RISE}/level", data={"buy_level": "80", "largest_l": "3.785"})
    assert {c.litres for c, _ in _housecoat(ctx).purchase.items} <= {3.785, 0.946}
    assert "Largest container" in said_on(client.get(RISE).text)
    assert client.post(f"{RISE}/level", data={"buy_level": "80", "largest_l": "-1"}).status_code == 422
