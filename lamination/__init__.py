"""The core of Eight Turn: what a laminated dough is and does, in numbers.

Pure functions over frozen dataclasses. No interface code, no input or output, no clock.
Units stand in the names: ``_g``, ``_mm``, ``_um``, ``_c``, ``_min``, ``_pct``, ``_kg_m3``.
"""
