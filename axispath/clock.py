"""The clock by which every budget is counted.

It gives the processor time of the thread that asks, so that a busy machine takes nothing away
from anybody's search: the same question is looked at equally long, whatever runs beside it.
"""

from time import thread_time as spent

__all__ = ["spent"]
