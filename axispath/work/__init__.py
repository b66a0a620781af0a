"""Computing in processes that can be killed, apart from those that serve pages and saves.

``broker`` shares the work out, ``worker`` carries it out, ``client`` is the side of those who ask,
``kinds`` says what each kind of work may take.
"""
