"""The two roles, as groups that Django's admin hands out."""

from django.db import migrations


def make_roles(apps, schema_editor):
    group = apps.get_model("auth", "Group")
    for name in ("head", "bench"):
        group.objects.get_or_create(name=name)


class Migration(migrations.Migration):
    dependencies = [("people", "0001_initial"), ("auth", "0012_alter_user_first_name_max_length")]
    operations = [migrations.RunPython(make_roles, migrations.RunPython.noop)]
