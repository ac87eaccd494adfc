"""The engine itself: one posture at a time on plain numbers, compiled.

Every function here is a formula of the body model or a rule of judging, written for a single posture at a single end of
the client's ranges, so that it reads like the formula. They are compiled by numba and run as plain Python where
compiling is switched off (``NUMBA_DISABLE_JIT=1``): slowly, and with the same results.

``records`` says what is handed in and out, ``codes`` numbers what the rest of the core names, ``run`` is where work is
handed over. Bodies, ranges, recipes and limits come as plain numbers: nothing here reads a file or knows the rest of the
core (``body/encoding``, ``poses/programme`` and ``limits/encoding`` make the numbers).
"""
