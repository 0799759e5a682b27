"""The kitchen becomes a document like the rest: with a revision, who saved it, and its history."""

import django.db.models.deletion
import django.utils.timezone
from django.conf import settings
from django.db import migrations, models


def into_one(apps, schema_editor):
    KitchenRecord = apps.get_model("kitchen", "KitchenRecord")
    for record in KitchenRecord.objects.all():
        record.document = {"yours": record.yours, "ingredients": record.ingredients}
        record.save()


class Migration(migrations.Migration):
    dependencies = [
        ("kitchen", "0002_ingredients"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]
    operations = [
        migrations.AddField("kitchenrecord", "document", models.JSONField(default=dict),
                            preserve_default=False),
        migrations.RunPython(into_one, migrations.RunPython.noop),
        migrations.RemoveField("kitchenrecord", "yours"),
        migrations.RemoveField("kitchenrecord", "ingredients"),
        migrations.AddField("kitchenrecord", "revision", models.PositiveIntegerField(default=1)),
        migrations.AddField(
            "kitchenrecord", "created_at",
            models.DateTimeField(auto_now_add=True, default=django.utils.timezone.now),
            preserve_default=False,
        ),
        migrations.AlterField(
            "kitchenrecord", "updated_at",
            models.DateTimeField(default=django.utils.timezone.now),
        ),
        migrations.AddField(
            "kitchenrecord", "updated_by",
            models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL,
                              to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField("kitchenrecord", "deleted_at",
                            models.DateTimeField(blank=True, null=True)),
    ]
