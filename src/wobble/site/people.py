"""People who may sign in: the first one, those who are invited, and new passwords for those who forgot theirs."""

from __future__ import annotations

import secrets
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model, password_validation
from django.contrib.auth.hashers import UNUSABLE_PASSWORD_PREFIX
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone

from wobble.core.errors import NotThere, WobbleError
from wobble.site import models

LASTS = timedelta(days=7)
"""How long an invitation, or a link for a new password, may be used."""


class Unfit(WobbleError):
    """A name that is taken or empty, or a password that is too easy to guess."""

    code = "unfit"


def address_of(request: HttpRequest) -> str:
    """Return where a request comes from: the proxy's word counts where one is trusted."""
    return str(request.META.get("REMOTE_ADDR", ""))


def anybody() -> bool:
    """Return whether there is anybody who can sign in by a password."""
    return get_user_model().objects.exclude(password__startswith=UNUSABLE_PASSWORD_PREFIX).exists()


def first_code() -> str:
    """Return the code by which the first user is made from another machine; made now where there is none."""
    path = _code()
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_hex(4))
    return path.read_text()


def _code() -> Path:
    return Path(settings.DATA) / "first-user-code"


def make_first(name: str, password: str, *, code: str, local: bool) -> Any:
    """Make the first user, who may invite others: from the machine itself, or by the code that the server printed.

    Raises:
        NotThere: There is somebody already. Unfit: The code, the name or the password will not do.
    """
    with transaction.atomic():
        if anybody():
            raise NotThere("There are users already.", mend="Sign in, or ask for an invitation.")
        if not local and not secrets.compare_digest(code.strip().encode(), first_code().encode()):
            raise Unfit(
                "That is not the code.", mend="Look where the server was started: it printed one.", path="$.code"
            )
        user = make(name, password, admin=True)
    _code().unlink(missing_ok=True)
    return user


def make(name: str, password: str, *, admin: bool = False) -> Any:
    """Make a user.

    Raises:
        Unfit: The name is taken or empty, or the password too easy to guess.
    """
    users = get_user_model()
    name = name.strip()
    if not name or users.objects.filter(username__iexact=name).exists():
        raise Unfit("That name is taken." if name else "A user needs a name.", mend="Take another.", path="$.user")
    user = users(username=name, is_staff=admin)
    try:
        user.full_clean(exclude=["password"])
    except ValidationError as fault:
        raise Unfit(" ".join(fault.messages), mend="Take another name.", path="$.user") from fault
    set_password(user, password)
    return user


def set_password(user: Any, password: str) -> None:
    """Give a user a password; whoever is signed in elsewhere by the old one is out.

    Raises:
        Unfit: It is too easy to guess.
    """
    try:
        password_validation.validate_password(password, user)
    except ValidationError as fault:
        raise Unfit(
            " ".join(fault.messages), mend="Take a longer one that nobody would guess.", path="$.password"
        ) from fault
    user.set_password(password)
    user.save()


def invite(by: Any, whom: str = "") -> str:
    """Return the key of a link that is good once, for some days: to become a user, or for a user's new password.

    Raises:
        NotThere: There is no such user. Unfit: Whoever asks may not invite.
    """
    if not by.is_staff:
        raise Unfit("Only whoever keeps this server may do that.", mend="Ask whoever invited you.")
    user = None
    if whom:
        user = get_user_model().objects.filter(username=whom).first()
        if user is None:
            raise NotThere(f"There is no user “{whom}”.", mend="Look at the list again.")
    key = secrets.token_urlsafe(24)
    models.Invitation.objects.create(key=key, user=user, until=timezone.now() + LASTS)
    return key


def invited(key: str) -> models.Invitation:
    """Return an invitation that is still good.

    Raises:
        NotThere: It is not known, was used, or is too old.
    """
    found = models.Invitation.objects.filter(key=key, until__gt=timezone.now()).first()
    if found is None:
        raise NotThere("This link is not good any more.", mend="Ask for a new one.")
    return found


def join(key: str, name: str, password: str) -> Any:
    """Use an invitation: make its user, or give the user that it is for a new password.

    Raises:
        NotThere: The invitation is not good. Unfit: The name or the password will not do.
    """
    with transaction.atomic():
        found = invited(key)
        if found.user is None:
            user = make(name, password)
        else:
            user = found.user
            set_password(user, password)
        found.delete()
    return user
