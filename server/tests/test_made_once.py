"""Answers that are made once for everybody."""

from __future__ import annotations

import json
import sqlite3
import threading
from collections.abc import Callable
from unittest import mock

from django.contrib.auth import get_user_model
from django.db import connection, transaction
from django.test import RequestFactory

from server.common import made_once
from server.common.made_once import json_made_once, json_of_several, part_made_once
from server.projects.models import Project
from server.tests.committed_case import CommittedCase


class MadeOnceTests(CommittedCase):
    def setUp(self) -> None:
        self.made = 0
        self.meanwhile: Callable[[], object] = lambda: None
        user = get_user_model().objects.create_user("ines")
        self.project = Project.objects.create(owner=user, name="Kiln")

    def make(self) -> dict[str, str]:
        self.made += 1
        name = Project.objects.get(pk=self.project.pk).name
        self.meanwhile()
        return {"name": name}

    def ask(self, **headers: str) -> dict[str, str]:
        request = RequestFactory().get("/", headers=headers)
        return dict(json.loads(json_made_once(request, self.make).content))

    def test_it_is_made_again_once_anything_was_written(self):
        self.assertEqual([self.ask()["name"] for _ in range(3)], ["Kiln"] * 3)
        self.assertEqual(self.made, 1)
        Project.objects.update(name="Kiln house")
        self.assertEqual([self.ask()["name"] for _ in range(3)], ["Kiln house"] * 3)
        self.assertEqual(self.made, 2)

    def test_what_was_written_elsewhere_has_nothing_made_again(self):
        self.ask()
        Project.objects.create(owner=self.project.owner, name="Another")
        self.assertEqual((self.ask()["name"], self.made), ("Kiln", 1))

    def test_it_is_asked_of_no_table_that_nobody_has_written_to(self):
        self.ask()
        get_user_model().objects.create_user("per")
        with mock.patch("server.common.made_once._said_to") as asked:
            self.assertEqual(self.ask()["name"], "Kiln")
        asked.assert_not_called()

    def test_what_is_written_while_it_is_made_is_not_missed(self):
        self.meanwhile = lambda: Project.objects.update(name="Kiln house")
        self.ask()
        self.meanwhile = lambda: None
        self.assertEqual(self.ask()["name"], "Kiln house")

    def test_all_that_it_is_made_of_is_of_one_moment(self):
        def rename() -> None:
            with transaction.atomic():
                Project.objects.update(name="Kiln house")
            connection.close()

        def elsewhere() -> None:
            other = threading.Thread(target=rename)
            other.start()
            other.join(10)
            self.assertFalse(other.is_alive(), "who writes is held up")
            self.assertEqual(Project.objects.get(pk=self.project.pk).name, "Kiln")

        self.meanwhile = elsewhere
        self.assertEqual(self.ask()["name"], "Kiln")
        self.meanwhile = lambda: None
        self.assertEqual(self.ask()["name"], "Kiln house")

    def test_who_ask_at_once_are_given_one_and_the_same(self):
        gate = threading.Event()
        self.meanwhile = lambda: gate.wait(10)
        names: list[str] = []

        def ask() -> None:
            names.append(self.ask()["name"])
            connection.close()

        threads = [threading.Thread(target=ask) for _ in range(6)]
        for thread in threads:
            thread.start()
        gate.set()
        for thread in threads:
            thread.join(10)
        self.assertEqual((names, self.made), (["Kiln"] * 6, 1))

    def test_a_thread_that_has_asked_nothing_yet_is_told_what_holds(self):
        self.ask()
        Project.objects.update(name="Kiln house")
        names: list[str] = []

        def ask() -> None:
            names.append(self.ask()["name"])
            connection.close()

        other = threading.Thread(target=ask)
        other.start()
        other.join(10)
        self.assertEqual(names, ["Kiln house"])

    def test_where_it_is_not_told_what_was_written_it_is_made_each_time(self):
        fault = sqlite3.OperationalError("unable to open database file")
        request = RequestFactory().get("/")
        with mock.patch("server.common.written._States.now", side_effect=fault):
            for _ in range(2):
                answer = json_made_once(request, self.make)
                self.assertEqual(answer.data, {"name": "Kiln"})  # type: ignore[attr-defined]
        self.assertEqual(self.made, 2)

    def test_it_is_packed_for_who_can_unpack_it(self):
        request = RequestFactory().get("/", headers={"Accept-Encoding": "gzip, br"})
        packed = json_made_once(request, self.make)
        self.assertEqual(packed.headers["Content-Encoding"], "gzip")
        self.assertEqual(packed.content[:2], b"\x1f\x8b")

    def test_several_are_told_in_one_answer_and_each_is_made_once(self):
        several = {"a": (self.make,), "b": (made_names, "x", "y")}
        request = RequestFactory().get("/")
        for _ in range(2):
            answer = json.loads(json_of_several(request, several).content)
            self.assertEqual(answer, {"a": {"name": "Kiln"}, "b": ["x", "y"]})
        self.assertEqual(self.made, 1)

    def test_a_part_is_kept_for_all_that_it_is_a_part_of_and_has_all_made_again_when_it_changes(self):
        parts = 0

        def part() -> str:
            nonlocal parts
            parts += 1
            return Project.objects.get(pk=self.project.pk).name

        def whole(number: int) -> str:
            user = get_user_model().objects.get(pk=self.project.owner_id)
            return f"{number} {part_made_once(part)} {user.username}"

        def ask(number: int) -> str:
            return str(json.loads(json_made_once(RequestFactory().get("/"), whole, number).content))

        self.assertEqual([ask(1), ask(2), parts], ["1 Kiln ines", "2 Kiln ines", 1])
        get_user_model().objects.update(username="per")
        self.assertEqual([ask(1), ask(2), parts], ["1 Kiln per", "2 Kiln per", 1])
        Project.objects.update(name="Kiln house")
        self.assertEqual([ask(1), ask(2), parts], ["1 Kiln house per", "2 Kiln house per", 2])
        self.assertEqual((part_made_once(part), parts), ("Kiln house", 3))

    def test_what_was_asked_for_longest_ago_is_forgotten_where_there_is_too_much(self):
        self.ask()
        with mock.patch("server.common.made_once.MAX_BYTES", 40):
            json_made_once(RequestFactory().get("/"), made_names, "a long name", "another long name")
            self.assertEqual(len(made_once._kept), 1)
        self.ask()
        self.assertEqual(self.made, 2)


def made_names(*names: str) -> list[str]:
    return list(names)
