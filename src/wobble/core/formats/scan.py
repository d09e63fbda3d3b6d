"""Scans: many points from a file, thinned to what the fit needs.

CSV (with or without a header), XYZ (numbers parted by blanks) and PLY (ASCII and binary, little and big endian).
Columns are x, y and z in the place's axes; lengths are millimetres unless told otherwise. A PLY header is read as
Turk's 1994 format says: an element `vertex` with properties x, y, z.
"""

from __future__ import annotations

import io
import re
from dataclasses import dataclass

import numpy as np

from wobble.core.errors import DocumentError
from wobble.core.gauge.prior import Floats
from wobble.core.job import SURFACE_AXES, TOWARDS_INSTALLER, Place, SurfaceName, surface_extent

LARGEST_SCAN_BYTES = 60 * 1024 * 1024
CELL_MM = 100.0
"""Size of the cells that points are thinned to: under the short-range length scale."""
MOST_POINTS = 400
_TYPES = {
    "char": "i1",
    "int8": "i1",
    "uchar": "u1",
    "uint8": "u1",
    "short": "i2",
    "int16": "i2",
    "ushort": "u2",
    "uint16": "u2",
    "int": "i4",
    "int32": "i4",
    "uint": "u4",
    "uint32": "u4",
    "float": "f4",
    "float32": "f4",
    "double": "f8",
    "float64": "f8",
}


@dataclass(frozen=True)
class Thinned:
    """A scan thinned to the median of each cell: (first axis, second axis, distance), mm; how many points it had."""

    points: tuple[tuple[float, float, float], ...]
    n_read: int
    n_outside: int


def read_points(data: bytes, name: str, mm_per_unit: float = 1.0) -> Floats:
    """Return the points of a file, mm, shape (n, 3).

    Raises:
        DocumentError: The file is too large, or holds no points that can be read; with the line or the header's fault.
    """
    if len(data) > LARGEST_SCAN_BYTES:
        raise DocumentError(
            f"The scan has {len(data) / 1048576:.0f} MB; {LARGEST_SCAN_BYTES // 1048576} MB is the most.",
            mend="Thin it where it was made, or cut it to the place.",
            path=name,
        )
    points = _ply(data, name) if data[:4].strip() == b"ply" or data[:3] == b"ply" else _table(data, name)
    points = points[np.isfinite(points).all(axis=1)] * mm_per_unit
    if len(points) == 0:
        raise DocumentError("There are no points in the file.", mend="Choose another one.", path=name)
    return points


def _table(data: bytes, name: str) -> Floats:
    """Return the numbers of a CSV or XYZ file; lines before the first number are its header."""
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise DocumentError(
            "This is neither a table nor a PLY file.", mend="Save it as XYZ, CSV or PLY.", path=name
        ) from None
    lines = text.splitlines()
    start = next((i for i, line in enumerate(lines) if re.match(r"\s*[-+.\d]", line)), len(lines))
    if start == len(lines):
        return np.empty((0, 3))
    body = "\n".join(lines[start:])
    first = lines[start]
    parted = ";" if ";" in first else "," if "," in first else None
    if parted == ";" and "," in first:
        body = body.replace(",", ".")
    try:
        table = np.loadtxt(io.StringIO(body), delimiter=parted, usecols=(0, 1, 2), ndmin=2, comments=("#", "//"))
    except (ValueError, IndexError) as fault:
        row = re.search(r"row (\d+)", str(fault))
        where = f"line {start + int(row[1])}" if row else f"line {start + 1}"
        raise DocumentError(
            "A line does not hold three numbers.", mend="Each line must be x, y and z.", path=f"{name}, {where}"
        ) from None
    return np.asarray(table, dtype=float)


def _ply(data: bytes, name: str) -> Floats:
    end = re.search(rb"end_header\r?\n", data[:65536])
    if end is None:
        raise DocumentError("The PLY header has no end.", mend="Export it again.", path=name)
    header = data[: end.start()].decode("ascii", "replace").split("\n")
    form = next((line.split()[1] for line in header if re.match(r"format \S", line)), "")
    count, fields = _vertex_element(header, name)
    body = data[end.end() :]
    if form == "ascii":
        rows = body.decode("ascii", "replace").splitlines()
        if len(rows) < count:
            raise DocumentError("The file ends before its last vertex.", mend="Copy or export it again.", path=name)
        rows = rows[:count]
        at = [[f for f, _ in fields].index(axis) for axis in "xyz"]
        try:
            return np.loadtxt(rows, usecols=at, ndmin=2)
        except (ValueError, IndexError):
            raise DocumentError("A vertex does not hold its numbers.", mend="Export it again.", path=name) from None
    order = {"binary_little_endian": "<", "binary_big_endian": ">"}.get(form)
    if order is None:
        raise DocumentError(f"“{form}” is no PLY format.", mend="Use ascii or binary.", path=name)
    kind = np.dtype([(field, order + code) for field, code in fields])
    if len(body) < count * kind.itemsize:
        raise DocumentError("The file ends before its last vertex.", mend="Copy or export it again.", path=name)
    vertices = np.frombuffer(body, dtype=kind, count=count)
    return np.column_stack([vertices[axis].astype(float) for axis in "xyz"])


def _count(said: str, name: str) -> int:
    if not said.isascii() or not said.isdigit() or len(said) > 12:
        raise DocumentError(
            f"The header says that there are “{said[:20]}” vertices.", mend="Export it again.", path=name
        )
    return int(said)


def _vertex_element(header: list[str], name: str) -> tuple[int, list[tuple[str, str]]]:
    """Return how many vertices there are and their fields; they must come first, as nearly all writers put them."""
    count, inside = 0, False
    fields: list[tuple[str, str]] = []
    for words in (line.split() for line in header):
        match words:
            case ["element", element, n]:
                if element != "vertex" and not fields:
                    raise DocumentError("The vertices do not come first.", mend="Export vertices only.", path=name)
                inside = element == "vertex"
                count = _count(n, name) if inside else count
            case ["property", "list", *_] if inside:
                raise DocumentError("A vertex holds a list.", mend="Export plain vertices.", path=name)
            case ["property", kind, field] if inside:
                fields.append((field, _TYPES.get(kind, "f4")))
            case _:
                pass
    if not {"x", "y", "z"} <= {field for field, _ in fields}:
        raise DocumentError("The vertices have no x, y and z.", mend="Export them with positions.", path=name)
    return count, fields


def thin(points: Floats, place: Place, surface: SurfaceName) -> Thinned:
    """Return the median of every cell of a surface, as distances from the plane at 0 of the scan's own axis.

    Points outside the surface's extent are left out and counted; cells grow until there are few enough.
    """
    first, second, depth = ("xyz".index(axis) for axis in SURFACE_AXES[surface])
    (low_u, high_u), (low_v, high_v) = surface_extent(place, surface)
    u, v, d = points[:, first], points[:, second], -TOWARDS_INSTALLER[surface] * points[:, depth]
    inside = (u >= low_u) & (u <= high_u) & (v >= low_v) & (v <= high_v)
    u, v, d = u[inside], v[inside], d[inside]
    cell = CELL_MM
    while True:
        columns = int(np.ceil((high_u - low_u) / cell)) + 1
        index = np.floor((u - low_u) / cell).astype(int) + columns * np.floor((v - low_v) / cell).astype(int)
        cells, group = np.unique(index, return_inverse=True)
        if len(cells) <= MOST_POINTS:
            break
        cell *= 1.25
    order = np.argsort(group, kind="stable")
    bounds = np.searchsorted(group[order], np.arange(len(cells) + 1))
    thinned = []
    for i in range(len(cells)):
        mine = order[bounds[i] : bounds[i + 1]]
        middle = (float(np.mean(u[mine])), float(np.mean(v[mine])), float(np.median(d[mine])))
        thinned.append(tuple(round(c, 2) for c in middle))
    return Thinned(tuple(thinned), len(points), int((~inside).sum()))  # type: ignore[arg-type]
