"""The demo project: the observatory with its views and sheets, for the user `demo`. Loaded once; run again,
it stays.

python -m demo.project
"""

from __future__ import annotations

import tempfile
import time
from dataclasses import replace
from pathlib import Path

from django.contrib.auth import get_user_model
from django.contrib.auth.models import AbstractBaseUser
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction

from demo.annotation import annotate
from demo.presentation import appearance_of
from demo.review import review, say
from drafting.geometry.regions import Rectangle
from drafting.issuing.recipients import Recipient
from drafting.plotting.settings import PlotSettings as PlotSettingsSpec
from drafting.schema import dump
from drafting.sheets.scale import Scale
from drafting.sheets.template import Part
from drafting.sheets.template_presets import TEMPLATE_PRESETS
from drafting.touchup.simplification import Simplification
from drafting.views.axonometric import Axonometric
from drafting.views.detail import Detail
from drafting.views.perspective import Perspective
from drafting.views.plan import Plan
from drafting.views.received import Received
from drafting.views.section import Section
from drafting.views.spec import AnyView, dump_view
from server.buildings.services import import_model
from server.checks.models import CheckRun, Waiver
from server.checks.services import order_check
from server.issues.issuing import order_issue
from server.issues.models import Recipient as RecipientRow
from server.jobs.models import Job
from server.jobs.queue import work_off
from server.plots.models import SheetList
from server.projects.models import Project
from server.sheets.models import Sheet, Template, Viewport
from server.sheets.services import register_of
from server.sheets.shadow_areas import order_light
from server.sheets.templates import add_picture
from server.styles.models import PlotSettings
from server.views.drawings import order_all_out_of_date, order_drawing
from server.views.models import ReceivedFile, View
from server.views.received import receive

USER, PASSWORD = "demo", "sanderling-26"

#: Views beside the plain ones that every model gets.
MORE_VIEWS: dict[str, AnyView] = {
    "Axonometric from the south-east": Axonometric("se"),
    "Section A–A": Section(((-9500.0, 3300.0), (17500.0, 3300.0))),
    "Section B–B": Section(((6000.0, -8500.0), (6000.0, 12500.0))),
    "Arriving from the ramp": Perspective(
        eye=(22000.0, -18000.0, 5000.0), target=(4000.0, 3000.0, 3000.0), angle=50.0
    ),
    "Wall at the tower": Detail(Plan("Ground floor"), Rectangle((-650.0, -400.0), (2500.0, 2600.0))),
}

#: Lines that views show beside the usual ones.
MORE_LINES = {
    **{f"{side} elevation": {"opening_windows": True} for side in ("South", "North", "West", "East")},
    "Plan, Upper floor": {"outline_above": True},
    "Plan, Lookout": {"outline_above": True},
    "Roof plan": {"contours": 250.0},
}

#: The surveyor's drawing, which lies under the roof plan.
SURVEY = "Survey of the site"
#: This one stays at the first version of the building, as it was agreed with the builder.
HELD = "Wall at the tower"

#: Sheets: number, title, supplementary title, paper, and viewports as (view, scale, lower left corner on
#: paper, window in the view's u and v as least u, least v, greatest u, greatest v).
SHEETS = (
    (
        "A-01", "Ground floor", "Plan, elevation, axonometric", "A2",
        (
            ("Plan, Ground floor", "1:75", (84, 206), (-5200, -4000, 17200, 8000)),
            ("South elevation", "1:200", (452, 300), (-6000, -1500, 17400, 12000)),
            ("Axonometric from the south-east", "1:200", (60, 36), (-4600, -9400, 16000, 12400)),
        ),
    ),
    (
        "A-02", "Upper floor and lookout", "Plans", "A2",
        (
            ("Plan, Upper floor", "1:75", (84, 200), (-5200, -3400, 18000, 8600)),
            ("Plan, Lookout", "1:75", (452, 252), (-5200, -1600, 3400, 8600)),
            (SURVEY, "1:200", (352, 106), (-17000, -10400, 19000, 10600)),
            ("Roof plan", "1:200", (352, 106), (-17000, -10400, 19000, 10600)),
        ),
    ),
    (
        "A-03", "Elevations", "All sides", "A2",
        (
            ("South elevation", "1:100", (60, 256), (-6000, -1500, 17400, 12000)),
            ("North elevation", "1:100", (316, 256), (-19000, -1500, 6000, 12000)),
            ("West elevation", "1:100", (60, 70), (-8800, -1500, 3800, 12000)),
            ("East elevation", "1:100", (236, 70), (-5600, -1500, 8800, 12000)),
        ),
    ),
    (
        "A-04", "Sections", "Sections, schedules", "A2",
        (
            ("Section A–A", "1:75", (52, 180), (-5600, -2400, 17000, 12200)),
            ("Section B–B", "1:75", (388, 180), (-4200, -2400, 8600, 12200)),
        ),
    ),
    (
        "A-05", "Arriving, and the wall", "Perspective, elevation, detail", "A3",
        (
            ("Arriving from the ramp", "1:150", (32, 130), (-12900, -9600, 12900, 7800)),
            ("South elevation", "1:200", (32, 40), (-6000, -1500, 17400, 12000)),
            ("Wall at the tower", "1:25", (214, 146), (-650, -400, 2500, 2600)),
        ),
    ),
)  # fmt: skip


REVISIONS = [
    {"revision": "P01", "date": "2026-03-02", "description": "First issue for comment", "initials": "I. M."},
    {
        "revision": "P02",
        "date": "2026-03-16",
        "description": "Ramp and deck lowered by one step",
        "initials": "I. M.",
    },
]
LOGO = Path(__file__).parent / "logo.svg"
#: The upper left corner of the list of drawings on the first sheet, mm, and how many issues it shows.
COVER = {"x": 378, "y": 150, "issues": 4}
#: Small drawings that are no place for marks and levels, by their sheet.
QUIET = {
    ("A-01", "South elevation"),
    ("A-02", "Plan, Lookout"),
    ("A-02", "Roof plan"),
    ("A-05", "South elevation"),
}
#: A template of the office's own: the strip that is built in, with a line of fixed text. The last sheet has
#: it, and there one field is overridden.
STRIP = TEMPLATE_PRESETS["strip-right"][1]
OWN_TEMPLATE = replace(
    STRIP,
    parts=(
        *STRIP.parts,
        Part(
            "text",
            6,
            4,
            96,
            10,
            across="left",
            words="For comment, not for construction",
            size=3.5,
            colour="#9c3f24",
        ),
    ),
)
OVERRIDES = {"scale": "1:25, 1:200, perspective"}
#: Plot settings of the office's own, and a list of sheets that are plotted together, by their numbers.
SITE_SET = PlotSettingsSpec(device="office", paper="A3", reduction="paper", colours="black")
BUILDER = ("For the builder", ("A-01", "A-03", "A-04"))
#: Whom the set is sent to, each with what they need; and the issue before the building was changed.
RECIPIENTS = (
    Recipient(
        "Ada Ternwick",
        "Ternhaven Bird Society",
        "ada@birds.example",
        one_file=True,
        annotation=False,
        delivery="link",
        days=60,
    ),
    Recipient(
        "Jo Marramby",
        "Marramby Joiners",
        "jo@joiners.example",
        ("pdf", "dxf"),
        one_file=False,
        colours="black",
        onto="A3",
        fills=False,
    ),
    Recipient(
        "Kit Fennock", "Fennock and Rye, engineers", "kit@rye.example", ("dxf", "model"), delivery="mail"
    ),
)
ISSUE = {"name": "First issue, for comment", "purpose": "Comment", "date": "2026-03-02", "reason": ""}
#: What a check finds that is meant as it is: by its rule and its subject, why.
WAIVED = {
    ("cropped-through", ""): "Deck and ramp are on A-01",
    ("drawings-held", ""): "As it was agreed with the builder",
    ("unlike-in-series", "template"): "A sheet for the exhibition",
}
#: Views that are simplified where they are small.
SIMPLIFIED = ("Roof plan",)
#: The style of drawing titles, by the kind of view.
TITLES = {"received": "none", "plan": "north", "roof": "north", "elevation": "bar", "section": "bar"}


def load() -> bool:
    """Load the demo project if it is not there. Says whether it was loaded."""
    users = get_user_model()
    user, made = users.objects.get_or_create(username=USER)
    if made:
        user.set_password(PASSWORD)
        user.save()
    if Project.objects.filter(owner=user, number="2607").exists():
        return False
    project = Project.objects.create(
        owner=user,
        name="Bird observatory",
        number="2607",
        client="Ternhaven Bird Society",
        site="North head, Ternhaven",
        practice="Sandreed Drawing Office",
    )
    try:
        register = register_of(project)
        register.number_pattern = "{discipline}-{n:02}"
        register.logo = add_picture(project, "Sandreed.svg", LOGO.read_bytes())
        register.save()
        _import(project, user)
        _survey(project)
        with transaction.atomic():
            _more_views(project)
            _sheets(project)
            _plotting(project)
        finish_jobs(project)
        with transaction.atomic():
            annotate(project)
        issue(project, user)
        review(project, user)
        finish_jobs(project)
        Sheet.objects.filter(project=project).update(revisions=REVISIONS)
        with transaction.atomic():
            say(project, user)
        View.objects.filter(project=project, name=HELD).update(held=True)
        _import(project, user, revised=True)
        order_all_out_of_date(project)
        finish_jobs(project)
        order_check(project)
        finish_jobs(project)
        let_stand(project, user)
    except BaseException:
        project.delete()
        raise
    return True


def issue(project: Project, user: AbstractBaseUser) -> None:
    """The set as it left the office before the building was changed."""
    rows = [
        RecipientRow.objects.create(project=project, position=k, spec=dump(spec))
        for k, spec in enumerate(RECIPIENTS)
    ]
    order = order_issue(project, user, ISSUE, list(Sheet.objects.filter(project=project)), rows)
    finish_jobs(project)
    order.job.refresh_from_db()
    if order.job.state != Job.State.DONE:
        raise SystemExit(f"The demo set could not be issued: {order.job.message}")


def let_stand(project: Project, user: AbstractBaseUser) -> None:
    """What was found and is meant as it is, with the reason; two findings are left to be looked into."""
    for finding in CheckRun.objects.get(project=project).findings:
        reason = WAIVED.get((finding["rule"], finding["subject"])) or WAIVED.get((finding["rule"], ""))
        if reason:
            Waiver.objects.create(
                project=project, finding=finding["key"], words=finding["words"], reason=reason, by=user
            )


def _import(project: Project, user: AbstractBaseUser, *, revised: bool = False) -> None:
    from demo.building import (
        write_observatory,
    )  # a large library, wanted only when there is something to load

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / ("observatory-b.ifc" if revised else "observatory.ifc")
        write_observatory(str(path), revised=revised)
        job = import_model(project, SimpleUploadedFile(path.name, path.read_bytes()), user)
    finish_jobs(project)
    job.refresh_from_db()
    if job.state != Job.State.DONE:
        raise SystemExit(f"The demo building could not be read: {job.message}")


def finish_jobs(project: Project) -> None:
    """Do what is in the queue, here and now, and wait for what another worker has taken out of it."""
    work_off()
    while Job.objects.filter(project=project, state__in=Job.ACTIVE).exists():
        time.sleep(0.1)


def _more_views(project: Project) -> None:
    for k, (name, spec) in enumerate(MORE_VIEWS.items()):
        order_drawing(View.objects.create(project=project, name=name, spec=dump_view(spec), position=50 + k))
    for view in View.objects.filter(project=project, name__in=MORE_LINES):
        view.spec = view.spec | {"line_settings": MORE_LINES[view.name]}
        view.save()
        order_drawing(view)


def _survey(project: Project) -> None:
    """What the surveyor has sent, as a view of its own: its zero is that of the building."""
    from demo.survey import ZERO, survey  # another library that is wanted only here

    job = receive(project, SimpleUploadedFile("North head.dxf", survey()))
    finish_jobs(project)
    file = ReceivedFile.objects.get(job=job.pk)
    spec = Received(file=file.file, name=file.name, mm=file.facts["mm"], origin=ZERO)
    order_drawing(View.objects.create(project=project, name=SURVEY, spec=dump_view(spec), position=90))


def _plotting(project: Project) -> None:
    name, numbers = BUILDER
    PlotSettings.objects.create(project=project, name="Site set, A3 reduced", spec=dump(SITE_SET))
    chosen = SheetList.objects.create(project=project, name=name)
    chosen.sheets.set(Sheet.objects.filter(project=project, number__in=numbers))


def _sheets(project: Project) -> None:
    for view in View.objects.filter(project=project, name__in=SIMPLIFIED):
        view.simplification = dump(Simplification())
        view.save()
    views = {view.name: view for view in View.objects.filter(project=project)}
    own = Template.objects.create(project=project, name="Own strip", spec=dump(OWN_TEMPLATE))
    last = len(SHEETS) - 1
    for position, (number, title, supplement, paper, viewports) in enumerate(SHEETS):
        sheet = Sheet.objects.create(
            project=project,
            position=position,
            number=number,
            title=title,
            supplementary_title=supplement,
            paper=paper,
            revisions=REVISIONS[:1],
            creator="I. Marram",
            drawn_on="2026-03-02",
            checker="P. Samphire",
            checked_on="2026-03-13",
            approver="T. Dunlin",
            approved_on="2026-03-16",
            purpose="Comment",
            **({"template": own, "overrides": OVERRIDES} if position == last else {}),
            document_type="Drawing",
            status="For comment",
            drawing_list=COVER if position == 0 else None,
        )
        for k, (view, scale, corner, (u0, v0, u1, v1)) in enumerate(viewports):
            ratio = float(Scale.parse(scale).ratio)
            viewport = Viewport(
                sheet=sheet,
                view=views[view],
                position=k,
                x=corner[0],
                y=corner[1],
                width=(u1 - u0) * ratio,
                height=(v1 - v0) * ratio,
                centre_u=(u0 + u1) / 2,
                centre_v=(v0 + v1) / 2,
                marks=(number, view) not in QUIET,
                levels=(number, view) not in QUIET,
                grid=(number, view) not in QUIET and views[view].spec["kind"] != "detail",
                title_style=TITLES.get(views[view].spec["kind"], "plain"),
                appearance=dump(appearance_of(number, view)),
            )
            viewport.scale = Scale.parse(scale)
            viewport.save()
            order_light(viewport)
