"""What is said of a client as a whole: records with what they turn into, the head of every view, what comes next."""
