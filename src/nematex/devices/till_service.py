"""The simulated till as a service on loopback: GET /stock, and POST to make it sell, let days pass or misbehave."""

from __future__ import annotations

import time

from flask import Flask, Response, jsonify, request

from nematex.devices.simulated_till import SLOW_S, Till


def till_app(till: Till) -> Flask:
    """The service over one till."""
    app = Flask("till")
    app.config["TRUSTED_HOSTS"] = ["127.0.0.1", "localhost"]

    @app.get("/stock")
    def stock() -> Response | tuple[str, int]:
        if till.mode == "down":
            return "closed for stock-taking", 503
        if till.mode == "slow":
            time.sleep(SLOW_S)
        return jsonify(till.answer())

    @app.post("/act")
    def act() -> Response | tuple[str, int]:
        given = request.get_json(silent=True) or {}
        try:
            if given.get("mode"):
                till.set_mode(str(given["mode"]))
            if given.get("sell"):
                metres = given.get("metres")
                till.sell(str(given["sell"]), None if metres is None else float(metres))
            if given.get("days"):
                till.pass_days(min(float(given["days"]), 400.0))
        except (KeyError, ValueError, TypeError) as fault:
            return str(fault), 400
        return jsonify(mode=till.mode)

    return app
