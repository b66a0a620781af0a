"""Other forms of a rational function, and what can be read off each.

A form is offered only where it is proved to be equal: its text is read again, as everything that is
typed, and the polynomials above and below the line are compared with those of the function. Where
the form has a value in more places than the function, the condition says which those are.
"""

from axispath.core.forms.form import Form
from axispath.core.forms.ways import forms_of, has_forms

__all__ = ["Form", "forms_of", "has_forms"]
