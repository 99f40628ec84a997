"""STEP (ISO 10303-21, AP214): solids of flat faces, with names and colours."""

import math
from collections.abc import Iterable
from datetime import UTC, datetime
from typing import NamedTuple

from roomy_hull.core.folded import Vector
from roomy_hull.making.polyhedra import Facet, Polyhedron

Colour = tuple[float, float, float]
ALUMINIUM: Colour = (0.78, 0.80, 0.82)
SAME = 4
"""Corners are the same to so many digits after the point. [mm]"""


class Body(NamedTuple):
    """Some solids under one name, in one colour."""

    name: str
    solids: tuple[Polyhedron, ...]
    colour: Colour = ALUMINIUM


class _Writer:
    """Numbers the lines of a file."""

    def __init__(self) -> None:
        self.lines: list[str] = []

    def add(self, words: str) -> str:
        """Write a line, and say its number."""
        self.lines.append(f"#{len(self.lines) + 1}={words};")
        return f"#{len(self.lines)}"

    def point(self, p: Vector) -> str:
        """Write a point."""
        return self.add(f"CARTESIAN_POINT('',({_n(p[0])},{_n(p[1])},{_n(p[2])}))")

    def direction(self, d: Vector) -> str:
        """Write a direction."""
        return self.add(f"DIRECTION('',({_n(d[0])},{_n(d[1])},{_n(d[2])}))")


def _n(x: float) -> str:
    """A number as STEP wants it: with a point."""
    words = f"{round(x, 6) + 0.0:.6f}".rstrip("0")
    return words if words not in ("-0.", "0.") else "0."


def text(bodies: Iterable[Body], title: str) -> str:
    """Write some solids as a STEP file.

    Args:
        bodies: With their names. [mm]
    Returns: AP214, in millimetres; one brep for each solid.
    """
    w = _Writer()
    context = _context(w)
    breps: list[str] = []
    styles: list[str] = []
    for body in bodies:
        style = _style(w, body.colour)
        for solid in body.solids:
            brep = _brep(w, solid, _plain(body.name))
            breps.append(brep)
            styles.append(w.add(f"STYLED_ITEM('color',({style}),{brep})"))
    zero, up, ahead = w.point((0, 0, 0)), w.direction((0, 0, 1)), w.direction((1, 0, 0))
    origin = w.add(f"AXIS2_PLACEMENT_3D('',{zero},{up},{ahead})")
    shape = w.add(f"ADVANCED_BREP_SHAPE_REPRESENTATION('',({','.join([origin, *breps])}),{context})")  # fmt: skip
    _product(w, shape, _plain(title))
    if styles:
        w.add(f"MECHANICAL_DESIGN_GEOMETRIC_PRESENTATION_REPRESENTATION('',({','.join(styles)}),{context})")  # fmt: skip
    day = datetime.now(UTC).strftime("%Y-%m-%dT%H:%M:%S")
    head = [
        "ISO-10303-21;", "HEADER;", "FILE_DESCRIPTION(('Parts as they are folded'),'2;1');",
        f"FILE_NAME('{_plain(title)}','{day}',(''),(''),'Roomy Hull','Roomy Hull','');",
        "FILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));", "ENDSEC;", "DATA;",
    ]  # fmt: skip
    return "\n".join([*head, *w.lines, "ENDSEC;", "END-ISO-10303-21;", ""])


def _plain(words: str) -> str:
    """Letters that every reader takes: others by their number, quotes doubled."""
    found = ""
    for sign in words:
        if 32 <= ord(sign) < 127 and sign != "\\":
            found += "''" if sign == "'" else sign
        else:
            found += f"\\X4\\{ord(sign):08X}\\X0\\"
    return found


def _context(w: _Writer) -> str:
    length = w.add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))")
    angle = w.add("(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))")
    solid = w.add("(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())")
    uncertainty = w.add(
        f"UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-4),{length},'distance_accuracy_value','')"
    )
    return w.add(
        f"(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT(({uncertainty}))"
        f"GLOBAL_UNIT_ASSIGNED_CONTEXT(({length},{angle},{solid}))REPRESENTATION_CONTEXT('',''))"
    )


def _product(w: _Writer, shape: str, title: str) -> None:
    app = w.add("APPLICATION_CONTEXT('automotive design')")
    w.add(f"APPLICATION_PROTOCOL_DEFINITION('international standard','automotive_design',2000,{app})")  # fmt: skip
    context = w.add(f"PRODUCT_CONTEXT('',{app},'mechanical')")
    product = w.add(f"PRODUCT('{title}','{title}','',({context}))")
    w.add(f"PRODUCT_RELATED_PRODUCT_CATEGORY('part',$,({product}))")
    formation = w.add(f"PRODUCT_DEFINITION_FORMATION('','',{product})")
    stage = w.add(f"PRODUCT_DEFINITION_CONTEXT('part definition',{app},'design')")
    definition = w.add(f"PRODUCT_DEFINITION('design','',{formation},{stage})")
    whole = w.add(f"PRODUCT_DEFINITION_SHAPE('','',{definition})")
    w.add(f"SHAPE_DEFINITION_REPRESENTATION({whole},{shape})")


def _style(w: _Writer, colour: Colour) -> str:
    rgb = w.add(f"COLOUR_RGB('',{_n(colour[0])},{_n(colour[1])},{_n(colour[2])})")
    fill = w.add(f"FILL_AREA_STYLE_COLOUR('',{rgb})")
    area = w.add(f"FILL_AREA_STYLE('',({fill}))")
    surface = w.add(f"SURFACE_STYLE_FILL_AREA({area})")
    side = w.add(f"SURFACE_SIDE_STYLE('',({surface}))")
    usage = w.add(f"SURFACE_STYLE_USAGE(.BOTH.,{side})")
    return w.add(f"PRESENTATION_STYLE_ASSIGNMENT(({usage}))")


def _brep(w: _Writer, solid: Polyhedron, name: str) -> str:
    """Write one closed solid: its corners and edges once, each face by its plane and its loops."""
    corners: dict[Vector, str] = {}
    edges: dict[tuple[Vector, Vector], str] = {}

    def key(p: Vector) -> Vector:
        return (round(p[0], SAME) + 0.0, round(p[1], SAME) + 0.0, round(p[2], SAME) + 0.0)

    def corner(p: Vector) -> str:
        if p not in corners:
            corners[p] = w.add(f"VERTEX_POINT('',{w.point(p)})")
        return corners[p]

    def edge(a: Vector, b: Vector) -> str:
        """An edge in the sense a to b: drawn once, and used from both sides."""
        if (b, a) in edges:
            return w.add(f"ORIENTED_EDGE('',*,*,{edges[b, a]},.F.)")
        if (a, b) not in edges:
            long = math.dist(a, b)
            way = w.direction(((b[0] - a[0]) / long, (b[1] - a[1]) / long, (b[2] - a[2]) / long))
            line = w.add(f"LINE('',{w.point(a)},{w.add(f'VECTOR({chr(39)}{chr(39)},{way},1.)')})")
            edges[a, b] = w.add(f"EDGE_CURVE('',{corner(a)},{corner(b)},{line},.T.)")
        return w.add(f"ORIENTED_EDGE('',*,*,{edges[a, b]},.T.)")

    def loop(ring: tuple[Vector, ...]) -> str:
        points = [key(p) for p in ring]
        points = [p for n, p in enumerate(points) if p != points[n - 1]]
        rows = [edge(p, points[(n + 1) % len(points)]) for n, p in enumerate(points)]
        return w.add(f"EDGE_LOOP('',({','.join(rows)}))")

    faces = []
    for facet in solid.facets:
        bounds = [w.add(f"FACE_OUTER_BOUND('',{loop(facet.outer)},.T.)")]
        bounds += [w.add(f"FACE_BOUND('',{loop(r)},.T.)") for r in facet.inner]
        faces.append(w.add(f"ADVANCED_FACE('',({','.join(bounds)}),{_plane(w, facet)},.T.)"))
    shell = w.add(f"CLOSED_SHELL('',({','.join(faces)}))")
    return w.add(f"MANIFOLD_SOLID_BREP('{name}',{shell})")


def _plane(w: _Writer, facet: Facet) -> str:
    """The plane of a face, looking out."""
    ring = facet.outer
    normal = [0.0, 0.0, 0.0]
    for a, b in zip(ring, ring[1:] + ring[:1], strict=True):
        for n in range(3):
            m, o = (n + 1) % 3, (n + 2) % 3
            normal[n] += (a[m] - b[m]) * (a[o] + b[o])
    long = math.sqrt(sum(v * v for v in normal)) or 1.0
    z = (normal[0] / long, normal[1] / long, normal[2] / long)
    a, b = ring[0], max(ring[1:], key=lambda p: math.dist(ring[0], p))
    far = math.dist(a, b) or 1.0
    x = ((b[0] - a[0]) / far, (b[1] - a[1]) / far, (b[2] - a[2]) / far)
    place = w.add(f"AXIS2_PLACEMENT_3D('',{w.point(a)},{w.direction(z)},{w.direction(x)})")
    return w.add(f"PLANE('',{place})")
