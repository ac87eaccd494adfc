"""A session planned: its poses with both sides, its minutes and its order, and templates of a practice."""
