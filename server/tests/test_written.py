"""How often each table has been written to."""

from __future__ import annotations

import sqlite3
import threading
import time
from contextlib import closing
from unittest.mock import MagicMock

from django.contrib.auth import get_user_model
from django.db import connection

from server.common.written import TABLE, State, _States, count_writes, remembered, state_now, written_here
from server.projects.models import Project
from server.tests.committed_case import CommittedCase

PROJECTS, USERS = Project._meta.db_table, get_user_model()._meta.db_table


class Door:
    """A lock that tells how many have come to it."""

    def __init__(self) -> None:
        self.lock, self.came = threading.Lock(), 0

    def __enter__(self) -> None:
        self.came += 1
        self.lock.acquire()

    def __exit__(self, *_: object) -> None:
        self.lock.release()


class WrittenTests(CommittedCase):
    def state(self) -> State:
        state = state_now()
        assert state is not None
        return state

    def test_each_way_to_write_is_counted_for_its_table_alone(self):
        ines = get_user_model().objects.create_user("ines")
        before = self.state()
        row = Project.objects.create(owner=ines, name="Kiln")
        Project.objects.filter(pk=row.pk).update(name="Kiln house")
        Project.objects.filter(pk=row.pk).delete()
        now = self.state()
        self.assertEqual(now.written[PROJECTS] - before.written[PROJECTS], 3)
        self.assertEqual(now.of([USERS]), before.of([USERS]))
        self.assertGreater(now.number, before.number)

    def test_another_process_is_counted_and_what_it_takes_back_is_not(self):
        before = self.state()
        with closing(sqlite3.connect(str(connection.settings_dict["NAME"]))) as other:
            other.execute(
                f"INSERT INTO {USERS} (username, password, first_name, last_name, email, is_superuser, "
                "is_staff, is_active, date_joined) VALUES ('per', '', '', '', '', 0, 0, 1, '2031-01-01')"
            )
            other.rollback()
            self.assertEqual(self.state(), before)
            other.execute(f"UPDATE {TABLE} SET number = number + 5 WHERE name = '{USERS}'")
            other.commit()
        self.assertEqual(self.state().written[USERS], before.written[USERS] + 5)

    def test_all_tables_are_counted_and_one_that_was_made_anew_is_again(self):
        with connection.cursor() as cursor:
            tables = set(connection.introspection.table_names(cursor)) - {TABLE}
        self.assertEqual(set(self.state().written), tables)
        with connection.cursor() as cursor:
            cursor.execute(f'DROP TRIGGER "written_{PROJECTS}_insert"')
        count_writes()
        before = written_here()[PROJECTS]
        Project.objects.create(owner=get_user_model().objects.create_user("ines"), name="Kiln")
        self.assertEqual(written_here()[PROJECTS], before + 1)

    def test_nothing_is_remembered_of_a_table_that_is_not_counted(self):
        names = iter(["first", "second", "third"])
        with connection.cursor() as cursor:
            cursor.execute(f"DELETE FROM {TABLE} WHERE name = %s", [PROJECTS])
        self.addCleanup(count_writes)
        read = [remembered("name", [Project], lambda: next(names)) for _ in range(2)]
        self.assertEqual(read, ["first", "second"])

    def test_all_who_come_while_somebody_looks_share_one_look_at_what_is_there_then(self):
        database, states, told = str(connection.settings_dict["NAME"]), _States(), list[State]()
        before = states.now(database)
        looks = MagicMock(wraps=states._watching[database])
        door = Door()
        states._watching[database], states._lock = looks, door  # type: ignore[assignment]
        with door.lock:
            asking = [threading.Thread(target=lambda: told.append(states.now(database))) for _ in range(8)]
            for thread in asking:
                thread.start()
            while door.came < len(asking):
                time.sleep(0.01)
            get_user_model().objects.create_user("ines")
        for thread in asking:
            thread.join()
        asked = [call.args[0] for call in looks.execute.call_args_list]
        self.assertEqual(asked.count("PRAGMA data_version"), 1)
        self.assertEqual([state.written[USERS] for state in told], [before.written[USERS] + 1] * 8)
        self.assertEqual(states.now(database), told[0])
