"""Faults of the machine and its settings, each in one sentence that says what to do. No password is ever in one."""

from __future__ import annotations

from pymysql.err import MySQLError
from sqlalchemy.exc import SQLAlchemyError

REFUSED, UNKNOWN, AWAY = (1044, 1045, 1698), (1049,), (2002, 2003, 2005, 2006, 2013)


def sentence(fault: BaseException) -> str | None:
    """What is said of a fault; None where it is none of the environment's, but the program's own."""
    if isinstance(fault, SQLAlchemyError | MySQLError) and (said := _of_database(fault)):
        return said
    if isinstance(fault, RuntimeError | OSError):
        return str(fault)
    return None


def _of_database(fault: BaseException) -> str | None:
    root = getattr(fault, "orig", None) or fault
    number = root.args[0] if isinstance(root, MySQLError) and root.args else None
    if number in REFUSED:
        return "DATABASE_URL: the server does not let this user in; see user, password, and what the user may do"
    if number in UNKNOWN:
        return "DATABASE_URL: there is no database of that name on the server; make it, then start again"
    if number in AWAY:
        return "the database does not answer: see whether it runs and can be reached (./nematex doctor says more)"
    return None
