"""Linework gets its axes as a column, so that nobody has to open its file for them."""

import gzip
import json

from django.db import migrations, models

from server.config import storage


def read_axes(apps, schema_editor):
    for linework in apps.get_model("views", "Linework").objects.iterator():
        view = json.loads(gzip.decompress(storage.path_of(linework.file).read_bytes()))["view"]
        linework.axes = {name: view[name] for name in ("right", "up", "origin")}
        linework.save(update_fields=["axes"])


class Migration(migrations.Migration):
    dependencies = [
        ("views", "0004_namedtreatment"),
    ]

    operations = [
        migrations.AddField(
            model_name="linework",
            name="axes",
            field=models.JSONField(default=dict),
        ),
        migrations.RunPython(read_axes, migrations.RunPython.noop),
    ]
