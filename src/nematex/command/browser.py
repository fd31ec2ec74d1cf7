"""Debian's Chromium, headless, as the pictures and the tests use it: without its windows, where that package is installed.

The windows that nobody sees take half of the processor's time that a page takes.
"""

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


def program() -> str | None:
    """Where the browser is; None where there is none."""
    return shutil.which("chromium-headless-shell") or shutil.which("chromium")


@contextmanager
def chromium() -> Iterator[Browser]:
    """A browser that ends with the block."""
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=program(), args=list(FLAGS))
        yield browser
        browser.close()
