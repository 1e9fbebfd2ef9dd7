"""Reads or writes a drawing with ezdxf, an independent library.

read FILE: prints what it finds as JSON, after its own audit.
write FILE: writes a small house as another program would: in inches, far from the origin, with an old-style polyline.
"""
import json
import logging
import sys

import ezdxf


warnings = []


class Heard(logging.Handler):
    def emit(self, record):
        warnings.append(record.getMessage())


def doubled(path):
    """Handles that stand at more than one item."""
    with open(path, encoding="utf-8") as file:
        lines = [line.strip() for line in file]
    pairs = list(zip(lines[::2], lines[1::2]))
    seed = pairs.index(("9", "$HANDSEED")) + 1
    handles = [value for n, (code, value) in enumerate(pairs) if code in ("5", "105") and n != seed]
    return sorted({handle for handle in handles if handles.count(handle) > 1})


def read(path):
    logging.getLogger("ezdxf").addHandler(Heard(logging.WARNING))
    doc = ezdxf.readfile(path)
    auditor = doc.audit()
    space = doc.modelspace()
    rooms = []
    for line in space.query("LWPOLYLINE"):
        points = [(x, y) for x, y, *_ in line.get_points()]
        twice = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, points[1:] + points[:1]))
        rooms.append({"layer": line.dxf.layer, "closed": bool(line.closed), "corners": len(points), "area": abs(twice) / 2})
    inserts = [
        {"name": i.dxf.name, "layer": i.dxf.layer, "x": i.dxf.insert.x, "y": i.dxf.insert.y, "turn": i.dxf.rotation}
        for i in space.query("INSERT")
    ]
    walls = sum((l.dxf.end - l.dxf.start).magnitude for l in space.query("LINE") if l.dxf.layer == "WALLS")
    print(json.dumps({
        "errors": [e.message for e in auditor.errors + auditor.fixes],
        "warnings": warnings,
        "doubled": doubled(path),
        "units": doc.header.get("$INSUNITS"),
        "layers": sorted(layer.dxf.name for layer in doc.layers),
        "blocks": sorted(b.name for b in doc.blocks if not b.name.startswith("*")),
        "rooms": rooms,
        "inserts": inserts,
        "walls": walls,
        "texts": [{"layer": t.dxf.layer, "text": t.dxf.text} for t in space.query("TEXT")],
    }))


def write(path):
    doc = ezdxf.new("R2000", setup=True)
    doc.header["$INSUNITS"] = 1  # inches
    space = doc.modelspace()
    left, base = 1_000_000, 500_000
    # 165 x 142 in: 13'9" x 11'10"; the room beside it is an L of 10 x 10 ft less 4 x 3 ft.
    space.add_lwpolyline(
        [(left, base), (left + 165, base), (left + 165, base + 142), (left, base + 142)], close=True)
    x = left + 165
    space.add_polyline2d(
        [(x, base + 22), (x + 120, base + 22), (x + 120, base + 106), (x + 72, base + 106), (x + 72, base + 142), (x, base + 142)],
        close=True)
    space.add_lwpolyline([(left, base), (left + 50, base + 50)])  # open: no room
    space.add_text("KITCHEN", height=8).set_placement((left + 60, base + 70))
    space.add_text("13'9 x 11'10", height=12).set_placement((left + 60, base + 50))
    space.add_mtext("{\\fArial|b0;Pantry}\\PStore", dxfattribs={"char_height": 7}).set_location((x + 30, base + 110))
    for name in ("RECEPTACLE_DUPLEX", "light_ceiling", "SOFA"):
        block = doc.blocks.new(name)
        block.add_circle((0, 0), 4)
    space.add_blockref("RECEPTACLE_DUPLEX", (left + 40, base + 142))
    space.add_blockref("light_ceiling", (left + 82.5, base + 71))
    space.add_blockref("light_ceiling", (left - 5000, base))
    space.add_blockref("SOFA", (left + 82.5, base + 71))
    doc.saveas(path)


{"read": read, "write": write}[sys.argv[1]](sys.argv[2])
