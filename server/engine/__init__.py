"""The bridge to the core: rows become core values here and nowhere else."""
