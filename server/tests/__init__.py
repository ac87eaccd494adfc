"""The server's tests. Random examples are the same in every run; a campaign (``ASKETA_EXAMPLES=wide``) looks for new ones."""

import os

from hypothesis import settings

settings.register_profile("steady", derandomize=True, deadline=None, database=None)
settings.register_profile("wide", deadline=None, max_examples=500, print_blob=True)
settings.load_profile(os.environ.get("ASKETA_EXAMPLES", "steady"))
