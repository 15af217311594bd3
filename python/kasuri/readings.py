"""What can be measured of pictures and filters, as arrays.

>>> kasuri.readings.parade(picture, filter)             # of what the filter makes of the picture
>>> kasuri.readings.response(filter).layer("r").numbers  # x, y of the red line

There is a function for every reading (``names()``), with its settings as keywords.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Callable, Optional, Union

import numpy

from . import Filter, _channels_of, _kasuri, _readable, compile
from ._errors import ArgumentError
from ._tables import ReadingName, Space


@dataclass(frozen=True)
class Figure:
    """A number that a reading says beside its plot."""

    name: str
    of: str
    unit: str
    value: float


@dataclass(frozen=True)
class Layer:
    """What is drawn, as numbers by rows. ``kind``: density (how often things fall into the cells, the lowest row first),
    trace (x, y), arrows (from x, y to x, y, colour), spots (x, y, colour), solid (x, y, z, what went in, colour) or wires
    (number of the line, x, y, z). ``axes``: title, lowest and highest of each."""

    kind: str
    name: str
    panel: int
    axes: list[tuple[str, float, float]]
    numbers: numpy.ndarray


@dataclass(frozen=True)
class Reading:
    """What was measured."""

    figures: list[Figure]
    layers: list[Layer]

    def layer(self, name: str, panel: Optional[int] = None) -> Layer:
        """The first layer of that name (and on that panel)."""
        for each in self.layers:
            if each.name == name and panel in (None, each.panel):
                return each
        raise KeyError(name)

    def figure(self, name: str, of: str = "") -> float:
        """The value of a figure."""
        for each in self.figures:
            if each.name == name and each.of == of:
                return each.value
        raise KeyError(name)


_rows = {row[0]: row for row in _kasuri.readings()}


def names() -> list[str]:
    """All readings."""
    return list(_rows)


def _settings(row: tuple, given: dict[str, Any]) -> list[str]:
    texts = []
    for name, value in given.items():
        text = str(int(value)) if isinstance(value, bool) else str(value)
        texts.append(f"{name}={text}")
    return texts


def measure(
    name: ReadingName,
    subject: Union[None, Filter, numpy.ndarray] = None,
    filter: Optional[Filter] = None,
    *,
    space: Optional[Space] = None,
    **settings: Union[float, str, bool],
) -> Reading:
    """Reads ``name`` off a picture, after ``filter`` if there is one, or off a filter, for readings of filters."""
    row = _rows.get(name)
    if row is None:
        raise ArgumentError(f"there is no reading {name}; there are {', '.join(_rows)}")
    if isinstance(subject, Filter):
        if row[3]:
            raise ArgumentError(f"{name} is read off a picture: {name}(picture, filter)")
        filter, subject = subject, None
    if row[3] and subject is None:
        raise ArgumentError(f"{name} is read off a picture")
    made = filter if filter is not None else compile("out.rgb = rgb")
    picture = None
    if subject is not None:
        picture = _readable(subject)
        _channels_of(picture)
        if picture.ndim > 3:
            picture = picture.reshape((-1,) + picture.shape[-2:])
    figures, layers = made._it.measure(name, picture, True, space, _settings(row, settings))
    return Reading([Figure(**each) for each in figures], [Layer(**each) for each in layers])


def _function(row: tuple) -> Callable[..., Reading]:
    name, title, doc, of_pictures, settings = row

    if of_pictures:

        def read(picture: numpy.ndarray, filter: Optional[Filter] = None, *, space: Optional[Space] = None, **given: Any) -> Reading:
            return measure(name, picture, filter, space=space, **given)

    else:

        def read(filter: Optional[Filter] = None, **given: Any) -> Reading:  # type: ignore[misc]
            return measure(name, None, filter, **given)

    lines = [f"{title}. {doc}", "", "Settings:"]
    for key, words, usual, low, high, choices in settings:
        what = f"{choices[int(usual)]!r} of {', '.join(choices)}" if choices else f"{usual:g} in {low:g} .. {high:g}"
        lines.append(f"    {key} = {what}: {words}")
    read.__name__ = read.__qualname__ = name
    read.__doc__ = "\n".join(lines)
    return read


for _row in _rows.values():
    globals()[_row[0]] = _function(_row)
__all__ = ["Figure", "Layer", "Reading", "measure", "names", *_rows]
