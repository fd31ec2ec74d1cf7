"""The practice room: a question with its verdict hidden, then the working."""

from __future__ import annotations

from datetime import date, datetime

from flask import Blueprint, abort, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.core.judging.verdict import Verdict
from nematex.store.records import PatternRecord
from nematex.usecases.air.practice.questions import Question, next_question, read_question
from nematex.usecases.air.practice.room import REASONS, answer_question, find_answer, read_who, standing
from nematex.web.guard.who import their_name
from nematex.web.rooms.common import now, shop

room = Blueprint("practice", __name__, url_prefix="/practice")
WHO = "practises"  # in the session
GRADED = ("not at all", "far off", "off", "near", "right, not why", "right")
NUMBERED = ("not at all", "very far off", "far off", "near", "close", "spot on")


def _hung() -> PatternRecord | None:
    """A garment that shows how a cloth hangs: a skirt, where there is one."""
    records = now().drawer.records
    return next((each for each in records if "skirt" in each.facts.garment), next(iter(records), None))


def _who() -> str:
    return read_who(their_name(str(session.get(WHO, ""))))


def _asked(question: Question | None, values: dict[str, str], fault: FieldFault | None = None) -> str:
    return render_template(
        "air/practice/question.html", q=question, who=_who(), words=[each.word for each in Verdict], reasons=REASONS,
        values=values, fault=fault, hung=_hung(), standing=standing(shop(), _who(), date.today()),
    )  # fmt: skip


@room.get("")
def page() -> str:
    return _asked(next_question(shop(), now(), _who(), date.today()), {})


@room.post("/who")
def who() -> Response:
    """Somebody else sits down."""
    session[WHO] = read_who(request.form.get("who", ""))
    return redirect(url_for("practice.page"))


@room.post("")
def answer() -> Response | tuple[str, int]:
    key = request.form.get("question", "")[:60]
    try:
        number = answer_question(shop(), now(), _who(), key, request.form, datetime.now())
    except FieldFault as fault:
        return _asked(read_question(shop(), now(), key), request.form.to_dict(), fault), 400
    return redirect(url_for("practice.answered", answer_id=number))


@room.get("/<int:answer_id>")
def answered(answer_id: int) -> str:
    """The working of an answer."""
    found = find_answer(shop(), answer_id) or abort(404)
    given, card = found
    question = read_question(shop(), now(), given.question) or abort(404)
    said = GRADED if question.kind == "pairing" else NUMBERED
    return render_template(
        "air/practice/answer.html", q=question, answer=given, card=card, hung=_hung(), graded=said[given.grade], who=given.who,
        standing=standing(shop(), given.who, date.today()), today=date.today(),
    )  # fmt: skip
