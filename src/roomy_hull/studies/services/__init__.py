"""Services: circuits along their routes, a trip lived through, water, gas and air."""
