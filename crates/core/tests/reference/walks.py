"""Shortest ways through made-up houses, worked out anew with shapely and networkx from the corners, doors and stairs.

Reads one JSON object a line: rooms (name, corners, middle), doors (two rooms and a place), stairs (two rooms, two
places, what a flight counts), and our millimeters from room to room. Prints the largest difference.
"""
import json
import sys

import networkx as nx
from shapely.geometry import LineString, Polygon

worst = 0.0
pairs = 0
for text in sys.stdin:
    house = json.loads(text)
    graph = nx.Graph()
    places = {}  # room -> places in it
    shapes = {}
    for room in house["rooms"]:
        shapes[room["name"]] = Polygon(room["corners"]).buffer(1.0, join_style="mitre")
        middle = tuple(room["middle"])
        places[room["name"]] = {middle}
        # Every corner may be gone around; the shortest way picks the ones it needs.
        places[room["name"]].update(tuple(c) for c in room["corners"])
    for one, other, place in house["doors"]:
        place = tuple(place)
        places[one].add(place)
        places[other].add(place)
        graph.add_edge((one, place), (other, place), weight=0.0)
    for lower, at, upper, to, flight in house["stairs"]:
        places[lower].add(tuple(at))
        places[upper].add(tuple(to))
        graph.add_edge((lower, tuple(at)), (upper, tuple(to)), weight=flight)
    for name, inside in places.items():
        inside = sorted(inside)
        for n, a in enumerate(inside):
            graph.add_node((name, a))
            for b in inside[n + 1:]:
                way = LineString([a, b])
                if shapes[name].covers(way):
                    graph.add_edge((name, a), (name, b), weight=way.length)
    middles = {room["name"]: (room["name"], tuple(room["middle"])) for room in house["rooms"]}
    for one, other, ours in house["ways"]:
        theirs = nx.shortest_path_length(graph, middles[one], middles[other], weight="weight")
        worst = max(worst, abs(theirs - ours))
        pairs += 1
print(json.dumps({"worst_mm": worst, "pairs": pairs}))
