"""The web server: thin. A view reads the request, calls one function and shapes the reply."""
