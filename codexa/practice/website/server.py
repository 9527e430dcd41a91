"""Serves the practice website: gunicorn "codexa.practice.website.server:application()"."""

import os

from flask import Flask, render_template


def application() -> Flask:
    """Return the website; CODEXA_PUBLIC_ADDRESS says where the forms that it shows are."""
    forms = os.environ.get("CODEXA_PUBLIC_ADDRESS", "http://127.0.0.1:8780")
    site = Flask("codexa.practice.website")

    @site.get("/")
    def home() -> str:
        return render_template("home.html")

    @site.get("/visit")
    def visit() -> str:
        return render_template("visit.html", forms=forms)

    @site.get("/patrons")
    def patrons() -> str:
        return render_template("patrons.html", forms=forms)

    return site
