"""Flask: the factory and one module per noun."""
