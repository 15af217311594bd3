"""Per-pixel colour rules over NumPy arrays.

>>> import kasuri, numpy
>>> swap = kasuri.compile("out.rgb = rgb.gbr")
>>> swap(numpy.array([0.1, 0.2, 0.3], "float32"))
array([0.2, 0.3, 0.1], dtype=float32)

A filter is compiled once and called with arrays: pictures of (height, width, 3) or (height, width, 4), lists of colours
of (n, 3), single colours of (3,). Numbers of float32, float16, uint8 and uint16 are read where they lie, whatever the
strides; others are converted to float32 first. Whole numbers stand for 0 to 1. Alpha is straight.
"""

from __future__ import annotations

import os
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Iterator, Mapping, Optional, Union

import numpy

from . import _kasuri
from ._errors import ArgumentError, Diagnostic, Error, FileError, Fix, NotPossible, RuleError, diagnostics_of
from ._tables import Model, ReadingName, Space

__version__: str = _kasuri.version()
__all__ = [
    "ArgumentError", "Diagnostic", "Error", "FileError", "Filter", "Fix", "LutError", "NotPossible", "Parameter",
    "Proof", "Proofs", "RuleError", "Source", "apply", "compile", "from_model", "models", "readings", "rest", "spaces",
    "to",
]  # fmt: skip

Array = numpy.ndarray
_read_as_they_lie = tuple(numpy.dtype(kind) for kind in ("float32", "float16", "uint8", "uint16"))


@dataclass(frozen=True)
class Parameter:
    """A number that a filter is set by. ``kind``: number, whole, toggle (0 or 1), choice (which one of ``choices``,
    from 0) or colour (one of three)."""

    name: str
    title: str
    description: str
    kind: str
    value: float
    usual: float
    low: float
    high: float
    choices: list[str]


@dataclass(frozen=True)
class Source:
    """A further picture that a filter reads by name."""

    name: str
    description: str
    channels: int
    given: bool


@dataclass(frozen=True)
class Proof:
    """What a filter promises, measured: ``figure`` beside ``limit``, and the worst case."""

    title: str
    function: str
    statement: str
    known: str
    at: str
    figure: float
    limit: float
    passed: bool
    proved: bool
    promised: bool
    before: list[float]
    after: list[float]
    samples: int
    bounded: bool

    def __str__(self) -> str:
        return self.statement


class Proofs(list):
    """The proofs of a filter; ``holds``: whether all that is promised does."""

    holds: bool = True

    def __bool__(self) -> bool:
        return self.holds


@dataclass(frozen=True)
class LutError:
    """How far a LUT is from its filter: of the channel that is off most, on average, for 99.9 % of the colours, at
    most."""

    mean: float
    most: float
    largest: float
    samples: int


def _readable(array: Any) -> Array:
    """An array that the engine can read where it lies; a copy where it cannot."""
    made = numpy.asarray(array)
    if made.dtype not in _read_as_they_lie:
        made = made.astype(numpy.float32)
    zero = any(stride == 0 and size > 1 for stride, size in zip(made.strides, made.shape))
    odd = any(stride % made.itemsize for stride in made.strides)
    if zero or odd or not made.flags.aligned:
        made = made.copy()
    return made


def _as_picture(array: Array, channels: bool) -> Array:
    """With at most two axes of pixels before that of the channels; more are laid together, which may copy."""
    axes = array.ndim - (1 if channels else 0)
    if axes <= 2:
        return array
    return array.reshape((-1, array.shape[axes - 1]) + ((array.shape[axes],) if channels else ()))


def _channels_of(array: Array) -> None:
    if array.ndim == 0 or array.shape[-1] not in (3, 4):
        raise ArgumentError(f"the last axis must be r, g, b or r, g, b, a; the array is of {array.shape}")


class Filter:
    """A filter, look, LUT or colour decision list, by the path of its file.

    ``preset`` and values by name set it; ``space`` says what the numbers of a LUT or list are; ``sources`` are arrays
    by the names of the further pictures that it reads.
    """

    def __init__(
        self,
        path: Union[str, os.PathLike],
        *,
        preset: Optional[str] = None,
        space: Optional[Space] = None,
        sources: Optional[Mapping[str, Array]] = None,
        **values: Union[float, str, bool],
    ) -> None:
        self._take(_kasuri.opened(os.fspath(path), space), preset, sources, values)

    def _take(self, made: tuple, preset: Optional[str], sources: Optional[Mapping[str, Array]], values: Mapping[str, Any]) -> None:
        self._it, said = made
        #: Warnings and hints about its text.
        self.diagnostics: list[Diagnostic] = diagnostics_of(said)
        if preset is not None:
            self._it.use_preset(preset)
        self.set(**values)
        for name, array in (sources or {}).items():
            self.give(name, array)

    def copy(self, *, preset: Optional[str] = None, **values: Union[float, str, bool]) -> Filter:
        """The same, to be set to other values; what was compiled is shared."""
        made = Filter.__new__(Filter)
        made._it = self._it.copy()
        made.diagnostics = self.diagnostics
        if preset is not None:
            made._it.use_preset(preset)
        return made.set(**values)

    # -- what it is ----------------------------------------------------------------------------------------------------

    @property
    def title(self) -> str:
        return self._it.title()

    @property
    def note(self) -> str:
        return self._it.note()

    @property
    def space(self) -> str:
        """The working space: what the numbers are that come in and go out where nothing else is said."""
        return self._it.space()

    @property
    def identity(self) -> str:
        """32 digits, equal for filters that make the same of every picture."""
        return self._it.identity()

    @property
    def looks_at_places(self) -> bool:
        """Whether it looks at where a pixel lies, at its neighbours or at further pictures: then it has no LUT."""
        return self._it.looks_at_places()

    @property
    def parameters(self) -> dict[str, Parameter]:
        return {row["name"]: Parameter(**row) for row in self._it.parameters()}

    @property
    def presets(self) -> list[str]:
        return self._it.presets()

    @property
    def sources(self) -> dict[str, Source]:
        return {row["name"]: Source(**row) for row in self._it.sources()}

    @property
    def matrix(self) -> Optional[Array]:
        """The matrix that it is at its values, of (3, 4), the offset last; None if it is none."""
        return self._it.matrix()

    def __repr__(self) -> str:
        values = ", ".join(f"{p.name}={p.value:g}" for p in self.parameters.values() if p.value != p.usual)
        return f"<kasuri.Filter {self.title!r}{' ' + values if values else ''}>"

    # -- setting it ----------------------------------------------------------------------------------------------------

    def set(self, **values: Union[float, str, bool]) -> Filter:
        """Sets values by name: numbers, True and False, the name of a choice, three numbers of a colour."""
        for name, value in values.items():
            if isinstance(value, str):
                self._it.set_text(name, value)
            elif isinstance(value, (bool, int, float, numpy.number, numpy.bool_)):
                self._it.set(name, float(value))
            else:
                self._it.set_text(name, ", ".join(repr(float(part)) for part in value))
        return self

    def use(self, preset: str) -> Filter:
        """Takes a preset's values."""
        self._it.use_preset(preset)
        return self

    def reset(self) -> Filter:
        """All values as they were meant."""
        self._it.reset()
        return self

    def give(self, name: str, array: Optional[Array], *, space: Optional[Space] = None) -> Filter:
        """The picture that a source reads, of (height, width), (height, width, 3) or (height, width, 4); it is copied.
        None takes it away."""
        if array is None:
            self._it.give(name, None, False, None)
            return self
        picture = _readable(array)
        channels = picture.ndim == 3
        if channels:
            _channels_of(picture)
        elif picture.ndim != 2:
            raise ArgumentError(f"a source is a picture of two or three axes, and not of {picture.shape}")
        self._it.give(name, picture, channels, space)
        return self

    # -- using it ------------------------------------------------------------------------------------------------------

    def __call__(
        self,
        array: Any,
        *,
        out: Optional[Array] = None,
        space: Optional[Space] = None,
        out_space: Optional[Space] = None,
        threads: int = 0,
    ) -> Array:
        """What it makes of an array whose last axis is r, g, b or r, g, b, a.

        ``out``: where it goes, of the same shape and kind; ``array`` itself works in place. ``space``: what the numbers
        are (``out_space``: of those that go out, else the same); without it they are of the working space. ``threads``:
        cores to use, 0 for all. Other threads of Python run meanwhile.
        """
        picture = _readable(array)
        _channels_of(picture)
        if out is None:
            made = numpy.empty(picture.shape, picture.dtype)
        else:
            made = out
            if out.shape != picture.shape or out.dtype not in _read_as_they_lie or not out.flags.writeable:
                raise ArgumentError(f"out must be writable, of {picture.shape}, and of {[str(d) for d in _read_as_they_lie]}")
        if picture.size == 0:
            return made
        source, target = _as_picture(picture, True), _as_picture(made, True)
        if not numpy.shares_memory(target, made, max_work=1):
            raise ArgumentError("out of more than three axes must be contiguous")
        if any(stride % target.itemsize or (stride == 0 and size > 1) for stride, size in zip(target.strides, target.shape)):
            raise ArgumentError("out has strides that cannot be written to")
        self._it.apply(source, target, True, space, out_space if out_space is not None else space, threads)
        return made

    def check(self) -> Proofs:
        """Measures what it promises: over defaults, presets and the ends of its parameters, or at the values it was set
        to."""
        holds, rows = self._it.check()
        made = Proofs(Proof(**row) for row in rows)
        made.holds = holds
        return made

    def bake(
        self,
        size: int = 33,
        *,
        low: float = 0,
        high: float = 1,
        space: Optional[Space] = None,
        out_space: Optional[Space] = None,
    ) -> tuple[Array, LutError]:
        """A table of (size, size, size, 3), indexed by blue, green, red, over ``low`` to ``high``, and how far it is from
        the filter when it is read tetrahedrally."""
        table, error = self._it.bake(size, low, high, space, out_space)
        return table, LutError(**error)

    def bake_file(
        self,
        path: Union[str, os.PathLike],
        size: int = 33,
        *,
        low: float = 0,
        high: float = 1,
        space: Optional[Space] = None,
        out_space: Optional[Space] = None,
    ) -> LutError:
        """Writes a LUT by the ending of ``path`` (.cube, .clf, .icc ...), whole or not at all. The error is that of the
        very file, as another library reads it."""
        target = os.fspath(path)
        data, error = self._it.bake_file(os.path.splitext(target)[1].lower(), size, low, high, space, out_space)
        partial = f"{target}.{os.getpid()}.partial"
        try:
            with open(partial, "wb") as file:
                file.write(data)
            os.replace(partial, target)
        finally:
            if os.path.exists(partial):
                os.unlink(partial)
        return LutError(**error)


def compile(
    text: str,
    *,
    folder: Optional[Union[str, os.PathLike]] = None,
    preset: Optional[str] = None,
    sources: Optional[Mapping[str, Array]] = None,
    **values: Union[float, str, bool],
) -> Filter:
    """A filter of the text of a rule; ``folder``: where what it uses is looked for."""
    made = Filter.__new__(Filter)
    made._take(_kasuri.compiled(text, None if folder is None else os.fspath(folder)), preset, sources, values)
    return made


def apply(path: Union[str, os.PathLike], array: Any, **values: Any) -> Array:
    """``Filter(path, **values)(array)`` for once."""
    return Filter(path, **values)(array)


def spaces() -> list[str]:
    """The names of all spaces."""
    return _kasuri.spaces()


def models() -> dict[str, tuple[str, str, str]]:
    """The colour models with the names of their components."""
    return {name: components for name, components, _ in _kasuri.models()}


@lru_cache(maxsize=256)
def _conversion(text: str) -> Filter:
    return compile(text)


def _components(model: str) -> tuple[str, str, str]:
    try:
        return models()[model]
    except KeyError:
        raise ArgumentError(f"there is no space or model {model}") from None


def to(name: Union[Space, Model], array: Any, *, space: Space = "rec709-linear", out: Optional[Array] = None) -> Array:
    """Colours of ``space`` in another space, or as the components of a colour model: ``to("oklch", a)`` has l, c and h on
    its last axis."""
    if name in spaces():
        return _conversion("out.rgb = rgb")(array, space=space, out_space=name, out=out)
    parts = ", ".join(f"{name}(rgb).{component}" for component in _components(name))
    return _conversion(f"working {space}\nout.rgb = vec3({parts})")(_floats(array), out=out)


def from_model(name: Model, array: Any, *, space: Space = "rec709-linear", out: Optional[Array] = None) -> Array:
    """Components of a colour model as colours of ``space``: the way back of ``to``."""
    _components(name)
    return _conversion(f"working {space}\nout.rgb = rgb({name}(r, g, b))")(_floats(array), out=out)


def _floats(array: Any) -> Array:
    """Components of models go beyond 0 to 1: whole numbers would cut them off."""
    made = numpy.asarray(array)
    return made if made.dtype in (numpy.float32, numpy.float16) else made.astype(numpy.float32) / (
        numpy.iinfo(made.dtype).max if made.dtype in (numpy.uint8, numpy.uint16) else 1
    )


def rest() -> bool:
    """Ends the threads that wait for the next call, which starts new ones; False if somebody still works."""
    return _kasuri.rest()


from . import readings  # noqa: E402  it needs Filter
