"""SQLAlchemy models, repositories, migrations."""
