"""The choice in words: reasons, figures, cautions, rules, and what it leans on."""
