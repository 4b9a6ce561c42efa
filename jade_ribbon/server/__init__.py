"""Running the application: its port, its connections, the shop's file behind them."""

from jade_ribbon.server.serving import serve, settle

__all__ = ["serve", "settle"]
