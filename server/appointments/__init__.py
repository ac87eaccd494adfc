"""Who comes when, and what is worth knowing before they do."""
