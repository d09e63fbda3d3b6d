"""The Django application."""

from __future__ import annotations

from django.apps import AppConfig


class WobbleSite(AppConfig):
    """Jobs and everything in them."""

    name = "wobble.site"
    label = "wobble"
