"""The sawn piece: thickness over the face, roughness, evidence."""
