"""How long anything may take: every budget of time in one place.

Seconds of processor time unless it says otherwise. From the inside out: what is given to one lane,
one search or one answer; what a whole request or job may take before it breaks off by itself; and
after how long its process is killed from outside, whatever it does.
"""

from __future__ import annotations

from axispath.clock import HASTE, SLOWER, spent
from axispath.core.arithmetic.patience import Patience
from axispath.core.path.lanes import Effort

# Pictures on the page
MOVING_CURVE = Patience(0.12, spent)  # of one lane, while something moves
MOVING_PICTURE = 0.7  # of all lanes together
MOVING_FRAMES = 0.06  # of all frames ahead but the first, where they are looked at one by one
RESTING_CURVE = Patience(4.0 * HASTE, spent)  # of one lane, when only such are still missing
RESTING_PICTURE = 8.0 * HASTE
FIRST_PICTURE = Patience(0.06, spent)  # of all lanes, before a page is sent
FRAMING = Patience(0.4, spent)  # of one lane, in choosing a view for it

# Landmarks
MOVING_SEARCH = Patience(0.08, spent)  # of one lane, while something moves
MOVING_EFFORT = Effort(4_000, 0.06, spent)  # of one search among those that are followed
MOVING_MARKS = 0.4  # of all states ahead, after which no other is begun
USUAL_SEARCH = Effort(20_000, 0.15, spent)  # of one search
FURTHER_SEARCH = Effort(600_000, 9.0 * HASTE, spent)  # of all that is still open then
LINE = Patience(1.5, spent)  # the result of one line of calculation
BLOCK = Patience(4.0, spent)  # the answers of one block of equations, or a table over it
MEASURES = Patience(1.0, spent)  # the length and the areas of one curve
WORDS = Patience(0.5, spent)  # why nothing shows

# Equations and tables
SOLVING = Effort(30_000, 0.8, spent)
SOLVING_ON = Effort(600_000, 9.0 * HASTE, spent)  # of what is open, while nothing is asked
READING_OFF = Effort(400, 0.02, spent)  # of one stretch between rows

# Exact forms, in a process of their own
EXACT_FORM = 4.0 * min(SLOWER, 3.0)  # of one function
EXACT_WAIT = 0.3  # by the clock on the wall: what comes later is there when it is asked for again

# A request in whatever process carries it out
REQUEST = Patience(10.0, spent)

# Jobs behind the wall: by themselves, then killed by processor time, then by the clock on the wall
QUICK_JOB = (1.8, 4.0 * SLOWER, 40.0 * SLOWER)
LONG_JOB = (10.0 * HASTE, 14.0 * SLOWER, 90.0 * SLOWER)
EXACT_JOB = (10.0 * HASTE, 20.0 * SLOWER, 60.0 * SLOWER)
SILENT = 2.0 * SLOWER  # by the clock on the wall, after which a broker is taken to be stuck
LONGEST_WAIT = 20.0 * SLOWER  # by the clock on the wall, before a job begins
