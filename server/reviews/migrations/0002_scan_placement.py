"""The place of a scan has the word that the core has for it."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("reviews", "0001_initial")]
    operations = [migrations.RenameField("scan", "lies", "placement")]
