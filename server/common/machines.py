"""Settings for heavy work on other machines, from the addresses that are given for it."""

from __future__ import annotations

from typing import Any
from urllib.parse import unquote, urlsplit

#: The queues of steps, and what Django calls them together.
STEPS, SHORT_STEPS, LONG_STEPS = "steps", "dunefold-short", "dunefold-long"
#: A step may take this long, and then wait for the network; its own limits are shorter. Seconds.
STEP_TIMEOUT = 6 * 3600
#: A machine that waits for work is forgotten a minute after it has said nothing for so long; seconds.
IDLE_KEPT = 30
#: How often a message is tried again by who has others waiting, and by a machine that has done its work and
#: is to tell what it came to: for a minute or two altogether.
TRIES, MANY_TRIES = 1, 40


def queue_at(address: str) -> dict[str, Any]:
    """A queue of RQ at redis://[name:password@]host[:port][/number], or rediss:// with TLS.

    Raises:
        ValueError: it is no such address.
    """
    parts = urlsplit(address)
    if parts.scheme not in ("redis", "rediss") or not parts.hostname:
        raise ValueError(f"DUNEFOLD_QUEUE is an address such as redis://192.0.2.7:6379/0, not “{address}”.")
    return {
        "HOST": parts.hostname,
        "PORT": parts.port or 6379,
        "DB": int(parts.path.strip("/") or 0),
        "USERNAME": unquote(parts.username) if parts.username else None,
        "PASSWORD": unquote(parts.password) if parts.password else None,
        "SSL": parts.scheme == "rediss",
        "DEFAULT_TIMEOUT": STEP_TIMEOUT,
        "REDIS_CLIENT_KWARGS": {
            "retry": tried_again(TRIES),
            "socket_connect_timeout": 3,
            "socket_timeout": 3,
            "socket_keepalive": True,
        },
    }


def tried_again(times: int) -> Any:
    """How often, and after how long, a message is sent again when the network is gone."""
    # It is installed only where there is a queue.
    from redis import exceptions
    from redis.backoff import ExponentialBackoff
    from redis.retry import Retry

    faults = (exceptions.ConnectionError, exceptions.TimeoutError)
    return Retry(ExponentialBackoff(cap=2, base=0.05), times, faults)


def storage_at(place: str) -> dict[str, Any]:
    """A storage of Django in a folder, or in a bucket at s3://name[/folder], whose keys the environment has
    (AWS_ACCESS_KEY_ID, AWS_SECRET_ACCESS_KEY, AWS_S3_ENDPOINT_URL).

    >>> storage_at("/srv/work")["OPTIONS"]
    {'location': '/srv/work'}
    >>> storage_at("s3://office/dunefold")["OPTIONS"]["location"]
    'dunefold'
    """
    if place.startswith("s3://"):
        bucket, _, folder = place.removeprefix("s3://").partition("/")
        options = {"bucket_name": bucket, "location": folder, "file_overwrite": True}
        return {"BACKEND": "storages.backends.s3.S3Storage", "OPTIONS": options}
    return {"BACKEND": "django.core.files.storage.FileSystemStorage", "OPTIONS": {"location": place}}
