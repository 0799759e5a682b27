"""How many readings a probe has sent and the last of them, without looking through them."""

from django.db import migrations, models


def count(apps, schema_editor):
    Probe, Sample = apps.get_model("cold", "ProbeRecord"), apps.get_model("cold", "Sample")
    for probe in Probe.objects.all():
        of = Sample.objects.filter(probe=probe).order_by("-at")
        last = of.first()
        probe.taken = of.count()
        if last:
            probe.last_at, probe.last_c = last.at, last.t_c
        probe.save()


class Migration(migrations.Migration):

    dependencies = [
        ('cold', '0001_first'),
    ]

    operations = [
        migrations.AddField(
            model_name='proberecord',
            name='last_at',
            field=models.DateTimeField(null=True),
        ),
        migrations.AddField(
            model_name='proberecord',
            name='last_c',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='proberecord',
            name='taken',
            field=models.PositiveBigIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='proberecord',
            name='thinned_at',
            field=models.DateTimeField(null=True),
        ),
        migrations.RunPython(count, migrations.RunPython.noop),
    ]
