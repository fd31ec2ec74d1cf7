"""Debian's Chromium, headless, as the pictures and the tests use it."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from playwright.sync_api import Browser

FLAGS = (
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
)


@contextmanager
def chromium() -> Iterator[Browser]:
    """A browser that ends with the block."""
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=shutil.which("chromium"), args=list(FLAGS))
        yield browser
        browser.close()
