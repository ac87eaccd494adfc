"""What is stored of a client besides records: measures, answers, holds. The file that binds them is ``clientfile.py``."""
