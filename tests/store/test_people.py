"""People: guests, accounts, browsers, recovery codes, and waiting against guessing."""

import unittest
import unittest.mock
from datetime import timedelta

from hypothesis import given, settings
from hypothesis import strategies as some
from sqlalchemy import func, select, update

from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.store import attempts, people, sheets
from axispath.store.attempts import Wait
from axispath.store.models import Account, Attempt, RecoveryCode, SignIn
from axispath.store.people import Wrong
from tests.passphrases import USUAL
from tests.store.shelved import Shelved

WORDS = "four small boats out"


class People(Shelved):
    def registered(self, name="Ada of the Quay", words=WORDS):
        person = self.do(people.new_person)
        return person, self.do(people.register, person, name, words)

    def entered(self, name, words, guest=None):
        found = self.do(lambda s: people.attempted(lambda: people.let_in(s, name, words, guest)))
        if isinstance(found, Wrong):
            raise found
        return found

    def wait_over(self, over=True):
        """The time to wait is over, or far from over."""
        until = func.now() + timedelta(days=-1 if over else 1)
        self.do(lambda s: s.execute(update(Attempt).values(until=until)))

    def test_passphrases_are_hashed_as_is_recommended(self):
        # RFC 9106, section 4: the second recommended option.
        self.assertIn("$argon2id$v=19$m=65536,t=3,p=4$", USUAL.hash("four small boats out"))

    def test_nothing_secret_is_stored_as_it_is(self):
        person, codes = self.registered()
        key = self.do(people.sign_in, person, "a browser")
        self.assertEqual(len(set(codes)), people.CODES)
        with self.store.transaction() as session:
            stored = session.get(Account, person).passphrase
            digests = set(session.scalars(select(RecoveryCode.code)))
            keys = set(session.scalars(select(SignIn.key)))
        self.assertTrue(stored.startswith("$argon2id$"))
        self.assertNotIn(WORDS, stored)
        self.assertFalse(digests & set(codes))
        self.assertNotIn(key, keys)

    def test_a_name_that_is_not_known_takes_as_much_as_one_that_is(self):
        self.registered()
        asked = []

        class Counting:
            hash = people._hasher.hash

            def verify_and_update(self, words, known):
                asked.append(known.split("$")[1:4])
                return False, None

        with unittest.mock.patch.object(people, "_hasher", Counting()):
            for k in range(200):
                name = "Ada of the Quay" if k % 2 else f"Nobody {k}"
                self.do(
                    lambda s, name=name, k=k: people.attempted(
                        lambda: people.let_in(s, name, "a wrong one", None, f"at {name} {k}")
                    )
                )
        # Each is compared once, with a hash of the same kind and cost: nothing else takes time.
        self.assertEqual(len(asked), 200)
        self.assertEqual(len({tuple(one) for one in asked}), 1)
        self.assertEqual(asked[0][0], "argon2id")

    def test_names_that_look_alike_are_one(self):
        person, _ = self.registered("Ada  of the Quay")
        for name in ("ada of the quay", "ADA OF THE QUAY ", "Ada of the Quay"):
            self.assertEqual(self.entered(name, WORDS), person)
            with self.assertRaisesRegex(EditRefused, "taken"):
                self.registered(name)

    def test_what_cannot_be_a_name_or_a_passphrase(self):
        for name, words in (
            ("A", WORDS),
            ("x" * 61, WORDS),
            ("a\u202eb", WORDS),
            ("Bea", "short"),
            ("Bea", "x" * 201),
            ("Bea", "aaaaaaaaaaaa"),
            ("Bea of the North", "bea of the north"),
        ):
            with self.subTest(name), self.assertRaises(EditRefused):
                self.registered(name, words)

    def test_unknown_names_are_answered_and_made_to_wait_alike(self):
        self.registered()
        told = {}
        for name in ("Ada of the Quay", "Nobody at all"):
            heard = []
            for _ in range(attempts.FREE + 1):
                try:
                    self.entered(name, "a wrong one, sorry")
                except EditRefused as refused:
                    heard.append((type(refused), str(refused)))
                    if len(heard) == attempts.FREE:
                        self.wait_over(False)
            told[name] = heard
        one, other = told.values()
        self.assertEqual(one, other)
        self.assertEqual([kind for kind, _ in one], [Wrong] * attempts.FREE + [Wait])
        # The right one is not looked at before the time is over, and then lets in.
        with self.assertRaises(Wait):
            self.entered("Ada of the Quay", WORDS)
        self.wait_over()
        self.entered("Ada of the Quay", WORDS)
        with self.assertRaises(Wrong):
            self.entered("Ada of the Quay", "a wrong one, sorry")

    def test_waits_grow_and_have_an_end(self):
        self.registered()
        waits = []
        for _ in range(16):
            self.wait_over()
            with self.assertRaises(Wrong):
                self.entered("Ada of the Quay", "a wrong one, sorry")
            left = self.do(lambda s: s.execute(select(Attempt.until, Attempt.last)).one())
            waits.append((left[0] - left[1]).total_seconds())
        self.assertEqual(waits, sorted(waits))
        self.assertLessEqual(waits[-1], attempts.LONGEST_WAIT.total_seconds())
        self.assertGreater(waits[-1], 600)

    def test_a_guests_sheets_come_along_and_those_of_an_account_do_not(self):
        owner, _ = self.registered()
        guest = self.do(people.new_person)
        sheet = self.do(sheets.create, guest, Document())
        self.entered("Ada of the Quay", WORDS, guest)
        self.assertEqual([s.id for s in self.do(sheets.shelf, owner)], [sheet.id])
        other, _ = self.registered("Bea", "six slow herons stand")
        theirs = self.do(sheets.create, other, Document())
        self.entered("Ada of the Quay", WORDS, other)
        self.assertEqual([s.id for s in self.do(sheets.shelf, other)], [theirs.id])

    def test_browsers_are_signed_out_one_by_one_and_all_at_once(self):
        person, _ = self.registered()
        keys = [self.do(people.sign_in, person, f"browser {k}") for k in range(3)]

        def good():
            return [self.do(people.is_signed_in, person, key) for key in keys]

        self.assertEqual(good(), [True, True, True])
        listed = self.do(people.browsers, person, keys[2])
        self.assertEqual([b.called for b in listed], ["browser 2", "browser 1", "browser 0"])
        self.assertEqual([b.here for b in listed], [True, False, False])
        self.do(people.sign_out_one, person, listed[1].number)
        self.assertEqual(good(), [True, False, True])
        stranger, _ = self.registered("Bea", "six slow herons stand")
        self.do(people.sign_out_one, stranger, listed[0].number)
        self.assertEqual(good(), [True, False, True])
        self.do(people.sign_out_others, person, keys[2])
        self.assertEqual(good(), [False, False, True])
        for _ in range(people.MOST_BROWSERS + 3):
            self.do(people.sign_in, person, "many")
        count = len(self.do(people.browsers, person, ""))
        self.assertLessEqual(count, people.MOST_BROWSERS)

    def test_another_passphrase_signs_the_others_out(self):
        person, _ = self.registered()
        here, there = (self.do(people.sign_in, person, "x") for _ in range(2))
        self.do(people.change_passphrase, person, here, WORDS, "nine nets to mend")
        self.assertTrue(self.do(people.is_signed_in, person, here))
        self.assertFalse(self.do(people.is_signed_in, person, there))
        with self.assertRaises(Wrong):
            self.entered("Ada of the Quay", WORDS)
        self.entered("Ada of the Quay", "nine nets to mend")

    def test_a_code_lets_in_once_and_signs_all_browsers_out(self):
        person, codes = self.registered()
        key = self.do(people.sign_in, person, "x")

        def by_code(code, name="Ada of the Quay"):
            return self.do(
                lambda s: people.attempted(
                    lambda: people.let_in_by_code(s, name, code, "nine nets to mend", None)
                )
            )

        self.assertIsInstance(by_code("0000-0000-0000-0000"), Wrong)
        self.assertIsInstance(by_code(codes[0], "Nobody"), Wrong)
        self.assertEqual(by_code(codes[0].upper().replace("-", " ")), person)
        self.assertFalse(self.do(people.is_signed_in, person, key))
        self.assertIsInstance(by_code(codes[0]), Wrong)
        self.entered("Ada of the Quay", "nine nets to mend")
        fresh = self.do(people.new_codes, person)
        self.assertIsInstance(by_code(codes[1]), Wrong)
        self.assertEqual(by_code(fresh[0]), person)

    def test_an_account_goes_with_all_it_holds(self):
        person, _ = self.registered()
        sheet = self.do(sheets.create, person, Document())
        with self.assertRaises(Wrong):
            self.do(people.remove, person, "not the one, no")
        self.do(people.remove, person, WORDS)
        with self.assertRaises(sheets.NotFound):
            self.do(sheets.open_sheet, person, sheet.id)
        with self.assertRaisesRegex(EditRefused, "deleted in another window"):
            self.do(people.confirm, person, WORDS)
        self.registered()  # the name is free again

    def test_cookies_of_before_get_a_key_once(self):
        person = self.do(people.new_person)
        self.assertFalse(self.do(people.is_signed_in, person, ""))
        self.do(
            lambda s: s.execute(
                update(people.Person).where(people.Person.id == person).values(unkeyed=True)
            )
        )
        self.assertTrue(self.do(people.is_signed_in, person, ""))
        key = self.do(people.keyed, person, "x")
        self.assertTrue(self.do(people.is_signed_in, person, key))
        self.assertFalse(self.do(people.is_signed_in, person, ""))
        self.assertIsNone(self.do(people.keyed, person, "x"))

    @given(some.text(max_size=80), some.text(max_size=30))
    @settings(max_examples=25, deadline=None)
    def test_whatever_is_typed_is_answered_with_a_sentence(self, name, words):
        with self.assertRaises(EditRefused):
            self.entered(f"{name}\x00?", words)


if __name__ == "__main__":
    unittest.main()
