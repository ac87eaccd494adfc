"""A session as a whole: what it takes, where it goes down and up, in which order it is done."""
