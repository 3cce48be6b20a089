"""The house from the command line: who may serve it, whether it is well, copies put back; and never a traceback."""

import os
import tempfile
import unittest
from pathlib import Path
from unittest import mock

from tests.cli.case import CliCase
from widehem.store.database import Store
from widehem.store.keeping import FILE


class House(CliCase):
    def setUp(self):
        super().setUp()
        self.data = self.folder / "data"
        Store(self.data).close()

    def refuses(self, words, *arguments):
        status, _, err = self.run_cli(*arguments)
        self.assertEqual(status, 2, err)
        self.assertIn(words, err)
        self.assertNotIn("Traceback", err)
        self.assertEqual(len(err.strip().splitlines()), 1, err)

    def test_beyond_this_machine_only_with_a_name_and_a_password(self):
        serve = ("serve", "--data", self.data, "--port", "0")
        with mock.patch("widehem.web.serve.serve", return_value=0) as served, mock.patch.dict(os.environ, clear=True):
            self.refuses("name the address browsers use", *serve, "--host", "0.0.0.0")
            self.refuses("give the house a password", *serve, "--host", "0.0.0.0", "--name", "workroom.example")
            self.refuses("no host name", *serve, "--host", "::", "--name", "http://workroom.example/")
            word = self.write("short", "word")
            self.refuses("8 is the least", *serve, "--host", "::", "--name", "workroom.example", "--password-file", word)
            self.refuses("cannot be read", *serve, "--password-file", self.folder / "none")
            self.refuses("is empty", *serve, "--password-file", self.write("\n", "empty"))
            self.refuses("is no port", "serve", "--data", self.data, "--port", "70000")
            self.refuses("1 to 200", *serve, "--threads", "0")
            served.assert_not_called()
            word = self.write("needle and thread\n", "word")
            self.assertEqual(self.run_cli(*serve, "--host", "::", "--name", "Workroom.example", "--password-file", word)[0], 0)
        door = served.call_args.kwargs["door"]
        self.assertIn("workroom.example", door.names)
        self.assertTrue(door.opens_for("needle and thread"))

    def test_a_house_that_is_well(self):
        status, out, _ = self.run_cli("check", "--data", self.data)
        self.assertEqual(status, 0, out)
        self.assertNotIn("look!", out)
        for words in ("is whole", "today's", "as they should be", "owner only", "0 daily copies"):
            self.assertIn(words, out)

    def test_a_house_that_is_not(self):
        self.data.chmod(0o755)
        status, out, _ = self.run_cli("check", "--data", self.data)
        self.assertEqual(status, 3)
        self.assertIn("look!  " + str(self.data) + " is open to others", out)
        (self.data / FILE).write_bytes(b"")
        status, out, _ = self.run_cli("check", "--data", self.data)
        self.assertEqual(status, 3)
        self.assertIn("is empty", out)
        self.refuses("There is no data", "check", "--data", self.folder / "none")

    def test_a_copy_is_taken_and_put_back(self):
        copy = self.folder / "copy.sqlite3"
        self.assertEqual(self.run_cli("backup", "--data", self.data, "--out", copy)[0], 0)
        self.refuses("exists already", "backup", "--data", self.data, "--out", copy)
        self.refuses("cannot be written", "backup", "--data", self.data, "--out", self.folder / "none" / "copy")
        status, out, _ = self.run_cli("restore", copy, "--data", self.data)
        self.assertEqual(status, 0)
        self.assertIn("is kept as", out)
        self.refuses("There is no file", "restore", self.folder / "none", "--data", self.data)

    def test_what_the_machine_refuses_is_a_sentence(self):
        (self.data / FILE).write_bytes(b"")
        for command in ("backup", "demo", "serve"):
            self.refuses(
                "is empty", command, "--data", self.data, *(("--out", self.folder / "out") if command == "backup" else ())
            )
        self.refuses("cannot be made", "demo", "--data", Path(self.chart) / "data")
        with (
            tempfile.TemporaryDirectory() as folder,
            mock.patch("pathlib.Path.write_bytes", side_effect=OSError(28, "No space left")),
        ):
            self.refuses("No space left", "draft", "skirt.two_panel", "--chart", self.chart, "--out", Path(folder) / "out")
        with mock.patch("widehem.store.database.Store.backup", side_effect=PermissionError(13, "Permission denied")):
            other = self.folder / "other"
            Store(other).close()
            self.refuses("Permission denied", "backup", "--data", other, "--out", self.folder / "out")


if __name__ == "__main__":
    unittest.main()
