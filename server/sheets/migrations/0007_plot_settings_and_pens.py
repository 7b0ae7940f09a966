from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('sheets', '0006_templates_and_revisions'),
    ]

    operations = [
        # What ships is called as the devices were.
        migrations.RenameField('sheet', 'device', 'plot_settings'),
        migrations.AlterField('sheet', 'plot_settings', models.CharField(default='file', max_length=36)),
        migrations.AddField('sheet', 'pen_table', models.CharField(blank=True, default='', max_length=36)),
        migrations.AddField('viewport', 'pen_table', models.CharField(blank=True, default='', max_length=36)),
    ]
