"""Being told of what happens in a project, and where others are."""

from __future__ import annotations

import asyncio
import json
import threading
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from typing import Any
from unittest.mock import patch

from asgiref.sync import sync_to_async
from django.contrib.auth import get_user_model
from django.contrib.sessions.models import Session
from django.http import HttpResponse
from django.test import AsyncClient, RequestFactory, SimpleTestCase

from server.config.asgi import READING, WRITING, application
from server.events import telling
from server.events.hub import MAX_OF_ONE, MAX_ROWS, Changed, Hub, Place, Stream, TooMany, hub
from server.jobs.models import Job
from server.projects.models import Membership, Project
from server.sheets.models import Sheet
from server.tests.committed_case import CommittedCase


class HubTests(SimpleTestCase):
    def told(self, stream: Stream) -> list[str]:
        return list(stream.collect().topics)

    def test_others_are_told_and_what_happens_together_is_told_once(self):
        async def scene() -> None:
            own, other, elsewhere = (
                Stream("p", "ines", "a"),
                Stream("p", "jonas", "b"),
                Stream("q", "jonas", "c"),
            )
            halls = Hub()
            for each in (own, other, elsewhere):
                halls.open(each)
            for _ in range(700):
                halls.tell("p", "sheets", "a")
            halls.tell("p", "jobs")
            self.assertEqual(self.told(own), ["jobs"])
            self.assertEqual(self.told(other), ["jobs", "sheets"])
            self.assertEqual(self.told(elsewhere), [])
            self.assertEqual(self.told(other), [])

        asyncio.run(scene())

    def test_what_others_changed_just_before_is_told_to_who_begins_to_listen(self):
        async def scene() -> None:
            halls, own, late = Hub(), Stream("p", "ines", "a"), Stream("p", "ines", "b")
            with patch("time.monotonic", return_value=100.0):
                halls.tell_row("p", Changed("sheets", "7", {}), "c")
                halls.tell("p", "views", "a")
                halls.tell("q", "templates", "c")
            with patch("time.monotonic", return_value=105.0):
                halls.open(own)
            self.assertEqual(self.told(own), ["sheets"])
            with patch("time.monotonic", return_value=130.0):
                halls.open(late)
            self.assertEqual(self.told(late), [])

        asyncio.run(scene())

    def test_rows_are_told_as_they_are_now_and_very_many_by_their_kind(self):
        async def scene() -> None:
            other, rooms = Stream("p", "jonas", "b"), Hub()
            rooms.open(other)
            for k in range(3):
                rooms.tell_row("p", Changed("sheets", "7", {"version": k}), "a")
            rooms.tell_row("p", Changed("sheets", "8", None), "b")
            self.assertEqual(other.collect().rows, (Changed("sheets", "7", {"version": 2}),))
            for k in range(2 * MAX_ROWS):
                rooms.tell_row("p", Changed("sheets", str(k), {}), "a")
            news = other.collect()
            self.assertEqual((len(news.rows), news.topics), (MAX_ROWS, ("sheets",)))

        asyncio.run(scene())

    def test_who_is_where_is_seen_by_the_others_until_they_leave(self):
        async def scene() -> None:
            own, other = Stream("p", "ines", "a"), Stream("p", "jonas", "b")
            rooms = Hub()
            rooms.open(own)
            rooms.open(other)
            own.collect()
            rooms.move("p", "jonas", "b", Place("sheets", "7", ("x",)))
            # Nobody speaks for somebody else's page.
            rooms.move("p", "ines", "b", Place("model"))
            self.assertTrue(own.collect().people)
            seen = {"tab": "b", "user": "jonas", "station": "sheets", "subject": "7", "holding": ["x"]}
            self.assertEqual(rooms.others(own), [seen])
            rooms.close(other)
            self.assertTrue(own.collect().people)
            self.assertEqual(rooms.others(own), [])

        asyncio.run(scene())

    def test_a_page_that_comes_back_takes_the_place_of_its_broken_connection(self):
        async def scene() -> None:
            first, again = Stream("p", "ines", "a"), Stream("p", "ines", "a")
            rooms, other = Hub(), Stream("p", "jonas", "a")
            rooms.open(first)
            # Somebody else's page of that name does not.
            rooms.open(other)
            self.assertFalse(first.ended)
            rooms.close(other)
            rooms.open(again)
            self.assertTrue(first.ended)
            rooms.close(first)
            self.assertEqual(rooms.projects(), ["p"])
            rooms.close(again)
            self.assertEqual(rooms.projects(), [])

        asyncio.run(scene())

    def test_one_person_does_not_take_all_that_there_is(self):
        async def scene() -> None:
            rooms = Hub()
            for k in range(MAX_OF_ONE):
                rooms.open(Stream("p", "ines", str(k)))
            with self.assertRaises(TooMany):
                rooms.open(Stream("p", "ines", "more"))
            rooms.open(Stream("p", "jonas", "b"))

        asyncio.run(scene())


class EventsTests(CommittedCase):
    def setUp(self) -> None:
        users = get_user_model().objects
        self.ines = users.create_user("ines", password="samphire-88")
        self.jonas = users.create_user("jonas", password="samphire-89")
        self.project = Project.objects.create(owner=self.ines, name="Kiln")
        self.project.members.add(self.jonas)

    async def client_of(self, user: Any) -> AsyncClient:
        client = AsyncClient()
        await client.aforce_login(user)
        return client

    @asynccontextmanager
    async def listening(self, client: AsyncClient, tab: str) -> AsyncIterator[Any]:
        """Wait for the next event of a name, and give what it says."""
        response = await client.get(f"/api/events/?project={self.project.pk}&tab={tab}")
        self.assertEqual(response.status_code, 200)
        content = response.streaming_content

        async def next_of(name: str) -> Any:
            async for chunk in content:
                for event in chunk.decode().split("\n\n"):
                    if event.startswith(f"event: {name}\n"):
                        return json.loads(event.partition("data: ")[2])
            return None

        try:
            yield lambda name: asyncio.wait_for(next_of(name), 20)
        finally:
            await content.aclose()

    def scene(self, play: Any) -> None:
        asyncio.run(play())
        self.assertEqual(hub.projects(), [])

    def test_a_colleague_is_told_what_was_changed_and_the_page_itself_is_not(self):
        async def play() -> None:
            ines, jonas = await self.client_of(self.ines), await self.client_of(self.jonas)
            async with self.listening(jonas, "b") as next_of_b, self.listening(ines, "a") as next_of_a:
                await next_of_b("people")
                await next_of_a("people")
                body = {"project": str(self.project.pk), "number": "A-01", "title": "Plan", "paper": "A3"}
                made = await ines.post(
                    "/api/sheets/", body, content_type="application/json", headers={"X-Dunefold-Tab": "a"}
                )
                self.assertEqual(made.status_code, 201, made.content)
                (told,) = (await next_of_b("rows"))["rows"]
                self.assertEqual((told["topic"], told["row"]), ("sheets", made.json()))
                # The first that its own page hears of is what somebody else does.
                path = f"/api/sheets/{made.json()['id']}/?version=1"
                gone = await jonas.delete(path, headers={"X-Dunefold-Tab": "b"})
                self.assertEqual(gone.status_code, 204, gone.content)
                (told,) = (await next_of_a("rows"))["rows"]
                self.assertEqual(told, {"topic": "sheets", "id": made.json()["id"], "row": None})

        self.scene(play)

    def test_what_has_no_row_of_its_own_to_tell_is_told_by_its_kind(self):
        async def play() -> None:
            ines, jonas = await self.client_of(self.ines), await self.client_of(self.jonas)
            async with self.listening(jonas, "b") as next_of:
                await next_of("people")
                said = {"content_type": "application/json"}
                made = await ines.post("/api/sheets/", {"project": str(self.project.pk)}, **said)
                (told,) = (await next_of("rows"))["rows"]
                self.assertEqual(told["row"]["version"], made.json()["version"])
                renamed = {"name": "Kiln house", "version": 1}
                answer = await ines.patch(f"/api/projects/{self.project.pk}/", renamed, **said)
                self.assertEqual(answer.status_code, 200, answer.content)
                topics: list[str] = []
                while "projects" not in topics:
                    topics = (await next_of("changed"))["topics"]

        self.scene(play)

    def test_what_is_rolled_back_is_not_told(self):
        async def play() -> None:
            ines, jonas = await self.client_of(self.ines), await self.client_of(self.jonas)
            async with self.listening(jonas, "b") as next_of:
                await next_of("people")
                sheet = {"rows": "sheets", "version": 0, "row": {"project": str(self.project.pk)}}
                steps = [
                    {**sheet, "id": "11111111-1111-4111-8111-111111111111"},
                    {**sheet, "id": "22222222-2222-4222-8222-222222222222", "row": {"paper": "none such"}},
                ]
                refused = await ines.post("/api/changes/", {"steps": steps}, content_type="application/json")
                self.assertEqual(refused.status_code, 400)
                stream = next(iter(hub._streams[str(self.project.pk)].values()))
                news = stream.collect()
                self.assertEqual((news.rows, news.topics), ((), ()))

        self.scene(play)

    def test_a_job_of_another_process_is_told(self):
        # A connection of this thread is to the worker's what the worker is to the web.
        async def play() -> None:
            jonas = await self.client_of(self.jonas)
            async with self.listening(jonas, "b") as next_of:
                await next_of("people")
                await asyncio.sleep(2 * telling.LOOK_EVERY)
                await Job.objects.acreate(project=self.project, kind=Job.Kind.DRAW, about="Plan")
                (told,) = (await next_of("rows"))["rows"]
                self.assertEqual((told["topic"], told["row"]["about"]), ("jobs", "Plan"))

        self.scene(play)

    def test_where_somebody_is_is_told_to_the_others(self):
        async def play() -> None:
            ines, jonas = await self.client_of(self.ines), await self.client_of(self.jonas)
            sheet = await Sheet.objects.acreate(project=self.project, number="A-01", position=1)
            async with self.listening(jonas, "b") as next_of, self.listening(ines, "a") as next_of_a:
                await next_of_a("people")
                place = {
                    "project": str(self.project.pk),
                    "tab": "a",
                    "station": "sheets",
                    "subject": str(sheet.pk),
                    "holding": [str(sheet.pk)],
                }
                said = await ines.post("/api/places/", place, content_type="application/json")
                self.assertEqual(said.status_code, 204, said.content)
                seen: list[dict[str, Any]] = []
                while not seen or not seen[0]["station"]:
                    seen = (await next_of("people"))["others"]
                self.assertEqual((seen[0]["user"], seen[0]["subject"]), ("ines", str(sheet.pk)))

        self.scene(play)

    def test_who_is_put_out_is_told_nothing_more(self):
        """Whatever puts them out: their sign-out, the owner, or whoever administers the installation."""

        def sign_out() -> None:
            Session.objects.all().delete()

        def unshare() -> None:
            Membership.objects.all().delete()

        def shut_out() -> None:
            type(self.jonas).objects.filter(pk=self.jonas.pk).update(is_active=False)

        for put_out in (unshare, sign_out, shut_out):

            async def play(put_out: Any = put_out) -> None:
                jonas = await self.client_of(self.jonas)
                async with self.listening(jonas, "b") as next_of:
                    await next_of("people")
                    await sync_to_async(put_out)()
                    await Sheet.objects.acreate(project=self.project, number=put_out.__name__, position=7)
                    self.assertIsNone(await next_of("changed"))

            with self.subTest(put_out.__name__):
                type(self.jonas).objects.update(is_active=True)
                Membership.objects.get_or_create(project=self.project, user=self.jonas)
                self.scene(play)

    def test_nobody_else_is_told_anything(self):
        async def play() -> None:
            stranger = await get_user_model().objects.acreate_user("mira", password="samphire-90")
            client = await self.client_of(stranger)
            path = f"/api/events/?project={self.project.pk}&tab=c"
            self.assertEqual((await client.get(path)).status_code, 404)
            self.assertEqual((await AsyncClient().get(path)).status_code, 403)
            ines = await self.client_of(self.ines)
            for query in (
                "project=7&tab=a",
                f"project={self.project.pk}",
                f"project={self.project.pk}&tab={'a' * 99}",
            ):
                self.assertEqual((await ines.get(f"/api/events/?{query}")).status_code, 400)

        self.scene(play)


class ResponsesTests(SimpleTestCase):
    def most_at_once(self, request: Any, expected: int) -> int:
        """How many are answered at once of three times as many as are expected."""
        at_work, most, gate = 0, 0, threading.Event()
        count = threading.Lock()

        def answer(request: Any) -> HttpResponse:
            nonlocal at_work, most
            with count:
                at_work += 1
                most = max(most, at_work)
            gate.wait(10)
            with count:
                at_work -= 1
            return HttpResponse()

        async def ask() -> None:
            asked = [
                asyncio.ensure_future(application.run_get_response(request)) for _ in range(3 * expected)
            ]
            async with asyncio.timeout(20):
                while most < expected:
                    await asyncio.sleep(0.01)
            gate.set()
            await asyncio.gather(*asked)

        with patch.object(application, "get_response", answer):
            asyncio.run(ask())
        return most

    def test_a_few_requests_are_answered_at_once_and_the_others_wait(self):
        self.assertEqual(self.most_at_once(RequestFactory().get("/"), READING), READING)

    def test_fewer_are_that_write(self):
        written = RequestFactory().post("/", content_type="application/json")
        self.assertEqual(self.most_at_once(written, WRITING), WRITING)
