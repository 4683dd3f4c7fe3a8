#!/usr/bin/env python3
"""What files take at a machine, worked out from their words alone: nothing of Doyen's own code is used.

  file_seconds.py [--machine ID] [--machines machines.json] [--json] [--files] FOLDER-OR-FILE...

One look-ahead over each whole file: every axis keeps its acceleration and speed, corners are taken at
v² = a·δ·s/(1 − s) with s the sine of half the angle between the two moves, through plunges, lifts and travel alike;
only dwells, bit changes and the spindle bring the machine to rest. A controller that takes in so many moves a second, or
knows so few ahead of the one that runs, is kept to that. Arcs keep v² ≤ a·r. Times by what the move is:
cutting (a feed move that goes sideways), plunge (straight down at feed), travel (fast, sideways), lift (fast, up),
down (fast, down), rest (dwells). Also: lines, bytes, lifts, millimetres at feed and in the air, how much of the path at
feed goes where the same bit has been as deep before (within 0.05 mm), how many feed moves are shorter than 0.02 mm, and
the whole time over what the path that is not gone over again needs at the feed asked.
"""
import argparse
import json
import math
import os
import re
import sys

WORD = re.compile(r"([A-Za-z])\s*([-+]?\d*\.?\d+)")


class Machine:
    def __init__(self, said):
        self.rapid, self.most, self.accel = said["rapid"], said["feedMax"], said["acceleration"]
        self.deviation = said["cornerDeviation"]
        self.rate, self.ahead = said.get("movesPerSecond", 0), int(said.get("movesAhead", 0))
        self.dwell = 0.001 if said.get("dwellInMilliseconds") else 1


def within_axes(unit, per_axis):
    return min(per_axis[k] / abs(unit[k]) for k in range(3) if abs(unit[k]) > 1e-9)


class File:
    """The moves of one file, in runs between rests."""

    def __init__(self, text, machine):
        self.machine = machine
        self.runs, self.rest, self.lifts = [[]], 0.0, 0
        self.lines, self.bytes = text.count("\n"), len(text.encode())
        self.feeds, self.tiny = 0, 0
        self.at_feed, self.in_air, self.again, self.needed = 0.0, 0.0, 0.0, 0.0
        self.been = {}
        at, scale, mode, feed = None, 1.0, 0, 0.0
        at = [0.0, 0.0, None]
        for raw in text.splitlines():
            line = re.sub(r"\([^)]*\)|;.*", "", raw)
            words = [(w.upper(), float(v)) for w, v in WORD.findall(line)]
            if not words:
                continue
            to, off, moves = list(at), [0.0, 0.0], False
            dwell = False
            for letter, value in words:
                if letter == "G" and value in (0, 1, 2, 3):
                    mode = int(value)
                elif letter == "G" and value == 20:
                    scale = 25.4
                elif letter == "G" and value == 4:
                    dwell = True
                elif letter == "P" and dwell:
                    self.rest += value * machine.dwell
                    self.stop()
                elif letter == "M":
                    self.stop()
                elif letter == "F":
                    feed = value * scale
                elif letter in "XYZ":
                    to["XYZ".index(letter)] = value * scale
                    moves = True
                elif letter in "IJ":
                    off["IJ".index(letter)] = value * scale
            if not moves and mode in (0, 1):
                continue
            if at[2] is None:
                at[2] = to[2]  # the height before the first z is not known: nothing is counted for it
                if at[2] is None:
                    at[:2] = to[:2]
                    continue
            if mode in (2, 3) and (off[0] or off[1]):
                self.arc(at, to, off, mode == 2, feed)
            elif to != at:
                self.straight(at, to, mode == 0, feed)
            at = to

    def stop(self):
        if self.runs[-1]:
            self.runs.append([])

    def straight(self, a, b, fast, feed):
        d = [b[k] - a[k] for k in range(3)]
        length = math.sqrt(sum(x * x for x in d))
        if length < 1e-9:
            return
        unit = [x / length for x in d]
        flat = math.hypot(d[0], d[1])
        if fast:
            top = within_axes(unit, self.machine.rapid) / 60
            kind = "travel" if flat > 1e-6 else "lift" if d[2] > 0 else "down"
            self.in_air += flat
            self.lifts += kind == "lift"
        else:
            top = min(feed, within_axes(unit, self.machine.most)) / 60
            kind = "plunge" if flat < 1e-6 and d[2] < 0 else "cutting"
            self.feeds += 1
            self.tiny += length < 0.02
            self.at_feed += length
            if kind == "cutting":
                self.needed += length * (1 - self.count_again(a, b, flat)) / (feed / 60) if feed > 0 else 0
        self.runs[-1].append((unit, unit, length, top, within_axes(unit, self.machine.accel), kind))

    def arc(self, a, b, off, clockwise, feed):
        cx, cy = a[0] + off[0], a[1] + off[1]
        r = math.hypot(*off)
        start, end = math.atan2(a[1] - cy, a[0] - cx), math.atan2(b[1] - cy, b[0] - cx)
        turn = start - end if clockwise else end - start
        while turn <= 1e-9:
            turn += 2 * math.pi
        flat, dz = r * turn, b[2] - a[2]
        length = math.hypot(flat, dz)
        way = -1 if clockwise else 1

        def tangent(angle):
            return [-math.sin(angle) * way * flat / length, math.cos(angle) * way * flat / length, dz / length]

        accel = min(self.machine.accel[:2])
        top = min([feed / 60, min(self.machine.most[:2]) / 60, math.sqrt(accel * r)])
        if abs(dz) > 1e-9:
            top = min(top, self.machine.most[2] / 60 * length / abs(dz))
            accel = min(accel, self.machine.accel[2] * length / abs(dz))
        self.feeds += 1
        self.at_feed += length
        n = max(2, int(flat / 0.2))
        points = [[cx + r * math.cos(start + way * turn * i / n), cy + r * math.sin(start + way * turn * i / n),
                   a[2] + dz * i / n] for i in range(n + 1)]
        for p, q in zip(points, points[1:]):
            again = self.count_again(p, q, math.hypot(q[0] - p[0], q[1] - p[1]))
            self.needed += length / n * (1 - again) / (feed / 60) if feed > 0 else 0
        self.runs[-1].append((tangent(start), tangent(start + way * turn), length, top, accel, "cutting"))

    def count_again(self, a, b, flat):
        """Points every 0.05 mm; a place counts as gone over again where the way came by before by another move."""
        n = max(1, int(flat / 0.05))
        again = 0
        fresh = []
        for i in range(n):
            t = (i + 0.5) / n
            x, y, z = (a[k] + (b[k] - a[k]) * t for k in range(3))
            place = (round(x / 0.05), round(y / 0.05))
            before = self.been.get(place)
            if before is not None and before <= z + 0.005:
                again += 1
            fresh.append((place, z))
        for place, z in fresh:
            if self.been.get(place, 1e9) > z:
                self.been[place] = z
        self.again += flat * again / n
        return again / n

    def seconds(self):
        by = dict(cutting=0.0, plunge=0.0, travel=0.0, lift=0.0, down=0.0, rest=self.rest)
        for run in self.runs:
            n = len(run)
            if not n:
                continue
            if self.machine.rate:  # a move takes at least as long as the controller needs to take it in
                run = [(m[0], m[1], m[2], min(m[3], m[2] * self.machine.rate), m[4], m[5]) for m in run]
            corner = [0.0] * (n + 1)
            for i in range(1, n):
                before, now = run[i - 1], run[i]
                straight_on = max(-1.0, min(1.0, sum(p * q for p, q in zip(before[1], now[0]))))
                s = math.sqrt((1 + straight_on) / 2)  # sine of half the angle between them
                top = min(before[3], now[3])
                if s < 1 - 1e-12:
                    top = min(top, math.sqrt(min(before[4], now[4]) * self.machine.deviation * s / (1 - s)))
                corner[i] = top
            if self.machine.ahead:  # it can always come to rest within what it knows
                for i in range(1, n):
                    known = sum(2 * m[4] * m[2] for m in run[i:i + self.machine.ahead])
                    corner[i] = min(corner[i], math.sqrt(known))
            for i in range(n - 1, -1, -1):
                corner[i] = min(corner[i], math.sqrt(corner[i + 1] ** 2 + 2 * run[i][4] * run[i][2]))
            for i in range(n):
                length, top, a = run[i][2], run[i][3], run[i][4]
                v = corner[i]
                corner[i + 1] = min(corner[i + 1], math.sqrt(v * v + 2 * a * length))
                w = corner[i + 1]
                peak = min(top, math.sqrt((2 * a * length + v * v + w * w) / 2))
                level = max(0.0, length - (2 * peak * peak - v * v - w * w) / (2 * a))
                by[run[i][5]] += (2 * peak - v - w) / a + (level / peak if peak > 0 else 0)
        return by


def main():
    here = os.path.dirname(os.path.abspath(__file__))
    args = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    args.add_argument("--machine", default="mm-plain")
    args.add_argument("--machines", default=os.path.join(here, "..", "data", "machines.json"))
    args.add_argument("--json", action="store_true")
    args.add_argument("--files", action="store_true", help="a line for each file, not only for each folder")
    args.add_argument("paths", nargs="+")
    said = args.parse_args()
    with open(said.machines) as f:
        machine = next(Machine(m) for m in json.load(f)["machines"] if m["id"] == said.machine)
    rows = []
    for path in said.paths:
        names = [path]
        if os.path.isdir(path):
            names = sorted(os.path.join(d, n) for d, _, all_ in os.walk(path) for n in all_ if n.endswith(".nc"))
        whole = {}
        for name in names:
            with open(name) as f:
                file = File(f.read(), machine)
            row = dict(name=name, **file.seconds(), lifts=file.lifts, lines=file.lines, bytes=file.bytes,
                       at_feed=file.at_feed, in_air=file.in_air, again=file.again, tiny=file.tiny, feeds=file.feeds,
                       needed=file.needed)
            row["seconds"] = sum(row[k] for k in ("cutting", "plunge", "travel", "lift", "down", "rest"))
            if said.files or not os.path.isdir(path):
                rows.append(row)
            for key, value in row.items():
                if key != "name":
                    whole[key] = whole.get(key, 0) + value
        if os.path.isdir(path):
            rows.append(dict(name=path, **whole))
    if said.json:
        json.dump(rows, sys.stdout, indent=1)
        return
    heads = ["seconds", "cutting", "plunge", "travel", "lift", "down", "rest", "lifts", "lines", "bytes", "feed m",
             "air m", "again m", "tiny", "÷needed"]
    print("%-34s" % "file" + "".join("%9s" % h for h in heads))
    for r in rows:
        values = [r["seconds"], r["cutting"], r["plunge"], r["travel"], r["lift"], r["down"], r["rest"], r["lifts"],
                  r["lines"], r["bytes"], r["at_feed"] / 1000, r["in_air"] / 1000, r["again"] / 1000, r["tiny"],
                  r["seconds"] / r["needed"] if r["needed"] > 0 else 0]
        print("%-34s" % r["name"][-34:] + "".join("%9.1f" % v if i in (10, 11, 12) else "%9.2f" % v if i == 14 else "%9.0f" % v
                                                   for i, v in enumerate(values)))


if __name__ == "__main__":
    main()
