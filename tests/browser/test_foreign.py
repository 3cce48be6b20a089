"""Pages of another house in a real browser: by a name of theirs that leads here, and by forms and pictures that point here."""

import http.server
import threading
import unittest

from playwright.sync_api import sync_playwright
from sqlalchemy import select

from tests.browser.case import CHROMIUM, QUIET, BrowserCase
from widehem.store.models import Wearer

NAME = "quay.example"  # of the other house; its owner lets it lead to loopback


class ForeignCase(BrowserCase):
    @classmethod
    def setUpClass(cls):
        cls.playwright = sync_playwright().start()
        cls.browser = cls.playwright.chromium.launch(
            executable_path=CHROMIUM, args=[*QUIET, f"--host-resolver-rules=MAP {NAME} 127.0.0.1"]
        )

    def house(self, page):
        """Another house that shows this page; returns its address, by its own name."""

        class Handler(http.server.BaseHTTPRequestHandler):
            def do_GET(self):
                data = page.encode()
                self.send_response(200)
                self.send_header("Content-Type", "text/html")
                self.end_headers()
                self.wfile.write(data)

            def log_message(self, *_):
                pass

        server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), Handler)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        return f"http://{NAME}:{server.server_port}"

    def wearer(self):
        with self.store.read() as session:
            return session.scalars(select(Wearer).order_by(Wearer.id)).first()


class Foreign(ForeignCase):
    def test_a_name_of_theirs_that_leads_here_reads_nothing(self):
        port = self.address.rpartition(":")[2]
        answer = self.page.goto(f"http://{NAME}:{port}/wearers/1/measure")
        self.assertEqual(answer.status, 403)
        self.assertNotIn(self.wearer().name, self.page.content())
        self.assertIn("none of this house", self.page.inner_text("body"))

    def test_their_form_changes_nothing(self):
        before = (self.wearer().name, self.wearer().allergies)
        self.page.goto(
            self.house(
                f'<form id="f" method="post" action="{self.address}/wearers/1"><input name="name" value="Taken over">'
                f'<input name="allergies" value=""></form><script>document.getElementById("f").submit()</script>'
            )
        )
        self.page.wait_for_url(f"{self.address}/**")
        self.assertIn("another house", self.page.inner_text("body"))
        self.assertEqual((self.wearer().name, self.wearer().allergies), before)

    def test_their_page_shows_none_of_our_pictures_and_reads_none_of_our_pages(self):
        self.open("/wearers/1")  # whoever works here has a session, and sees it
        photo = self.page.evaluate("[...document.images].map(i => [new URL(i.src).pathname, i.naturalWidth]).find(i => i[1])")
        self.assertIsNotNone(photo)
        self.page.goto(self.house(f'<img id="i" src="{self.address}{photo[0]}"><p>theirs</p>'))
        self.page.wait_for_function("() => document.getElementById('i').complete")
        self.assertEqual(self.page.evaluate("document.getElementById('i').naturalWidth"), 0)
        said = self.page.evaluate(
            f"fetch('{self.address}/wearers/1/chart.json', {{credentials: 'include'}}).then(a => a.text()).catch(() => 'refused')"
        )
        self.assertEqual(said, "refused")
        framed = self.page.evaluate(
            f"""new Promise(done => {{ const f = document.createElement('iframe'); f.onload = () => {{
            try {{ done(f.contentDocument ? f.contentDocument.body.innerText : 'kept out') }} catch (e) {{ done('kept out') }} }};
            f.src = '{self.address}/wearers/1'; document.body.append(f); }})"""
        )
        self.assertEqual(framed, "kept out")


if __name__ == "__main__":
    unittest.main()
