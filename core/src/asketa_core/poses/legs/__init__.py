"""Legs: a rule of the recipe, a hip and the surfaces give joint positions and hip angles.

Each leg is solved once per distinct combination of the set-up values it depends on, not once per set-up: ``rows`` says
which of its columns belongs to each set-up of the batch.
"""
