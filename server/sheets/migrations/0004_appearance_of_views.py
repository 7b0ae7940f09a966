"""A viewport without an appearance of its own follows its view."""

from typing import Any

from django.db import migrations, models


def _follow_views(apps: Any, schema_editor: Any) -> None:
    apps.get_model("sheets", "Viewport").objects.filter(appearance={}).update(appearance=None)


class Migration(migrations.Migration):
    dependencies = [("sheets", "0003_traced_shadow"), ("views", "0003_appearance")]

    operations = [
        migrations.AlterField("viewport", "appearance", models.JSONField(blank=True, default=None, null=True)),
        migrations.RunPython(_follow_views, migrations.RunPython.noop),
    ]
