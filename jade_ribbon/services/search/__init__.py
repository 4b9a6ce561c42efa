"""Find anything: records, pages, steps, house rules, materials and terms."""
