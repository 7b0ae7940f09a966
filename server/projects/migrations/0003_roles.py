"""Who works in a project has a role there: the table of members gets a column for it."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

ROLES = [("drafter", "Drafter"), ("checker", "Checker"), ("reader", "Reader")]


def carry_over(apps, schema_editor):
    """Whoever worked in a project goes on as a drafter."""
    project, membership = (apps.get_model("projects", name) for name in ("Project", "Membership"))
    with schema_editor.connection.cursor() as cursor:
        cursor.execute("SELECT project_id, user_id FROM projects_project_members")
        pairs = cursor.fetchall()
    convert = project._meta.pk.to_python
    membership.objects.bulk_create(
        membership(project_id=convert(one), user_id=user, role="drafter") for one, user in pairs
    )


class Migration(migrations.Migration):
    dependencies = [
        ("projects", "0002_invitations"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name="Membership",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("role", models.CharField(choices=ROLES, default="drafter", max_length=8)),
                (
                    "project",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="memberships",
                        to="projects.project",
                    ),
                ),
                (
                    "user",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="+",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
            ],
            options={
                "constraints": [
                    models.UniqueConstraint(fields=("project", "user"), name="one_role_in_a_project")
                ],
            },
        ),
        migrations.RunPython(carry_over, migrations.RunPython.noop),
        migrations.RemoveField(model_name="project", name="members"),
        migrations.AddField(
            model_name="project",
            name="members",
            field=models.ManyToManyField(
                editable=False,
                related_name="shared_projects",
                through="projects.Membership",
                to=settings.AUTH_USER_MODEL,
            ),
        ),
        migrations.AddField(
            model_name="invitation",
            name="role",
            field=models.CharField(choices=ROLES, default="drafter", max_length=8),
        ),
    ]
