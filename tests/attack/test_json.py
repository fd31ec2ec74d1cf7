"""The JSON that pages ask for, fed by schemathesis from docs/openapi.json: no request may end in an error of the program.

The document is written by hand; what it says may come back (and nothing else) is held too.
"""

from __future__ import annotations

import json

import pytest
import schemathesis
from conftest import ROOT, tried_app
from hypothesis import HealthCheck, Phase, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import status_code_conformance

from nematex.usecases.held.shop import Shop

pytestmark = pytest.mark.breaking

DOCUMENT = ROOT / "docs/openapi.json"


@pytest.mark.filterwarnings("ignore")
def test_no_json_that_is_sent_is_answered_by_an_error_of_the_program(demo: Shop, pytestconfig: pytest.Config) -> None:
    app = tried_app(demo.database)
    app.config.update(WTF_CSRF_ENABLED=False, PROPAGATE_EXCEPTIONS=False)
    served = app.wsgi_app

    def from_here(environ: dict[str, object], start: object) -> object:
        return served({**environ, "REMOTE_ADDR": "127.0.0.1"}, start)  # type: ignore[arg-type]

    app.wsgi_app = from_here  # type: ignore[method-assign,assignment]
    schema = schemathesis.openapi.from_dict(json.loads(DOCUMENT.read_text()))
    operations = [found.ok() for found in schema.get_all_operations()]
    each = max(4, pytestconfig.getoption("requests") // len(operations))
    sent = []
    for operation in operations:

        def ask(case: schemathesis.Case) -> None:
            answer = case.call(app=app, base_url="http://127.0.0.1")
            sent.append(answer.status_code)
            case.validate_response(answer, checks=[not_a_server_error, status_code_conformance])

        patient = settings(
            max_examples=each, deadline=None, suppress_health_check=list(HealthCheck), phases=[Phase.generate], database=None
        )
        patient(given(case=operation.as_strategy())(ask))()
    assert len(sent) >= len(operations)
    assert max(sent) < 500
