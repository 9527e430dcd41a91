"""The practice stand-ins: programs of their own that import nothing of Codexa and behave like the real thing."""
