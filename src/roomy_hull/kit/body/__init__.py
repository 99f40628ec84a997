"""What is built on the chassis: tray, canopy, doors, what hangs under the tray, a first body."""
