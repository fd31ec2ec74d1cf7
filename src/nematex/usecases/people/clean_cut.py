"""A shop that changes hands, or comes back from a backup: what was given out before opens nothing from then on."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.store.database import Database, Work
from nematex.store.people import persons
from nematex.store.people.given_out import FILES_SINCE, end_all
from nematex.store.people.persons import Person
from nematex.store.settings import drop, put, settings
from nematex.usecases.stock.polling import OWN_TILL, SETTING

__all__ = ["FILES_SINCE", "ComeBack", "becomes_owned", "who_came_back"]


@dataclass(frozen=True)
class ComeBack:
    """Who may sign in to a shop that was put back, as they could then."""

    people: tuple[Person, ...]


def who_came_back(database: Database) -> ComeBack:
    """End all that was given out; returns who may sign in."""
    with database.work() as work:
        end_all(work)
        return ComeBack(tuple(each for each in persons.people(work) if each.ended_at is None))


def becomes_owned(work: Work) -> None:
    """What was given out, and which stock feed was chosen, while nobody owned the shop is nobody's any more."""
    end_all(work)
    own = settings(work).get(OWN_TILL)
    if own:
        put(work, SETTING, own)
    else:
        drop(work, SETTING)
