"""The compiled reading of a course, held against other people's splines and sums."""

import subprocess
import sys

import numpy as np
import pytest
from scipy.interpolate import CubicHermiteSpline

from lamination.heat.conduction import Air, conduct, still
from lamination.heat.yeast import activity, clocks, integrated, ripening

from .test_heat import laminate


@pytest.fixture(scope="module")
def course():
    return conduct(laminate(18), Air(4, 9), Air(6, 8), 95)


def test_a_course_is_read_on_its_own_curve(course):
    at = np.array([0.0, 0.01, 0.4, 7.3, 7.3, 40.0, 94.99, 95.0])
    spline = CubicHermiteSpline(course.minutes, course.t_c, course.rates)(at)
    assert course.at(at) == pytest.approx(spline, abs=0.02)
    assert course.at(np.array([40.0, 7.3])) == pytest.approx(course.at(np.array([7.3, 40.0]))[::-1])
    # beyond its ends it stays as it is there
    assert course.at(np.array([-5.0, 400.0])) == pytest.approx(course.t_c[[0, -1]])


def test_what_is_gathered_is_the_sum_of_what_each_minute_brings(course):
    until = np.array([0.0, 0.3, 11.0, 12.0, 60.5, 95.0])
    active, ripe = course.gathered(clocks(2.0, -4.5), until)
    grid = np.linspace(0, 95, 9_501)
    profiles, shares = course.at(grid), course.end.shares
    for got, rate in ((active, activity(profiles)), (ripe, ripening(profiles, 2.0, -4.5) / 60)):
        wanted = np.interp(until, grid, integrated(grid, rate @ shares))
        assert got == pytest.approx(wanted, rel=2e-3, abs=1e-4)
    assert course.gathered(clocks(2.0, -4.5), np.array([95]))[0, 0] == pytest.approx(
        active[-1], rel=2e-3
    )


def test_no_time_gathers_nothing():
    course = still(laminate(18))
    assert course.gathered(clocks(2.0, -4.5), np.array([0.0, 5.0])).tolist() == [[0, 0], [0, 0]]


def test_nothing_is_compiled_before_heat_is_asked_for():
    asked = "import lamination.warmth, lamination.plan, sys; sys.exit('numba' in sys.modules)"
    assert subprocess.run([sys.executable, "-c", asked]).returncode == 0
