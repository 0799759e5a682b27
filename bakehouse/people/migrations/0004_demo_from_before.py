"""A demo house that was made before it was marked as one: known by the passwords that everybody knows."""

from django.contrib.auth.hashers import check_password
from django.db import migrations

KNOWN = {"wren": "towpath-head", "tansy": "towpath-bench"}


def mark(apps, schema_editor):
    User, House = apps.get_model("auth", "User"), apps.get_model("people", "House")
    if House.objects.filter(demo=True).exists():
        return
    for user in User.objects.filter(username__in=KNOWN):
        if check_password(KNOWN[user.username], user.password):
            House.objects.create(demo=True)
            return


class Migration(migrations.Migration):
    dependencies = [("people", "0003_house"), ("auth", "0012_alter_user_first_name_max_length")]
    operations = [migrations.RunPython(mark, migrations.RunPython.noop)]
