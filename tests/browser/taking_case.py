"""A browser at the tape: what is kept of a wearer can be asked."""

from tests.browser.case import BrowserCase
from widehem.store.charts import core_chart, latest_chart


class TakingCase(BrowserCase):
    def chart(self, wearer, store=None):
        with (store or self.store).read() as session:
            return core_chart(session, latest_chart(session, wearer))

    def looked(self):
        """Wait until the doubts have been asked for and have come."""
        self.page.wait_for_timeout(300)
        self.calm()
