"""The Job: one vehicle's build as one immutable value, its edits and its history."""
