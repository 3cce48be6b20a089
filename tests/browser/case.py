"""A running server on a store of its own and a headless Chromium in front of it."""

import shutil
import threading
import unittest

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import sync_playwright
from waitress import create_server

from tests.apps import app_on
from tests.stores import fresh_store

CHROMIUM = shutil.which("chromium-headless-shell") or shutil.which("chromium") or ""  # the shell takes half the time
QUIET = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip


class BrowserCase(unittest.TestCase):
    demo = True
    size = (1280, 800)

    @classmethod
    def setUpClass(cls):
        cls.playwright = sync_playwright().start()
        cls.browser = cls.playwright.chromium.launch(executable_path=CHROMIUM, args=QUIET)

    @classmethod
    def tearDownClass(cls):
        cls.browser.close()
        cls.playwright.stop()

    def setUp(self):
        self.store = fresh_store(self, demo=self.demo)
        self.server = create_server(self.app(), host="127.0.0.1", port=0, threads=6)
        thread = threading.Thread(target=self.server.run, daemon=True)
        thread.start()
        self.addCleanup(self.server.close)
        self.address = f"http://127.0.0.1:{self.server.effective_port}"
        self.context = self.browser.new_context(viewport={"width": self.size[0], "height": self.size[1]}, accept_downloads=True)
        self.addCleanup(self.context.close)
        self.page = self.context.new_page()
        self.complaints = []
        self.page.on(
            "console", lambda message: self.complaints.append(message.text) if message.type in ("error", "warning") else None
        )
        self.page.on("pageerror", lambda error: self.complaints.append(str(error)))
        self.loads = []
        self.page.on("load", lambda _: self.loads.append(self.page.url))

    def app(self):
        """What answers; work that lasts is done at once."""
        return app_on(self.store)

    def open(self, path="/"):
        self.page.goto(self.address + path)

    def calm(self):
        """Wait until nothing is on its way and the swap has settled."""
        self.page.wait_for_selector(".htmx-request, .htmx-swapping, .htmx-settling", state="detached")
        self.page.wait_for_load_state("load")

    def text(self, selector):
        return self.page.inner_text(selector)

    def assert_quiet(self, but=()):
        left = [words for words in self.complaints if not any(allowed in words for allowed in but)]
        self.assertEqual(left, [])

    def assert_accessible(self, but=""):
        """Nothing that axe finds. but: a rule that is left out."""
        found = Axe().run(self.page, options={"rules": {but: {"enabled": False}}} if but else None)
        told = [f"{v['id']}: {v['help']}: {[n['html'][:160] for n in v['nodes'][:3]]}" for v in found.response["violations"]]
        self.assertEqual(told, [])
