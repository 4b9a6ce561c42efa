"""The edge of a band: its history, wear, lives and sharpening."""
