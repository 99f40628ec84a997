"""The models of the pages of Services: trip, runs, circuits, board, water, gas and air, signatures."""
