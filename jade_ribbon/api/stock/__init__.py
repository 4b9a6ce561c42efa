"""Stock: cut lists."""
