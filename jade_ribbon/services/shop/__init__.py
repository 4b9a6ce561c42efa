"""The shop: settings, saws, materials, reference tables."""
