"""The stand-ins of devices: they take prints from their queue as long as they are on and have paper."""

from __future__ import annotations

from django.db import transaction
from django.utils import timezone

from drafting.errors import SheetError
from drafting.plotting.devices import DEVICES, ROLL, Device
from drafting.sheets.paper import Paper
from server.plots.models import DeviceState, Print


def states() -> list[DeviceState]:
    """Every device that prints, as it is now."""
    return [_state(device) for device in DEVICES if device.prints]


def state_of(key: str) -> DeviceState:
    """A device as it is now.

    Raises:
        SheetError: there is no such device, or it is none with paper in it.
    """
    device = next((d for d in DEVICES if d.key == key and d.prints), None)
    if device is None:
        raise SheetError(f"There is no device “{key}” that prints.")
    return _state(device)


def _state(device: Device) -> DeviceState:
    return DeviceState.objects.get_or_create(key=device.key, defaults={"paper": device.filled})[0]


@transaction.atomic
def change(key: str, *, online: bool | None = None, loaded: bool | None = None) -> DeviceState:
    """Switch a device on or off, fill it with paper, or take its paper out; then it goes on with its queue.

    Returns:
        The device as it is then.

    Raises:
        SheetError: see state_of.
    """
    state = state_of(key)
    if online is not None:
        state.online = online
    if loaded is not None:
        state.paper = state.device.filled if loaded else dict.fromkeys(state.paper, 0)
    state.save()
    return work_through(key)


@transaction.atomic
def work_through(key: str) -> DeviceState:
    """Print what waits for a device, the first that was sent first, until something keeps it from going
    on. The device as it is then."""
    state = state_of(key)
    waiting = Print.objects.filter(device=key, state__in=[Print.State.MAKING, Print.State.QUEUED])
    for job in waiting.order_by("created"):
        if job.state == Print.State.MAKING or not _print(state, job):
            break
    state.save()
    return state


def _print(state: DeviceState, job: Print) -> bool:
    """Print as many pages as can be. Whether all have come out."""
    device, job.message = state.device, ""
    if not state.online:
        job.message = f"The {device.name.lower()} is off. Switch it on."
    while job.printed < len(job.pages) and not job.message:
        medium, amount = device.medium(Paper("", *job.pages[job.printed]))
        if state.paper.get(medium, 0) < amount:
            what = "The roll is at its end" if medium == ROLL else f"There is no {medium} paper left"
            job.message = f"{what}. Load the {device.name.lower()}."
            break
        state.paper[medium] -= amount
        job.printed += 1
    done = job.printed == len(job.pages)
    if done:
        job.state, job.message, job.finished = Print.State.PRINTED, "", timezone.now()
    job.save()
    return done
