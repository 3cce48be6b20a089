"""A garment of the demo that is made."""

from sqlalchemy import select

from tests.web.case import WebCase
from widehem.jobs.laying import works_of as _  # noqa: F401 - the job is known
from widehem.store.models import Docket, Event, Wearer


class Making(WebCase):
    def docket(self, name, wearer=None):
        with self.store.read() as session:
            query = select(Docket).join(Wearer, Docket.wearer_id == Wearer.id).where(Docket.name == name)
            return session.scalars(query.where(Wearer.name == wearer) if wearer else query).first()

    def row(self, model, **values):
        with self.store.read() as session:
            return session.scalars(select(model).filter_by(**values)).first()

    def undo(self):
        with self.store.read() as session:
            last = session.scalars(select(Event).order_by(Event.id.desc())).first().id
        self.post(f"/done/{last}/undo")
