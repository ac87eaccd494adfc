"""Records: what is known of a client besides measures, one folder for each kind.

A folder holds everything about its kind: the facts and what they mean on a date (``__init__.py``), the rules
(``rules.yaml``) and every word (``en.yaml``). ``registry.py`` finds the folders; what is not in one does not exist.
"""
