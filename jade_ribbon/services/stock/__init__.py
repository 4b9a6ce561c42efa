"""Stock: billets and logs, and what is cut from them."""
