"""Strength: chassis, mounts, members, gas struts, and how stable the whole stands."""
