"""What was worked when a run began is kept with it; for doughs under way, as it is worked now."""

from django.db import migrations, models


def keep(apps, schema_editor):
    from bakehouse.bench.runs import worked_anew
    from bakehouse.documents import dump
    from lamination.terms import Faults

    Run = apps.get_model("bench", "Run")
    for run in Run.objects.filter(phase__in=["work", "rest"]):
        try:
            run.worked_document = dump(worked_anew(run.plan_document, run.kitchen_document))
        except Faults:
            continue  # whoever opens it is told why
        run.save(update_fields=["worked_document"])


class Migration(migrations.Migration):
    dependencies = [("bench", "0009_no_phase_before_it_is_said")]

    operations = [
        migrations.AddField("run", "worked_document", models.JSONField(null=True)),
        migrations.RunPython(keep, migrations.RunPython.noop),
    ]
