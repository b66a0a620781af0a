"""Sittings: names, ends, records, and what is thrown away."""

from datetime import UTC, datetime, timedelta

from sqlalchemy import select, update

from axispath.core.practice.chain import broken_at
from axispath.core.practice.marked import Marked, Verdict
from axispath.core.sheet.refused import EditRefused
from axispath.store import handouts, people, replies, seats, sittings
from axispath.store.models import Entry, Handout, Reply, Sheet, Sitting
from axispath.store.shows import Seal, Shows
from axispath.store.tidying import tidy
from tests.store.shelved import Shelved


class Sittings(Shelved):
    def setUp(self):
        super().setUp()
        self.sheet = self.start("f(x) = x")

    def give(self, begins=-1, minutes=60, **more):
        now = datetime.now(UTC)
        start = now + timedelta(minutes=begins)
        seal = Seal(begins=start, ends=start + timedelta(minutes=minutes), **more)
        shows = Shows(seal=seal)
        return self.do(handouts.give, self.person, self.sheet.id, shows, True)

    def enter(self, token, name="Ada", word="", person=None):
        person = person or self.do(people.new_person)
        sitting, found = self.do(sittings.enter, person, token, name, word)
        return person, sitting.id, found

    def end(self, token, minutes):
        """Let the session have ended some minutes ago."""
        with self.store.transaction() as session:
            handout = session.get_one(Handout, token)
            shows = Shows.model_validate(handout.shows)
            ends = datetime.now(UTC) - timedelta(minutes=minutes)
            seal = shows.seal.model_copy(update={"ends": ends})
            handout.shows = shows.model_copy(update={"seal": seal}).model_dump(mode="json")
        return ends

    def kinds(self, sitting):
        with self.store.transaction() as session:
            return [e.kind for e in seats.record_of(session, session.get_one(Sitting, sitting))]

    def test_names_are_told_apart_cleaned_and_limited(self):
        token = self.give()
        names = []
        for name in ("Ada", "  Ada ", "Ada\u200b", "x" * 60, "x" * 60):
            _, sitting, _ = self.enter(token, name)
            with self.store.transaction() as session:
                names.append(session.get_one(Sitting, sitting).name)
        self.assertEqual(names[:3], ["Ada", "Ada (2)", "Ada (3)"])
        self.assertEqual(len(set(names)), 5)
        self.assertTrue(all(len(name) <= 60 for name in names))
        for wrong in ("", "\u200b", "x" * 61):
            with self.assertRaises(EditRefused):
                self.enter(token, wrong)

    def test_who_enters_again_goes_on_with_the_same_sheet(self):
        token = self.give(word="tide")
        person, first, found = self.enter(token, word="TIDE ")
        _, again, same = self.enter(token, "Somebody else", "", person)
        self.assertEqual((first, found.id), (again, same.id))

    def test_nobody_enters_before_the_beginning_or_after_the_end(self):
        for begins, minutes in ((10, 30), (-40, 30)):
            with self.assertRaises(EditRefused):
                self.enter(self.give(begins, minutes))

    def test_whoever_looks_after_the_end_finds_it_handed_in_at_the_end(self):
        token = self.give()
        person, sitting, _ = self.enter(token)
        ends = self.end(token, 5)
        found = self.do(sittings.reported, person, token, "left")
        self.assertFalse(found.open)
        self.assertEqual(found.ended, ends)
        with self.store.transaction() as session:
            last = seats.record_of(session, session.get_one(Sitting, sitting))[-1]
        self.assertEqual((last.kind, last.at[:19]), ("handed in", ends.isoformat()[:19]))
        self.assertEqual(self.kinds(sitting), ["entered", "handed in"])  # once, whoever looks

    def test_records_of_many_at_once_are_whole(self):
        token = self.give()
        person, sitting, _ = self.enter(token)
        for kind in ("left", "back", "lost", "found") * 5:
            self.do(sittings.reported, person, token, kind)
        with self.store.transaction() as session:
            entries = seats.record_of(session, session.get_one(Sitting, sitting))
        self.assertEqual(len(entries), 21)
        self.assertIsNone(broken_at(entries))
        with self.store.transaction() as session:
            session.execute(update(Entry).where(Entry.number == 7).values(detail="x"))
        with self.store.transaction() as session:
            entries = seats.record_of(session, session.get_one(Sitting, sitting))
        self.assertEqual(broken_at(entries), 7)
        with self.assertRaises(EditRefused):
            self.do(sittings.reported, person, token, "handed in")  # not for a page to say

    def test_a_reply_sent_twice_is_one_and_belongs_to_its_sitting(self):
        token = self.give()
        person, sitting, found = self.enter(token)
        right = Marked(Verdict.RIGHT, ("Right.",))
        for _ in range(3):
            self.do(replies.keep, person, found.id, "q1", "1", right, "ab" * 16)
        self.assertEqual(len(self.do(replies.of_handout, token)), 1)
        self.assertEqual(self.kinds(sitting), ["entered", "answered"])
        self.end(token, 1)
        with self.assertRaises(EditRefused):
            self.do(replies.keep, person, found.id, "q1", "2", right, "")

    def test_what_was_collected_goes_with_the_hand_out_and_after_thirty_days(self):
        gone, old, new = (self.give() for _ in range(3))
        sheets = [self.enter(token)[2].id for token in (gone, old, new)]
        self.do(handouts.revoke, self.person, self.sheet.id, gone)
        self.end(old, 31 * 24 * 60)
        self.end(new, 29 * 24 * 60)
        with self.store.transaction() as session:
            session.execute(update(Sheet).values(changed=datetime.now(UTC) - timedelta(days=31)))
        tidy(self.store)
        with self.store.transaction() as session:
            self.assertEqual(set(session.scalars(select(Sitting.handout))), {new})
            # What they made is theirs where the hand-out was taken back; the rest is kept as long.
            left = set(session.scalars(select(Sheet.id).where(Sheet.id.in_(sheets))))
            self.assertLessEqual({sheets[0], sheets[2]}, left)
            self.assertEqual(session.scalars(select(Reply)).all(), [])
