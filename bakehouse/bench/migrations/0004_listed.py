"""What the lists show of runs that were there before, written once."""

from django.db import migrations


def listed(apps, schema_editor):
    from bakehouse.documents import dump, read, read_kitchen, read_plan
    from lamination.plan.work import work
    from lamination.run.events import Event
    from lamination.run.standing import stand

    Run = apps.get_model("bench", "Run")
    for run in Run.objects.prefetch_related("events"):
        worked = work(read_plan(run.plan_document), read_kitchen(run.kitchen_document))
        events = tuple(read(Event, e.document) for e in run.events.order_by("pk"))
        now = stand(worked, run.started_at, events)
        names = {s.key: s.name for s in worked.strip}
        run.said = len(events)
        run.name, run.family = worked.name, run.plan_document.get("family", "")
        run.phase, run.stop_name = now.phase.value, names.get(now.stop or "")
        run.since, run.until = now.since, now.until
        run.turns_done, run.turns = now.turns_done, now.turns
        run.verdict = dump(now.verdict) if now.verdict else None
        run.pieces = worked.cut.pieces if worked.cut else None
        run.save()


class Migration(migrations.Migration):
    dependencies = [("bench", "0003_documents")]
    operations = [migrations.RunPython(listed, migrations.RunPython.noop)]
