"""The server itself: many that say nothing, bodies without end, and whether all is well."""

import contextlib
import logging
import socket
import subprocess
import sys
import threading
import time
import unittest
import urllib.request
from contextlib import ExitStack
from unittest import mock

from sqlalchemy.exc import OperationalError
from waitress import wasyncore

from tests.stores import fresh_store
from tests.web.case import WebCase
from widehem.web import patient
from widehem.web.app import create_app
from widehem.web.door import Door
from widehem.web.patient import LIMITS, Desk

SILENT = 150
MUCH = 600_000_000


class Limits(unittest.TestCase):
    def serve(self):
        logging.getLogger("waitress").setLevel(logging.CRITICAL)  # of what still comes while it is closed
        listener = socket.create_server(("127.0.0.1", 0), backlog=1024)
        self.at = listener.getsockname()
        self.desk = Desk(create_app(fresh_store(self, demo=False)), [listener], 2)
        stopped = threading.Event()

        def run():
            while not stopped.is_set():
                self.desk.turn()
            self.desk.close(2)
            wasyncore.close_all(self.desk.server._map)

        thread = threading.Thread(target=run)
        thread.start()
        self.addCleanup(thread.join)
        self.addCleanup(stopped.set)

    def speaks(self):
        with urllib.request.urlopen(f"http://127.0.0.1:{self.at[1]}/health", timeout=10) as answer:
            return answer.status

    def test_those_that_say_nothing_do_not_shut_the_door(self):
        self.serve()
        with ExitStack() as open_ones:
            for _ in range(SILENT):
                silent = open_ones.enter_context(socket.create_connection(self.at, timeout=10))
                silent.sendall(b"GET / HTTP/1.1\r\nHo")
            self.assertEqual(self.speaks(), 200)

    def test_they_are_sent_away(self):
        with mock.patch.multiple(patient, SILENT=0.5, SWEEP=0.1, TURN=0.1):
            self.serve()
            with socket.create_connection(self.at, timeout=20) as silent:
                self.assertEqual(silent.recv(10), b"", "closed from the other side")
        self.assertEqual(self.speaks(), 200)

    def test_one_that_sends_a_sign_now_and_then_is_sent_away_as_well(self):
        with mock.patch.multiple(patient, SILENT=0.6, SWEEP=0.1, TURN=0.1):
            self.serve()
            with socket.create_connection(self.at, timeout=20) as slow:
                slow.sendall(b"GET / HTTP/1.1\r\nX-Slow: ")
                began = time.monotonic()
                with self.assertRaises(OSError):
                    while time.monotonic() - began < 15:
                        slow.sendall(b"a")
                        time.sleep(0.2)
        self.assertEqual(self.speaks(), 200)

    def test_an_upload_that_goes_on_is_waited_for(self):
        with mock.patch.multiple(patient, SILENT=0.5, SWEEP=0.1, TURN=0.1):
            self.serve()
            with socket.create_connection(self.at, timeout=20) as steady:
                head = f"POST /lists HTTP/1.1\r\nHost: 127.0.0.1:{self.at[1]}\r\nContent-Length: 12000\r\n\r\n"
                steady.sendall(head.encode())
                for _ in range(12):
                    steady.sendall(b"x" * 1000)
                    time.sleep(0.1)
                self.assertIn(steady.recv(100)[9:12], (b"400", b"403"), "it was heard to its end")

    def test_when_nearly_all_places_are_taken_those_that_wait_longest_go(self):
        with mock.patch.multiple(patient, CROWDED=SILENT * 0.8, MOST_CONNECTIONS=SILENT, TURN=0.1):
            self.serve()
            with ExitStack() as open_ones:
                for _ in range(SILENT * 2):
                    silent = open_ones.enter_context(socket.create_connection(self.at, timeout=10))
                    silent.sendall(b"GET / HTTP/1.1\r\nHo")
                self.assertEqual(self.speaks(), 200)
                self.assertLess(len(self.desk.server.active_channels), SILENT * 1.5)

    def test_a_body_without_end_is_refused_while_it_is_read(self):
        self.serve()
        head = f"POST /lists HTTP/1.1\r\nHost: 127.0.0.1:{self.at[1]}\r\n"
        for more, body in (
            (f"Content-Length: {MUCH}\r\n\r\n", b""),
            ("Transfer-Encoding: chunked\r\n\r\n", b"%x\r\n" % MUCH + b"x" * (LIMITS["max_request_body_size"] + 70_000)),
        ):
            with self.subTest(more.strip()), socket.create_connection(self.at, timeout=10) as sender:
                sender.sendall((head + more).encode())
                said = b""
                with contextlib.suppress(OSError):  # it may hang up before all is sent
                    sender.sendall(body)
                    said = sender.recv(100)
                self.assertIn(said[9:12], (b"413", b""))
        self.assertEqual(self.speaks(), 200)


BOMBS = """
import io, resource, struct, sys, zlib
from PIL import Image
import PIL.JpegImagePlugin, PIL.PngImagePlugin, PIL.WebPImagePlugin
from widehem.core.output.photo import PhotoError, small_photo

def png(wide, high):
    chunk = lambda kind, data: struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
    pack = zlib.compressobj(9)
    rows = b"".join(pack.compress(bytes(1 + wide * 4)) for _ in range(min(high, 3000))) + pack.flush()
    head = struct.pack(">IIBBBBB", wide, high, 8, 6, 0, 0, 0)
    return bytes.fromhex("89504e470d0a1a0a") + chunk(b"IHDR", head) + chunk(b"IDAT", rows) + chunk(b"IEND", b"")

small_photo(png(50, 50))
now = int(open("/proc/self/statm").read().split()[0]) * resource.getpagesize()
resource.setrlimit(resource.RLIMIT_AS, (now + 220_000_000,) * 2)
for wide, high in ((40_000, 40_000), (12_000, 12_000), (11_999, 2_001), (100_000, 1)):
    data = png(wide, high)
    try:
        small_photo(data)
        print("taken", wide, high, len(data))
    except PhotoError as error:
        print("refused", error)
print("fits", len(small_photo(png(6_000, 3_999))) > 0)
"""


class Bombs(unittest.TestCase):
    def test_a_small_file_with_a_huge_picture_takes_no_room(self):
        """With 220 MB of memory and no more: what is too large is refused before it is unpacked, the largest that is taken fits."""
        done = subprocess.run([sys.executable, "-c", BOMBS], capture_output=True, text=True, check=False)
        lines = done.stdout.splitlines()
        self.assertEqual([line.split()[0] for line in lines], ["refused"] * 4 + ["fits"], done.stderr[-800:])
        self.assertIn("far too many points", lines[0])
        self.assertIn("12000 by 12000 points", lines[1])


class Health(WebCase):
    demo = False

    def test_it_tells_whether_the_house_is_well_to_whoever_asks(self):
        self.assertTrue(self.client.get("/health").get_json()["well"])
        behind = create_app(self.store, Door(password="needle and thread")).test_client()
        self.assertEqual((behind.get("/health").status_code, behind.get("/").status_code), (200, 303))
        broken = OperationalError("SELECT", {}, Exception("disk I/O error"))
        with mock.patch("sqlalchemy.orm.Session.execute", side_effect=broken):
            self.assertEqual(self.client.get("/health").status_code, 503)


if __name__ == "__main__":
    unittest.main()
