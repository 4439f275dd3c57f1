"""Judgements in words: the same sentence for a wall and an hour wherever it is asked."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime, tzinfo
from itertools import chain

from amber_gable.core.state.job_state import Board, TaskState
from amber_gable.core.state.judgement import Answer, Verdict
from amber_gable.core.state.wait import Wait
from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.wording import timed_at


@dataclass(frozen=True)
class AnswerWords:
    """`headline` is the one line to read from the ladder; `then` what follows from it. `tests`: steps whose wait ends
    when somebody says that a test was passed, each with what must be seen."""

    headline: str
    then: str
    ok: bool
    tests: tuple[tuple[str, str], ...] = ()


def told(answer: Answer, tz: tzinfo) -> AnswerWords:
    opens = (
        f" Next open: {timed_at(answer.opens, tz)}." if answer.opens is not None else " No window in the days known."
    )
    match answer.verdict:
        case Verdict.YES:
            until = "" if answer.until is None else f", until {answer.until.astimezone(tz):%H:%M}"
            return AnswerWords(f"Yes{until}", _closing(answer), True)
        case Verdict.WEATHER:
            return AnswerWords(f"No: {LETTERS[answer.letters[0]]}", opens.strip(), False)
        case Verdict.WAITS:
            first = answer.waits[0]
            head = f"Weather fine, not ready: {first.words}" if answer.weather_ok else f"Not ready: {first.words}"
            tests = tuple(dict.fromkeys(w.test for w in answer.waits if w.test is not None))
            return AnswerWords(head, _ready(answer.waits, tz) + opens, False, tests)
        case Verdict.STOPPED:
            stop = next(w for w in answer.waits if w.letter == "S")
            lifts = f"What lifts it: {stop.lifts}" if stop.lifts else ""
            until = f" Ends by itself {timed_at(stop.until, tz)}." if stop.until else ""
            return AnswerWords(f"Stop: {stop.words}", f"{lifts}{until}".strip(), False)
    return AnswerWords("Not known", "The weather known does not reach this hour.", False)


def _closing(answer: Answer) -> str:
    """What ends the open stretch, and what to do about it."""
    if answer.closes == "R" and answer.until is not None:
        if not answer.film:
            return f"Rain is due {answer.until:%H:%M}: stop, and cover what is open."
        return f"Rain is due: last stroke {answer.until:%H:%M}, then sheet what is not rain-ready."
    if answer.closes in ("", "N"):
        return "Last stroke of the crew's day." if answer.film else "Then the crew's day ends."
    return f"Then {LETTERS[answer.closes]}."


def _ready(waits: tuple[Wait, ...], tz: tzinfo) -> str:
    """From when on, by the first wait, which the headline names, and what else there is to wait for."""
    first, rest = waits[0], waits[1:]
    said = [f"Ready {_end(first, tz)}."] if first.until is not None else [f"No day known{_lifts(first)}."]
    if rest:
        also = [
            f"{w.words}, {'until ' + _end(w, tz) if w.until is not None else 'no day known' + _lifts(w)}" for w in rest
        ]
        said.append(f"Besides: {'; '.join(also)}.")
    return " ".join(said)


def _end(wait: Wait, tz: tzinfo) -> str:
    return (timed_at(wait.until, tz) if wait.until is not None else "") + _lifts(wait)


def _lifts(wait: Wait) -> str:
    return f" ({wait.lifts})" if wait.lifts else ""


@dataclass(frozen=True)
class LastStroke:
    """Last moment today at which the coat that is really next or under way may be laid; `time` None where there is no
    such moment."""

    time: datetime | None
    face: str
    words: str


def last_stroke(board: Board, now: datetime, names: Mapping[str, str]) -> LastStroke | None:
    """Of the last film of the day that may be laid at its time; else of the film under way or of the one that comes
    next; None where no film is left. `names` of products."""
    last = _last_of_day(board, now)
    if last is not None and last.answer is not None and last.answer.until is not None:
        name = names.get(last.task.product or "", last.task.operation)
        return LastStroke(last.answer.until.astimezone(now.tzinfo), last.task.face_name, name)
    on = (t for t in (board.now, board.next) if t is not None)
    films = (t for t in chain(on, board.open) if t.task.kind.lays_film and not t.stopped)
    found = next(films, None)
    if found is None or found.answer is None:
        return None
    task, answer, tz = found.task, found.answer, now.tzinfo
    assert tz is not None
    what = names.get(task.product or "", task.operation)
    if task.start.astimezone(tz).date() > now.date():
        return LastStroke(None, task.face_name, f"{what}, {timed_at(task.start, tz)}")
    if answer.ok and answer.until is not None:
        return LastStroke(answer.until.astimezone(tz), task.face_name, what)
    return LastStroke(None, task.face_name, f"{what}: {_short(found)}")


def _last_of_day(board: Board, now: datetime) -> TaskState | None:
    """The film that is planned last today, of those that may be laid when their time comes."""
    films = (t for t in board.open if t.task.kind.lays_film and t.workable)
    today = [t for t in films if t.task.start.astimezone(now.tzinfo).date() == now.date()]
    return max(today, key=lambda t: t.task.start, default=None)


def _short(state: TaskState) -> str:
    answer = state.answer
    if answer is None or not answer.letters:
        return "no window today"
    return answer.waits[0].words if answer.waits else LETTERS[answer.letters[0]]
