"""The command line called in this process: its status and what it says."""

import contextlib
import io
import json
import tempfile
import unittest
from pathlib import Path

from widehem.cli import main


class CliCase(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.chart = self.write({"unit": "cm", "measures": {"waist": 69, "hip": 94, "waist_hip": 20.5, "waist_knee": 59}})

    def write(self, data, name="chart.json"):
        file = self.folder / name
        file.write_text(data if isinstance(data, str) else json.dumps(data))
        return str(file)

    def run_cli(self, *arguments):
        class Out(io.StringIO):
            def __init__(self):
                super().__init__()
                self.buffer = io.BytesIO()

        out, err = Out(), io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            status = main([str(a) for a in arguments])
        return status, out.getvalue() or out.buffer.getvalue(), err.getvalue()
