"""What keeps a shop's records: copies, exports, and a sample yard to look round in."""
