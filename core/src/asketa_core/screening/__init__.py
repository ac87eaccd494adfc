"""Screening a client: from the client's file, a date and a room to verdicts per variation and side. The core's front door
for a server and the command line."""
