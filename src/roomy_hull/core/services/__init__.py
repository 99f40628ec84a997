"""What runs through the furniture, as plain formulas: power, sun, water, gas, air. No job, no drawing."""
