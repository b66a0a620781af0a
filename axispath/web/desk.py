"""The pages of the desk, in the order of their tabs."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class DeskPage:
    """A page of the desk.

    ``template`` is what it holds; a script of its own binds itself there with ``x-data`` and says
    itself on which events it is asked anew. ``look`` is a class of the style sheet. ``finds`` says
    how the page helps to find what is covered; empty where it does not.
    """

    name: str
    title: str
    template: str
    look: str = ""
    finds: str = ""


DESK_PAGES = (
    DeskPage("landmarks", "Landmarks", "desk/landmarks.html"),
    DeskPage("values", "Values", "desk/values.html", "is-table", "by changes of sign"),
    DeskPage("solve", "Solve", "desk/solve.html", finds="as solutions"),
    DeskPage("data", "Data", "desk/data.html", "is-table"),
    DeskPage("working", "Working", "desk/working.html", "is-table", "by calculation"),
    DeskPage("practise", "Practise", "desk/practise.html"),
)
